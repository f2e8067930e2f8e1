// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest'
import { stepKey } from '@/core/evaluate'
import { exampleString } from '@/core/steps/worked'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { TestBench } from '../testing/TestBench'
import { forgetMinded } from './minded'

const { draw, find, press } = inDom()
beforeEach(forgetMinded)

const build = new FactsBuilder()
const arrayOf = (tag: string): string =>
  build.part({ kind: 'array', tag, tilt_deg: 30, azimuth_deg: 180, mounting: 'open-rack' })
const stringOn = (tag: string, arrayId: string): string => {
  const string = build.part({ ...exampleString(11), tag, arrayId })
  build.polarity(string)
  return string
}
const [south, east] = [arrayOf('South'), arrayOf('East')]
const [first, second, elsewhere] = [stringOn('1', south), stringOn('2', south), stringOn('3', east)]

/** The bench for the voltage of a string, opened anew. */
const open = (string: string, facts = build.facts()): Promise<void> =>
  draw(<TestBench key={`${string} ${facts.visits.length}`} facts={facts} stepKey={stepKey('pv-voc', string)} />)
const left = (): number => document.querySelectorAll('.chk input:not(:checked)').length
const isDrawn = (): boolean => document.querySelector('.hook figure') !== null

describe('what must be ticked before a test', () => {
  it('is ticked once for the strings of one array, whose drawing then folds away', async () => {
    await open(first)
    expect(left()).toBeGreaterThan(0)
    expect(isDrawn()).toBe(true)
    await press('[data-testid=tick-all]')
    expect(left()).toBe(0)
    expect(isDrawn()).toBe(true)
    await open(second)
    expect(isDrawn()).toBe(false)
    // What was minded stays to be read, and the drawing is one key away.
    expect(find('[data-testid=known]').textContent).toContain('Open plugs are live in daylight')
    await press('[data-testid=hook-up]')
    expect(isDrawn()).toBe(true)
  })

  it('is asked again on another array', async () => {
    await open(first)
    await press('[data-testid=tick-all]')
    await open(elsewhere)
    expect(left()).toBeGreaterThan(0)
    expect(isDrawn()).toBe(true)
  })

  it('is asked again in another visit', async () => {
    await open(first)
    await press('[data-testid=tick-all]')
    const facts = build.facts()
    const visits = [...facts.visits, { ...facts.visits[0]!, id: `${facts.visits[0]!.id.slice(0, -1)}f` }]
    await open(second, { ...facts, visits })
    expect(left()).toBeGreaterThan(0)
  })
})
