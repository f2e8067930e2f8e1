import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import type { LiveSample } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import { moduleModel } from '@/core/pv/stringModel'
import { exampleModule } from '@/core/steps/worked'
import { conditions, FactsBuilder, START_ms, testId } from '@/core/testing/factsBuilder'
import { runSequence, sequenceOf, type Taken } from './sequence'

const model = moduleModel(exampleModule)
const range = (measures: Measurable) => ({
  measures,
  accuracy: { ofReading_pct: 1, digits: 1 },
  most: 1000,
  decimals: 1,
})
const tool: Instrument = {
  id: testId(9),
  tag: '07',
  name: 'Tester',
  serial: '',
  calibrationDue: null,
  standIn: true,
  ranges: (['dc-polarity', 'dc-voltage', 'dc-current', 'insulation'] as const).map(range),
}
const SET_UP = {
  method: { choice: 'joined-to-earth' },
  'set-voltage': { choice: 'v1000' },
  joined: { text: '300', value: 300, bound: 'exact' as const, unit: 'Mohm' as const },
  behaviour: { choice: 'steady' },
  surface: { choice: 'dry' },
  surge: { choice: 'none-there' },
}
const values: Record<string, number> = {
  'dc-polarity': 1,
  'dc-voltage': 11 * model.voc_V(742, 43.6),
  'dc-current': model.isc_A(742, 43.6),
  insulation: 300,
}
const units = { 'dc-polarity': 'one', 'dc-voltage': 'V', 'dc-current': 'A', insulation: 'Mohm' } as const

function roof(withSetUp: boolean, isolated = true) {
  const build = new FactsBuilder(isolated)
  const first = build.string('1')
  const second = build.string('2')
  if (withSetUp) build.reading('pv-insulation', first, { slots: SET_UP })
  const facts = build.facts({ instruments: [tool] })
  const evaluation = evaluate(facts, START_ms)
  return { facts, evaluation, one: evaluation.byKey.get(stepKey('pv-polarity', second))! }
}
async function run(shows: Partial<Record<Measurable, number | string>> = {}) {
  const { facts, evaluation, one } = roof(true)
  const seen: Taken[] = []
  const end = await runSequence(sequenceOf(evaluation, facts, one, tool), {
    evaluation,
    facts,
    tool,
    conditions: () => conditions(),
    press: async (_, wanted): Promise<LiveSample | string> => {
      const shown = shows[wanted] ?? values[wanted]!
      if (typeof shown === 'string') return shown
      const unit = units[wanted as keyof typeof units]
      const read = { text: shown.toFixed(2), value: shown, bound: 'exact' as const, unit }
      return { instrumentId: tool.id, quantity: wanted, read, at: new Date(START_ms).toISOString() }
    },
    onTaken: (taken) => seen.push(taken),
  })
  expect(seen).toEqual(end.taken)
  return { ...end, ids: end.taken.map((taken) => taken.one.step.id) }
}

describe('a tester’s sequence', () => {
  it('holds the tests that it takes by itself, in order, and none that somebody must watch', () => {
    const ids = (withSetUp: boolean): string[] => {
      const { facts, evaluation, one } = roof(withSetUp)
      return sequenceOf(evaluation, facts, one, tool).map((other) => other.step.id)
    }
    expect(ids(false)).toEqual(['pv-polarity', 'pv-voc', 'pv-isc'])
    // How an insulation reading behaves is seen by a person, however it was set up before.
    expect(ids(true)).toEqual(['pv-polarity', 'pv-voc', 'pv-isc'])
  })

  it('holds nothing behind a hard gate that is shut, whatever key opens it', () => {
    const { facts, evaluation, one } = roof(true, false)
    expect(sequenceOf(evaluation, facts, one, tool)).toEqual([])
  })

  it('begins with the polarity again on a string that was found reversed', () => {
    const build = new FactsBuilder()
    const id = build.string('1')
    build.polarity(id, 'reversed')
    const facts = build.facts({ instruments: [tool] })
    const evaluation = evaluate(facts, START_ms)
    const all = sequenceOf(evaluation, facts, evaluation.byKey.get(stepKey('pv-voc', id))!, tool)
    expect(all.map((one) => one.step.id)).toEqual(['pv-polarity', 'pv-voc', 'pv-isc'])
    // A tester that reads no polarity takes nothing at all there.
    const small = { ...tool, ranges: [range('dc-voltage'), range('dc-current')] }
    expect(sequenceOf(evaluation, facts, all[1]!, small)).toEqual([])
  })

  it('holds nothing that the instrument does not measure', () => {
    const { facts, evaluation, one } = roof(true)
    const small = { ...tool, ranges: [range('dc-voltage')] }
    expect(sequenceOf(evaluation, facts, one, small).map((other) => other.step.id)).toEqual(['pv-voc'])
  })

  it('takes one reading after another, each with its light and its set-up', async () => {
    const { ids, taken, stopped } = await run()
    expect(stopped).toBeNull()
    expect(ids).toEqual(['pv-polarity', 'pv-voc', 'pv-isc'])
    expect(taken.every((one) => one.judgement.verdict === 'within')).toBe(true)
    expect(taken[1]!.body).toMatchObject({ how: 'stand-in', conditions: { how: 'typed' } })
  })

  it('stops at a reversed string: no current, no insulation', async () => {
    const { ids, stopped } = await run({ 'dc-polarity': -1 })
    expect(ids).toEqual(['pv-polarity'])
    expect(stopped!.one.step.id).toBe('pv-polarity')
  })

  it('says of a reading outside what weakens it, and not that it waits for the one before it', async () => {
    const { taken, stopped } = await run({ 'dc-current': 1.4 * values['dc-current']! })
    expect(taken[1]!.flags).toEqual(['stand-in'])
    expect(stopped!.one.step.id).toBe('pv-isc')
    expect(taken.at(-1)).toMatchObject({ judgement: { verdict: 'outside' }, flags: ['stand-in'] })
  })

  it('stops where the instrument refuses, and says why', async () => {
    const { ids, stopped } = await run({ 'dc-current': 'over its rating' })
    expect(ids).toEqual(['pv-polarity', 'pv-voc'])
    expect(stopped).toMatchObject({ why: 'over its rating' })
  })

  it('stops at what must be asked about: that is taken by hand', async () => {
    const { ids, stopped } = await run({ 'dc-voltage': 10 * values['dc-voltage']! })
    expect(ids).toEqual(['pv-polarity'])
    expect(stopped!.one.step.id).toBe('pv-voc')
  })
})
