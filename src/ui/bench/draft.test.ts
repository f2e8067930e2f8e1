import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import type { PartData } from '@/core/plant/part'
import { readValueOf } from '@/core/quantity/readValue'
import type { LiveSample } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import type { Slot } from '@/core/steps/slot'
import { slotsOf } from '@/core/steps/step'
import { exampleCircuit, exampleElectrode, exampleString } from '@/core/steps/worked'
import { conditions, FactsBuilder, JOB, START_ms, testId } from '@/core/testing/factsBuilder'
import {
  type AnsweredSlot,
  answered,
  carriedInto,
  type Draft,
  emptyDraft,
  instrumentsFor,
  isStarted,
  kitFor,
  obstacle,
  optionsOf,
  readDraft,
  wantsWords,
  withSample,
  withTool,
} from './draft'

const site: PartData = { kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 }
const rangeOf = (measures: Measurable) => ({
  measures,
  accuracy: { ofReading_pct: 1, digits: 1 },
  most: 1000,
  decimals: 1,
})
const tool = (tag: string, due: string | null, measures: 'dc-voltage' | 'insulation' = 'dc-voltage'): Instrument => ({
  id: testId(Number(tag)),
  tag,
  name: 'Tester',
  serial: '',
  calibrationDue: due,
  standIn: false,
  ranges: [rangeOf(measures)],
  leadSets: [{ id: `set-${tag}`, name: `Leads of ${tag}` }],
})

function bench(step: string, build = new FactsBuilder(), data: PartData | null = null) {
  const id = data ? build.part(data) : build.string('1')
  const facts = build.facts({ instruments: [tool('7', '2030-01-01'), tool('9', '2020-01-01')] })
  const evaluation = evaluate(facts, START_ms)
  return { id, facts, evaluation, one: evaluation.byKey.get(stepKey(step, id))! }
}
const draft = (part: Partial<Draft>): Draft => ({ ...emptyDraft(null), started: true, ...part })
const slotOf = (step: string, id: string): Slot => slotsOf(bench(step).one.step).find((slot) => slot.id === id)!

describe('a draft', () => {
  it('of nothing is no reading, and all its slots are open', () => {
    const { one, evaluation } = bench('pv-insulation')
    const state = readDraft(emptyDraft(null), one, evaluation, null)
    expect(state.body).toBeNull()
    expect(state.open.map((slot) => slot.id)).toEqual(['method', 'set-voltage', 'behaviour', 'surface', 'surge'])
  })

  it('asks for the figures of the method that was chosen, and for no others', () => {
    const { one, evaluation } = bench('pv-insulation')
    const open = (method: string): string[] =>
      readDraft(draft({ choices: { method } }), one, evaluation, null).open.map((slot) => slot.id)
    expect(open('joined-to-earth')).toContain('joined')
    expect(open('joined-to-earth')).not.toContain('positive-to-earth')
    expect(open('each-to-earth')).toEqual(expect.arrayContaining(['negative-to-earth', 'positive-to-earth']))
  })

  it('keeps no figure of a method that was given up', () => {
    const { one, evaluation } = bench('pv-insulation')
    const texts = { joined: '300', 'negative-to-earth': '200' }
    const state = readDraft(draft({ choices: { method: 'joined-to-earth' }, texts }), one, evaluation, null)
    expect(Object.keys(state.body!.slots)).toEqual(['method', 'joined'])
  })

  it('is no reading while a figure cannot be read, and says which', () => {
    const { one, evaluation } = bench('operating')
    const state = readDraft(draft({ texts: { current: '8.1', voltage: 'abc' } }), one, evaluation, conditions())
    expect(state.body).toBeNull()
    expect(obstacle(state, slotOf('operating', 'voltage'))).toContain('is not a figure')
    expect(obstacle(state, slotOf('operating', 'current'))).toBeNull()
  })

  it('says at its own slot what is refused', () => {
    const { one, evaluation } = bench('pv-insulation')
    const texts = { 'negative-to-earth': '300', 'positive-to-earth': '-2' }
    const state = readDraft(draft({ choices: { method: 'each-to-earth' }, texts }), one, evaluation, null)
    expect(obstacle(state, slotOf('pv-insulation', 'positive-to-earth'))).toContain('negative')
    expect(obstacle(state, slotOf('pv-insulation', 'negative-to-earth'))).toBeNull()
  })

  it('says where a string was read, and nothing of the kind for a site', () => {
    const at = bench('pv-voc')
    expect(readDraft(draft({ texts: { voltage: '380' } }), at.one, at.evaluation, null).body!.place).toBe('plugs')
    const place = bench('safe-isolation', new FactsBuilder(), site)
    const state = readDraft(draft({ choices: { 'ac-off': 'as-it-should' } }), place.one, place.evaluation, null)
    expect(state.body!.place).toBeNull()
  })
})

describe('a line that is not as it should be', () => {
  const { one, evaluation } = bench('inspection', new FactsBuilder(), site)
  const line = slotsOf(one.step)[0]!

  it.each([
    ['as-it-should', '', false],
    ['not-as-it-should', '', true],
    ['not-as-it-should', 'x', true],
    ['not-as-it-should', 'cracked', false],
    ['check-left-out', ' ', true],
    ['check-left-out', 'no ladder', false],
  ])('%s with "%s" wants words: %s', (choice, note, wants) => {
    expect(wantsWords(line, { choices: { [line.id]: choice }, notes: { [line.id]: note } })).toBe(wants)
  })

  it('keeps its words in the reading', () => {
    const given = draft({ choices: { [line.id]: 'not-as-it-should' }, notes: { [line.id]: ' cracked ' } })
    expect(readDraft(given, one, evaluation, null).body!.slots[line.id]).toEqual({
      choice: 'not-as-it-should',
      note: 'cracked',
    })
  })
})

describe('what is carried over', () => {
  const slots = {
    method: { choice: 'joined-to-earth' },
    'set-voltage': { choice: 'v500' },
    behaviour: { choice: 'risen-to-it' },
    surface: { choice: 'damp' },
    surge: { choice: 'none-there' },
  }

  it('is how the last string of this visit was set up, and never what it showed', () => {
    const build = new FactsBuilder()
    const first = build.string('1')
    build.reading('pv-insulation', first, { slots })
    const { evaluation, one, facts } = bench('pv-insulation', build)
    const carried = carriedInto(one, evaluation.steps, facts.visits.at(-1)!.id)
    expect(carried.choices).toEqual({
      method: 'joined-to-earth',
      'set-voltage': 'v500',
      surface: 'damp',
      surge: 'none-there',
    })
    expect(carriedInto(one, evaluation.steps, 'another visit').choices).toEqual({})
  })

  it('is where the spikes of an electrode stood, and not what was read there', () => {
    const build = new FactsBuilder()
    const id = build.part(exampleElectrode)
    build.reading('electrode', id, {
      slots: { 'spike-distance': readValueOf(40, 'm', 0), 're-1': readValueOf(18.3, 'ohm', 1) },
    })
    const evaluation = evaluate(build.facts(), START_ms)
    const carried = carriedInto(evaluation.byKey.get(stepKey('electrode', id))!, evaluation.steps, 'another visit')
    expect(carried.texts).toEqual({ 'spike-distance': '40' })
    expect(isStarted(emptyDraft(null, carried))).toBe(false)
  })

  it('is nothing of a list of checks: every line is looked at anew', () => {
    const build = new FactsBuilder()
    const id = build.part(site)
    build.reading('close-out', id, {
      slots: { 'sensors-back': { choice: 'not-as-it-should', note: 'still up' }, handover: { choice: 'as-it-should' } },
    })
    const evaluation = evaluate(build.facts(), START_ms)
    const one = evaluation.byKey.get(stepKey('close-out', id))!
    expect(carriedInto(one, evaluation.steps, build.facts().visits[0]!.id)).toEqual({
      choices: {},
      notes: {},
      place: 'plugs',
    })
  })
})

describe('a sample of an instrument', () => {
  const sample = (value: number, text: string): LiveSample => ({
    instrumentId: testId(7),
    quantity: 'dc-voltage',
    read: { text, value, bound: 'exact', unit: 'V' },
    at: new Date(START_ms).toISOString(),
  })

  it('fills its slot with the text of the display', () => {
    const filled = withSample(emptyDraft(null), slotOf('pv-voc', 'voltage'), sample(380, '380.0'), true)
    expect(filled).toMatchObject({ texts: { voltage: '380.0' }, hows: { voltage: 'stand-in' }, started: true })
  })

  it('keeps how it came to its figure until somebody types over it', () => {
    const { one, evaluation } = bench('pv-insulation')
    const shown: LiveSample = { ...sample(38, '38.0'), quantity: 'insulation', read: readValueOf(38, 'Mohm', 1) }
    const points = [
      [0, 12],
      [1, 38],
    ] as [number, number][]
    const method = { method: 'each-to-earth' }
    const filled = withSample(
      draft({ choices: method }),
      slotOf('pv-insulation', 'positive-to-earth'),
      shown,
      true,
      points,
    )
    const read = (own: Draft) => readDraft(own, one, evaluation, null).read['positive-to-earth']
    expect(read(filled)).toMatchObject({ value: 38, how: 'stand-in', watched: points })
    expect(read({ ...filled, texts: { 'positive-to-earth': '39' } })).not.toHaveProperty('watched')
  })

  it('answers a polarity by its sign', () => {
    const slot = slotOf('pv-polarity', 'polarity')
    expect(withSample(emptyDraft(null), slot, sample(-1, '-1'), false).choices).toEqual({ polarity: 'reversed' })
    expect(withSample(emptyDraft(null), slot, sample(1, '1'), false)).toMatchObject({
      choices: { polarity: 'correct' },
      hows: { polarity: 'feed' },
    })
  })
})

describe('the kit at the bench', () => {
  const { facts } = bench('pv-voc')

  it('offers those that measure it, in date first', () => {
    expect(instrumentsFor(facts, 'dc-voltage', 'string', START_ms).map((one) => one.tag)).toEqual(['7', '9'])
    expect(instrumentsFor(facts, 'insulation', 'string', START_ms)).toEqual([])
    expect(instrumentsFor(facts, null, 'site', START_ms)).toEqual([])
  })

  it('is the tester of the AC side for a site that has nothing else', () => {
    const ac = { ...tool('8', '2030-01-01'), ranges: (['continuity', 'loop-impedance'] as const).map(rangeOf) }
    const dc = { ...tool('7', '2030-01-01'), ranges: (['continuity'] as const).map(rangeOf) }
    const of = (data: PartData): string[] => {
      const build = new FactsBuilder()
      build.part(data)
      const evaluation = evaluate(build.facts({ instruments: [dc, ac] }), START_ms)
      const one = evaluation.byKey.get(stepKey('lead-null', JOB))!
      return kitFor(evaluation, one, 'continuity', START_ms).map((found) => found.tag)
    }
    expect(of(exampleCircuit)).toEqual(['8', '7'])
    expect(of(exampleString(10))).toEqual(['7', '8'])
  })

  it('offers its lead sets, or the only leads there are', () => {
    const place = bench('lead-null', new FactsBuilder(), site)
    const slot = slotsOf(place.one.step)[0] as AnsweredSlot
    expect(optionsOf(slot, place.facts).map((one) => one.name)).toEqual(['Leads of 7', 'Leads of 9'])
    expect(optionsOf(slot, { ...place.facts, instruments: [] })).toHaveLength(1)
  })
})

describe('the words beside a line', () => {
  const labels = 'not-as-it-should'
  const found = draft({ choices: { labels }, notes: { labels: 'string 4 carries no label', fuses: 'gG 16 A' } })

  it('go with the answer beside which they were typed, and no others', () => {
    const changed = { ...found, ...answered(found, 'labels', 'as-it-should') }
    expect(changed.choices).toEqual({ labels: 'as-it-should' })
    expect(changed.notes).toEqual({ fuses: 'gG 16 A' })
  })

  it('come back with that answer', () => {
    const changed = { ...found, ...answered(found, 'labels', 'as-it-should') }
    expect(answered(changed, 'labels', labels).notes).toEqual(found.notes)
  })

  it('stay where the same answer is pressed once more', () => {
    expect(answered(found, 'labels', labels).notes).toEqual(found.notes)
  })
})

describe('another instrument in hand', () => {
  const [one, other] = [testId(7), testId(9)]

  it('is that of what was typed, from then on', () => {
    expect(withTool(draft({ texts: { voltage: '371.2' }, instrumentId: one }), other).instrumentId).toBe(other)
  })

  it('is not that of what an instrument showed', () => {
    const shown = draft({ texts: { voltage: '371.2' }, hows: { voltage: 'feed' }, instrumentId: one })
    expect(withTool(shown, other).instrumentId).toBe(one)
  })
})
