import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it, vi } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import { walkOf } from '@/core/evaluation/walk'
import { readValueOf } from '@/core/quantity/readValue'
import type { Facts } from '@/core/record/facts'
import { FactsBuilder, START_ms } from '@/core/testing/factsBuilder'
import { sampleStep } from '@/core/testing/sampleStep'
import { certificateOf } from '@/report/certificate'
import { drawings } from '../hookup/drawings'
import { RunSheet } from '../run/RunSheet'
import { TestBench } from '../testing/TestBench'

// A new step is its file, its words and its drawing: here all three come from beside this test, and nothing else does.
vi.mock('@/core/steps', async (original) => {
  const all = await original<typeof import('@/core/steps')>()
  const { sampleStep: own } = await import('@/core/testing/sampleStep')
  return {
    steps: [...all.steps, own],
    stepsOf: () => [...all.steps, own],
    stepById: (id: string) => (id === own.id ? own : all.stepById(id)),
  }
})
vi.mock('@/words/en/dc', async (original) => {
  const words = await original<typeof import('@/words/en/dc')>()
  const { sampleWords: own } = await import('@/core/testing/sampleStep')
  return { dc: { ...words.dc, ...own } }
})
drawings['sample-terminal'] = ({ lead }) => <text>{lead(1)}</text>

function switchRead(volts: number): { facts: Facts; key: string } {
  const build = new FactsBuilder()
  const id = build.part(sampleStep.example.part)
  build.reading(sampleStep.id, id, { slots: { pull: readValueOf(volts, 'V', 0) } })
  return { facts: build.facts(), key: stepKey(sampleStep.id, id) }
}
const nothing = (): undefined => undefined

describe('a step that was added by its file, its words and its drawing', () => {
  const { facts, key } = switchRead(6)
  const evaluation = evaluate(facts, START_ms)
  const one = evaluation.byKey.get(key)!

  it('is judged, walked, and opens a snag where it is outside', () => {
    expect(one.verdict).toBe('within')
    expect(walkOf(evaluation, 'by-place').steps).toContain(one)
    const bad = switchRead(2)
    expect(evaluate(bad.facts, START_ms).snags).toMatchObject([{ step: sampleStep.id, state: 'open' }])
  })

  it('is printed', () => {
    const table = certificateOf(facts, START_ms, null).tables.find((found) => found.id === sampleStep.id)!
    expect(table.title).toBe('B13 Terminal pull')
    expect(table.rows[0]!.map((cell) => cell.text)).toContain('Within')
  })

  it('is drawn on the bench with its words, its drawing, its slot and its rule', () => {
    const benchOf = (facts: Facts): string =>
      renderToStaticMarkup(<TestBench facts={facts} stepKey={key} conditions={null} />)
    const unread = { ...facts, entries: facts.entries.filter((entry) => entry.body.kind !== 'reading') }
    expect(benchOf(unread)).toContain('aria-label="DC switch DC1. 1: terminal"')
    const drawn = benchOf(facts)
    expect(drawn).toContain('Pull at the terminals, switch DC1')
    expect(drawn).toContain('slot-pull')
    expect(drawn).toContain('6 holds at DC1.')
    expect(drawn).toContain('class="rule"')
  })

  it('stands on the run sheet', () => {
    const walks = { 'by-test': walkOf(evaluation, 'by-test'), 'by-place': walkOf(evaluation, 'by-place') }
    const drawn = renderToStaticMarkup(
      <RunSheet
        evaluation={evaluation}
        walks={walks}
        way="by-test"
        setWay={nothing}
        nowKey={key}
        begun={new Set()}
        onOpen={nothing}
      />,
    )
    expect(drawn).toContain('B13 Terminal pull')
    expect(drawn).toContain('6 V')
  })
})
