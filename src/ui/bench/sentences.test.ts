import '@/words/everyTest'
import { describe, expect, it } from 'vitest'
import { type DraftEvaluation, evaluate, evaluateDraft, stepKey } from '@/core/evaluate'
import { moduleModel } from '@/core/pv/stringModel'
import { readValueOf } from '@/core/quantity/readValue'
import { exampleModule, exampleCircuit, exampleSite, exampleSupply } from '@/core/steps/worked'
import { conditions, FactsBuilder, readingBody, START_ms } from '@/core/testing/factsBuilder'
import { decimalsOf, expectedRule, sentenceOf, sistersOnRule } from './sentences'

const one_V = moduleModel(exampleModule).voc_V(742, 43.6)
const plain = (text: string): string => text.replaceAll('\u00a0', ' ')

function seen(build: FactsBuilder, step: string, part: string, light: ReturnType<typeof conditions> | null = null) {
  const facts = build.facts()
  const evaluation = evaluate(facts, START_ms)
  const one = evaluation.byKey.get(stepKey(step, part))!
  const begun = evaluateDraft(evaluation, one, readingBody({ conditions: light }))
  return { facts, evaluation, one, conditions: light, begun }
}
/** What the bench says of a step that is being taken, before or while something stands in it. */
const says = (at: ReturnType<typeof seen>, live: DraftEvaluation | null = null): string =>
  plain(sentenceOf(at, true, live, at.begun))
function stringReady() {
  const build = new FactsBuilder()
  const id = build.string('1')
  build.polarity(id)
  return { build, id }
}

describe('what the bench says before anything is read', () => {
  it('is what to expect, where light and warmth are known', () => {
    const { build, id } = stringReady()
    const at = seen(build, 'pv-voc', id, conditions(742, 43.6))
    expect(says(at)).toMatch(/^It should read \d{3}\.\d V now, ±\d+\.\d/)
  })

  it('is what is missing, where they are not', () => {
    const { build, id } = stringReady()
    expect(says(seen(build, 'pv-voc', id))).toContain('Pair a light meter, or type them')
  })

  it('is what holds the step back, before anything else', () => {
    const build = new FactsBuilder()
    const id = build.string('1')
    const at = seen(build, 'pv-voc', id, conditions())
    expect(says(at)).toBe('Waits for the polarity of string 1.')
  })

  it('is what a list or a test without light wants', () => {
    const build = new FactsBuilder()
    const place = build.part(exampleSite)
    expect(says(seen(build, 'close-out', place))).toContain('9 lines are open')
    expect(says(seen(build, 'lead-null', place))).toContain('join its clips')
  })

  it('is that a test of new work is only offered in a periodic inspection, and what it waits for', () => {
    const build = new FactsBuilder()
    build.part({ ...exampleSite, work: 'periodic' })
    build.part(exampleSupply)
    const ring = build.part({ ...exampleCircuit, layout: 'ring' })
    const said = says(seen(build, 'ring-ends', ring))
    expect(said).toMatch(/^Asked of new work\. In a periodic inspection take it where something was altered/)
    expect(said).toContain('Waits until the installation was proved dead')
  })

  it('is why it is to be done again after a mending', () => {
    const { build, id } = stringReady()
    const snag = build.voltage(id, 10 * one_V)
    build.add({ kind: 'remedy', v: 1, snag, text: 'plugged in', repeat: [] }, { step: 'pv-voc', partId: id })
    const at = seen(build, 'pv-voc', id, conditions())
    expect(says(at)).toBe('To be done again: plugged in')
  })
})

describe('what the bench says of a reading', () => {
  it('that is typed is its own judgement, kept or not', () => {
    const { build, id } = stringReady()
    const at = seen(build, 'pv-voc', id, conditions())
    const body = readingBody({ slots: { voltage: readValueOf(11 * one_V, 'V', 1) }, conditions: conditions() })
    const live = evaluateDraft(at.evaluation, at.one, body)
    expect(says(at, live)).toContain('Allowed: ±5 %')
  })

  it('that is outside is what it means as well', () => {
    const { build, id } = stringReady()
    build.voltage(id, 10 * one_V)
    const sentence = plain(sentenceOf(seen(build, 'pv-voc', id), false, null, null))
    expect(sentence).toContain('below the')
    expect(sentence).toContain('String 1 reads as if 1 of 11 modules were left out.')
  })
})

describe('the rule before anything is read', () => {
  it('shows where a reading should come to lie, and no reading', () => {
    const { build, id } = stringReady()
    const rule = expectedRule(seen(build, 'pv-voc', id, conditions(742, 43.6)))!
    expect(rule.measured).toBeNull()
    expect(rule.expected!.value).toBeCloseTo(11 * one_V, 3)
    expect(expectedRule(seen(build, 'pv-voc', id))).toBeNull()
  })

  it('shows the limit of a test that needs no light', () => {
    const build = new FactsBuilder()
    const id = build.part({ kind: 'row', tag: 'R1', arrayId: null, conductor: null })
    expect(expectedRule(seen(build, 'earth-continuity', id))).toMatchObject({ measured: null, band: { high: 1 } })
  })

  it('is not there for answers', () => {
    const { build, id } = stringReady()
    expect(expectedRule(seen(build, 'pv-polarity', id))).toBeNull()
  })
})

describe('sisters on the rule', () => {
  it('stand where their own share of what was expected puts them in this light', () => {
    const build = new FactsBuilder()
    const ids = ['1', '2', '3'].map((tag) => build.string(tag))
    for (const id of ids) build.polarity(id)
    build.voltage(ids[1]!, 11 * one_V * 0.98)
    const at = seen(build, 'pv-voc', ids[0]!, conditions())
    const found = sistersOnRule(at.evaluation, at.one, { expected: { value: 100 } })
    expect(found.map((one) => one.label)).toEqual(['2'])
    expect(found[0]!.value).toBeCloseTo(98, 1)
  })

  it('are none for a test that compares nothing', () => {
    const build = new FactsBuilder()
    const id = build.part({ kind: 'row', tag: 'R1', arrayId: null, conductor: null })
    const at = seen(build, 'earth-continuity', id)
    expect(sistersOnRule(at.evaluation, at.one, { expected: { value: 1 } })).toEqual([])
  })
})

describe('decimals', () => {
  it.each([
    ['A', 2],
    ['ohm', 2],
    ['W', 0],
    ['deg', 0],
    ['V', 1],
    ['Mohm', 1],
  ])('of %s are %d', (unit, decimals) => {
    expect(decimalsOf(unit)).toBe(decimals)
  })
})
