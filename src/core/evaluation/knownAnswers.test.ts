import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import type { Instrument } from '../record/instrument'
import { readStepById } from '../steps'
import { FactsBuilder, testId } from '../testing/factsBuilder'
import { knownOf } from './knownAnswers'

const NOW = Date.parse('2026-05-14T10:00:00Z')
const line = readStepById('inspection').slots.find(({ id }) => id === 'kit-in-date')!
const all: Instrument['ranges'] = (
  [
    ['dc-voltage', 1500],
    ['dc-polarity', 1500],
    ['dc-current', 40],
    ['insulation', 999],
    ['irradiance', 1600],
    ['temperature', 110],
    ['continuity', 20],
  ] as const
).map(([measures, most]) => ({ measures, most, decimals: 1, accuracy: { ofReading_pct: 1, digits: 2 } }) as never)
const tool = (tag: string, calibrationDue: string | null, ranges = all): Instrument =>
  ({
    id: testId(0x900 + Number(tag)),
    tag,
    name: 'Tester',
    serial: 's',
    calibrationDue,
    standIn: false,
    ranges,
  }) as Instrument

function known(...instruments: Instrument[]) {
  const build = new FactsBuilder()
  build.string('1')
  return knownOf(evaluate(build.facts({ instruments }), NOW), line)
}

describe('a line that the tool can answer', () => {
  it('is as it should be where all of the kit is in date and reaches far enough', () => {
    expect(known(tool('1', '2027-02-01'), tool('2', '2026-11-05'))).toEqual({
      sound: true,
      finding: { code: 'known.kit-fine', figures: { count: 2, until: '2026-11-05' } },
    })
  })

  it('names what is out of date or without a date, and leaves the answer to whoever looks', () => {
    expect(known(tool('1', '2027-02-01'), tool('4', '2026-05-13'))).toEqual({
      sound: false,
      finding: { code: 'known.kit-out', figures: { tags: '4' } },
    })
    expect(known(tool('1', '2026-05-14'))!.sound).toBe(true)
    expect(known(tool('1', null))!.finding.code).toBe('known.kit-undated')
  })

  it('names what the kit is too weak for: the string stands above the tester', () => {
    const weak = all.map((one) => ({ ...one, most: one.measures === 'dc-voltage' ? 300 : one.most }))
    const found = known(tool('1', '2027-02-01', weak))!
    expect(found.sound).toBe(false)
    expect(found.finding.figures).toMatchObject({ best: 300 })
  })

  it('looks at every part: the longest string may be above a tester that the first is not', () => {
    const reaches = all.map((one) => ({ ...one, most: one.measures === 'dc-voltage' ? 600 : one.most }))
    const build = new FactsBuilder()
    build.string('1', 8)
    build.string('2', 20)
    const facts = build.facts({ instruments: [tool('1', '2027-02-01', reaches)] })
    expect(knownOf(evaluate(facts, NOW), line)).toMatchObject({ sound: false, finding: { figures: { tag: '2' } } })
  })

  it('is nothing where no kit is entered, and nothing of any other line', () => {
    expect(known()).toBeNull()
    const evaluation = evaluate(new FactsBuilder().facts({ instruments: [tool('1', '2027-02-01')] }), NOW)
    const others = readStepById('inspection').slots.filter((slot) => slot !== line)
    expect(others.map((slot) => knownOf(evaluation, slot))).toEqual(others.map(() => null))
  })
})
