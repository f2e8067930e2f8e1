import { describe, expect, it } from 'vitest'
import { evaluate, evaluateDraft, stepKey } from '../evaluate'
import { readValueOf } from '../quantity/readValue'
import type { Instrument } from '../record/instrument'
import { exampleString } from '../steps/worked'
import { conditions, FactsBuilder, readingBody, START_ms } from '../testing/factsBuilder'

const FLAG = 'meter-elsewhere'

/** A roof of two faces with a string on each, and one light meter. */
function roof() {
  const build = new FactsBuilder()
  const face = (tag: string, azimuth_deg: number) =>
    build.part({ kind: 'array', tag, tilt_deg: 30, azimuth_deg, mounting: 'close-roof' })
  const [east, west] = [face('East', 95), face('West', 275)]
  const [one, two] = [east, west].map((arrayId, k) => build.part({ ...exampleString(11), tag: `${k + 1}`, arrayId }))
  const meter = conditions().irradiance.instrument
  const setUp = (arrayId: string, instrument = meter) =>
    build.reading('sensors', arrayId, { slots: { tilt: readValueOf(30, 'deg', 0) }, conditions: null, instrument })
  const read = (string: string) =>
    build.reading('pv-voc', string, { slots: { voltage: readValueOf(384, 'V', 1) }, conditions: conditions() })
  const flagged = (string: string) =>
    evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-voc', string))!.flags.includes(FLAG)
  return { build, east, west, one: one!, two: two!, setUp, read, flagged }
}

describe('one light meter for two planes', () => {
  it('says of a string that it was carried to the other plane since', () => {
    const { east, west, one, two, setUp, read, flagged } = roof()
    setUp(east)
    setUp(west)
    read(one)
    read(two)
    expect(flagged(one)).toBe(true)
    expect(flagged(two)).toBe(false)
    setUp(east)
    read(one)
    expect(flagged(one)).toBe(false)
  })

  it('says it before anything is kept', () => {
    const { build, east, west, one, setUp } = roof()
    setUp(east)
    setUp(west)
    const evaluation = evaluate(build.facts(), START_ms)
    const later = new Date(START_ms + 3_600_000).toISOString()
    const draft = evaluateDraft(
      evaluation,
      evaluation.byKey.get(stepKey('pv-voc', one))!,
      readingBody({ slots: { voltage: readValueOf(384, 'V', 1) }, conditions: conditions(742, 43.6, later) }),
    )
    expect(draft.flags).toContain(FLAG)
  })

  it('says it of a meter that nobody named, where the kit has no other', () => {
    const nobody = null as unknown as ReturnType<typeof conditions>['irradiance']['instrument']
    const meter = conditions().irradiance.instrument!
    const kit = (count: number): Instrument[] =>
      Array.from({ length: count }, (_, k) => ({
        id: k === 0 ? meter.id : `01920000-0000-7000-8000-00000000fff${k}`,
        tag: `0${k}`,
        name: 'Light meter',
        serial: '',
        calibrationDue: null,
        standIn: false,
        ranges: [{ measures: 'irradiance', most: 1600, decimals: 0, accuracy: { ofReading_pct: 5, digits: 1 } }],
      }))
    const made = roof()
    made.setUp(made.east, nobody)
    made.setUp(made.west, nobody)
    made.read(made.one)
    made.read(made.two)
    const flagged = (string: string, count: number) =>
      evaluate(made.build.facts({ instruments: kit(count) }), START_ms)
        .byKey.get(stepKey('pv-voc', string))!
        .flags.includes(FLAG)
    expect([flagged(made.one, 0), flagged(made.one, 1), flagged(made.two, 1)]).toEqual([true, true, false])
    // Of two meters nobody knows which was carried over.
    expect(flagged(made.one, 2)).toBe(false)
  })

  it('is silent where another meter went there, where it was voided, and where there is one plane', () => {
    const other = { ...conditions().irradiance.instrument!, id: '01920000-0000-7000-8000-00000000ffff' }
    const first = roof()
    first.setUp(first.east)
    first.setUp(first.west, other)
    first.read(first.one)
    expect(first.flagged(first.one)).toBe(false)
    const second = roof()
    second.setUp(second.east)
    const wrong = second.setUp(second.west)
    second.read(second.one)
    expect(second.flagged(second.one)).toBe(true)
    second.build.add({ kind: 'void', v: 1, target: wrong, reason: 'typed at the wrong plane' })
    expect(second.flagged(second.one)).toBe(false)
  })
})
