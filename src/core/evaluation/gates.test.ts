import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '../evaluate'
import type { PartData } from '../plant/part'
import { readValueOf } from '../quantity/readValue'
import type { Instrument } from '../record/instrument'
import { exampleModule, exampleSite, exampleString } from '../steps/worked'
import { FactsBuilder, START_ms, testId } from '../testing/factsBuilder'

const array = (tag: string): PartData => ({ kind: 'array', tag, tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' })
const inverter = (tag: string): PartData => ({ kind: 'inverter', tag, maxInput_V: 1000 })
const tester = (most_V: number): Instrument => ({
  id: testId(7),
  tag: '07',
  name: 'Tester',
  serial: '',
  calibrationDue: null,
  standIn: false,
  ranges: [{ measures: 'dc-voltage', accuracy: { ofReading_pct: 1, digits: 1 }, most: most_V, decimals: 1 }],
})
const gatesOf = (build: FactsBuilder, step: string, part: string, rest = {}) => {
  const one = evaluate(build.facts(rest), START_ms).byKey.get(stepKey(step, part))!
  return { one, gate: (id: string) => one.gates.find((found) => found.id === id) }
}
const sensorsSet = (build: FactsBuilder, arrayId: string): string =>
  build.reading('sensors', arrayId, {
    slots: {
      tilt: readValueOf(35, 'deg', 0),
      'light-in-plane': { choice: 'as-it-should' },
      'cell-sensor-on-back': { choice: 'as-it-should' },
    },
  })

describe('a gate that waits for the array', () => {
  it('waits for the sensors of that array and not of another', () => {
    const build = new FactsBuilder()
    const [east, west] = [build.part(array('East')), build.part(array('West'))]
    const string = build.part({ ...exampleString(10), arrayId: west })
    build.polarity(string)
    sensorsSet(build, east)
    expect(gatesOf(build, 'pv-voc', string).one).toMatchObject({
      verdict: 'held-back',
      finding: { code: 'held-back.sensors-in-plane', figures: { other: 'West' } },
    })
    sensorsSet(build, west)
    expect(gatesOf(build, 'pv-voc', string).one.verdict).toBe('not-yet')
  })

  it('is not there for a string without an array', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.polarity(string)
    expect(gatesOf(build, 'pv-voc', string).gate('sensors-in-plane')).toMatchObject({ met: true, waitsFor: null })
  })

  it('can be passed with a reason, which is kept with its name', () => {
    const build = new FactsBuilder()
    const arrayId = build.part(array('East'))
    const string = build.part({ ...exampleString(10), arrayId })
    build.polarity(string)
    build.add(
      { kind: 'override', v: 1, gate: 'sensors-in-plane', reason: 'a logger stands beside it' },
      { step: 'pv-voc', partId: string },
    )
    const { gate } = gatesOf(build, 'pv-voc', string)
    expect(gate('sensors-in-plane')).toMatchObject({
      met: true,
      hard: false,
      overridden: { reason: 'a logger stands beside it' },
    })
  })
})

describe('a gate that waits for the kit', () => {
  function cold(most_V: number) {
    const build = new FactsBuilder()
    build.part(exampleSite)
    const arrayId = build.part(array('South'))
    // 24 modules: 898 V on the plate, 995 V in the cold of the site.
    const string = build.part({ ...exampleString(24), arrayId })
    return gatesOf(build, 'pv-polarity', string, { instruments: [tester(most_V)] })
  }

  it('holds a plug back hard that the cold of the site could carry past the tester', () => {
    expect(cold(950).gate('tester-rating')).toMatchObject({
      met: false,
      hard: true,
      finding: { figures: { best: 950, needed: expect.closeTo(994.99, 1) } },
    })
    expect(cold(1000).gate('tester-rating')).toBeUndefined()
  })

  it('holds the voltage back hard where the plate alone is past the tester', () => {
    const build = new FactsBuilder()
    const string = build.part(exampleString(24))
    build.polarity(string)
    const { one, gate } = gatesOf(build, 'pv-voc', string, { instruments: [tester(800)] })
    expect(one.verdict).toBe('held-back')
    expect(gate('tester-rating')).toMatchObject({ hard: true, met: false, finding: { figures: { best: 800 } } })
  })

  it('asks softly where nothing in the kit is known to measure it', () => {
    const build = new FactsBuilder()
    const string = build.part(exampleString(24))
    const clamp = { ...tester(20), ranges: [{ ...tester(20).ranges[0]!, measures: 'ac-current' as const }] }
    const { gate } = gatesOf(build, 'pv-voc', string, { instruments: [clamp] })
    expect(gate('tester-unknown')).toMatchObject({ hard: false, met: false })
  })

  it('asks twice the cold voltage of a meter that two strings are joined through', () => {
    const build = new FactsBuilder()
    build.part(exampleSite)
    const combiner = build.part({ kind: 'combiner', tag: 'C1', inverterId: null })
    for (const tag of ['1', '2']) build.part({ ...exampleString(14), tag, combinerId: combiner })
    // 14 modules are 580 V in the cold, so two of them head to tail 1161 V.
    const of = (most_V: number) => gatesOf(build, 'combiner-polarity', combiner, { instruments: [tester(most_V)] })
    expect(of(1000).gate('tester-rating')).toMatchObject({ hard: true, finding: { figures: { best: 1000 } } })
    expect(of(1500).gate('tester-rating')).toBeUndefined()
  })

  it('is no matter of a kit that measures no voltage at all', () => {
    const build = new FactsBuilder()
    const string = build.part(exampleString(24))
    build.polarity(string)
    expect(gatesOf(build, 'pv-voc', string).gate('tester-rating')).toBeUndefined()
  })
})

describe('a gate that waits for several strings', () => {
  function two() {
    const build = new FactsBuilder()
    const [first, second] = [build.part(inverter('INV1')), build.part(inverter('INV2'))]
    const strings = ['1', '2', '3'].map((tag) =>
      build.part({ ...exampleString(10), tag, inverterId: tag === '3' ? second : first }),
    )
    return { build, first, second, strings }
  }

  it('names the first that is not met, and how many there are', () => {
    const { build, first, strings } = two()
    const { gate } = gatesOf(build, 'reconnect', first)
    expect(gate('plugs-locked')).toMatchObject({
      met: false,
      finding: { figures: { count: 2, other: '1' } },
      waitsFor: stepKey('plugs-locked', strings[0]!),
    })
  })

  it('is about the strings of this inverter and no other', () => {
    const { build, first, second, strings } = two()
    build.polarity(strings[2]!, 'reversed')
    expect(gatesOf(build, 'reconnect', second).gate('strings-polarity')).toMatchObject({ met: false, hard: true })
    for (const one of strings.slice(0, 2)) build.polarity(one)
    expect(gatesOf(build, 'reconnect', first).gate('strings-polarity')).toMatchObject({ met: true })
  })

  it('that is hard is not passed by a reason', () => {
    const { build, second, strings } = two()
    build.polarity(strings[2]!, 'reversed')
    build.add(
      { kind: 'override', v: 1, gate: 'strings-polarity', reason: 'in a hurry' },
      { step: 'reconnect', partId: second },
    )
    expect(gatesOf(build, 'reconnect', second).gate('strings-polarity')!.met).toBe(false)
  })

  it('is not locked for having been left out, but may be passed with a reason', () => {
    const { build, second, strings } = two()
    build.add({ kind: 'left-out', v: 1, reason: 'not wired yet' }, { step: 'plugs-locked', partId: strings[2]! })
    expect(gatesOf(build, 'reconnect', second).gate('plugs-locked')!.met).toBe(false)
    build.add(
      { kind: 'override', v: 1, gate: 'plugs-locked', reason: 'that string is not there yet' },
      { step: 'reconnect', partId: second },
    )
    expect(gatesOf(build, 'reconnect', second).gate('plugs-locked')!.met).toBe(true)
  })

  it('does not take nothing for proof where there are none', () => {
    const build = new FactsBuilder()
    const id = build.part(inverter('INV'))
    const { one } = gatesOf(build, 'reconnect', id)
    const shut = one.gates.filter((gate) => !gate.met).map((gate) => gate.id)
    // Whoever switches on answers for the AC side, and that no string is reversed is proved by no string.
    expect(shut).toEqual(['ac-side-proved', 'strings-polarity'])
  })
})

describe('string fuses that are missing', () => {
  it('hold the switching on back too, where strings meet in one tracker input', () => {
    const build = new FactsBuilder()
    const arrayId = build.part(array('South'))
    const id = build.part(inverter('INV'))
    const data = { ...exampleModule, maxSeriesFuse_A: 15 }
    for (const tag of ['1', '2', '3']) {
      const string = exampleString(10)
      build.part({ ...string, tag, arrayId, inverterId: id, input: 'A', moduleType: { ...string.moduleType, data } })
    }
    expect(gatesOf(build, 'reconnect', id).gate('design-fuses')).toMatchObject({
      met: false,
      finding: { figures: { other: 'South' } },
    })
  })
})

describe('a reading that was taken all the same', () => {
  it('is judged, and says that it was held back', () => {
    const build = new FactsBuilder(false)
    const string = build.string('1')
    build.polarity(string)
    const { one } = gatesOf(build, 'pv-polarity', string)
    expect(one.verdict).toBe('within')
    expect(one.flags).toContain('while-held-back')
  })
})
