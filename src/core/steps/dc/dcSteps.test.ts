import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '../../evaluate'
import type { PartData } from '../../plant/part'
import { readValueOf } from '../../quantity/readValue'
import type { SlotValue } from '../../record/entry'
import type { Facts } from '../../record/facts'
import type { Instrument, InstrumentCopy, Measurable } from '../../record/instrument'
import type { Regime, Schools } from '../../regime/regime'
import { defaultRegime } from '../../regime/shipped'
import { FactsBuilder, JOB, START_ms, testId } from '../../testing/factsBuilder'
import { exampleModule, exampleString } from '../worked'

const site: PartData = { kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 }
const array: PartData = { kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 355, mounting: 'open-rack' }
const ohm = (value: number, decimals = 2): SlotValue => readValueOf(value, 'ohm', decimals)
const choice = (name: string): SlotValue => ({ choice: name })
const withSchools = (schools: Partial<Schools>): Regime => ({
  ...defaultRegime,
  schools: { ...defaultRegime.schools, ...schools },
})
const look = (facts: Facts, step: string, part: string) => evaluate(facts, START_ms).byKey.get(stepKey(step, part))!
const checks = (...ids: string[]): Record<string, SlotValue> =>
  Object.fromEntries(ids.map((id) => [id, choice('as-it-should')]))
const OTHER_TESTER: InstrumentCopy = {
  id: testId(0x7e),
  tag: '31',
  name: 'Another tester',
  calibrationDue: null,
  standIn: false,
  accuracy: null,
  most: null,
}

describe('earth continuity of a row', () => {
  const conductor = { length_m: 20, area_mm2: 6, joints: 2 }
  function row(resistance: SlotValue, regime = defaultRegime, known: typeof conductor | null = conductor) {
    const build = new FactsBuilder()
    const id = build.part({ kind: 'row', tag: 'R1', arrayId: null, conductor: known })
    build.nulled('short')
    build.reading('earth-continuity', id, { slots: { resistance, 'lead-set': choice('short') } })
    return look(build.facts({ regime }), 'earth-continuity', id)
  }

  it.each([
    [0.16, 'within'],
    [1, 'close'],
    [1.2, 'outside'],
  ])('of %d Ω against the set limit of 1 Ω is %s', (value, verdict) => {
    expect(row(ohm(value)).verdict).toBe(verdict)
  })

  it('by conductor allows what copper and joints come to: 0.01724 × 20 ÷ 6 + 2 × 0.05 is 0.157 Ω', () => {
    const regime = withSchools({ 'pv.continuity-judged': 'by-conductor' })
    expect(row(ohm(0.14), regime).verdict).toBe('within')
    expect(row(ohm(0.2), regime).verdict).toBe('outside')
    expect(row(ohm(0.2), regime, null).verdict).toBe('within')
  })

  it('shows what the conductor should come to beside the limit', () => {
    expect(row(ohm(0.16)).counting!.judgement.rule!.expected!.value).toBeCloseTo(0.1575, 3)
    expect(row(ohm(0.16), defaultRegime, null).counting!.judgement.rule!.expected).toBeNull()
  })
})

describe('the null of a lead set', () => {
  const VISITS = [
    { id: testId(0xc1), startsAt: new Date(START_ms).toISOString(), title: '' },
    { id: testId(0xc2), startsAt: new Date(START_ms + 86_400_000).toISOString(), title: '' },
  ]
  function withNull(set: string, visitOfReading = VISITS[0]!.id, visits = VISITS.slice(0, 1)) {
    const build = new FactsBuilder()
    const place = build.part(site)
    const id = build.part({ kind: 'row', tag: 'R1', arrayId: null, conductor: null })
    build.reading('lead-null', place, { slots: { 'lead-set': choice(set), nulled: ohm(0) } })
    const before = look(build.facts({ visits }), 'earth-continuity', id)
    build.reading(
      'earth-continuity',
      id,
      { slots: { resistance: ohm(0.2), 'lead-set': choice('reel') } },
      { visitId: visitOfReading },
    )
    return { before, after: look(build.facts({ visits }), 'earth-continuity', id) }
  }

  it('opens earth continuity, and stands behind its readings', () => {
    const { before, after } = withNull('reel')
    expect(before.verdict).toBe('not-yet')
    expect(after.flags).not.toContain('leads-not-nulled')
  })

  it('belongs to that set: another one says so, and is close at best', () => {
    expect(withNull('short').after.flags).toContain('leads-not-nulled')
    expect(withNull('short').after).toMatchObject({ verdict: 'close', finding: { code: 'leads-not-nulled' } })
    expect(withNull('reel').after.verdict).toBe('within')
  })

  it('ends where another set is nulled on the same tester, or another tester reads', () => {
    const build = new FactsBuilder()
    const place = build.part(site)
    const id = build.part({ kind: 'row', tag: 'R1', arrayId: null, conductor: null })
    const slots = { resistance: ohm(0.2), 'lead-set': choice('reel') }
    const verdict = () => look(build.facts(), 'earth-continuity', id).verdict
    build.reading('lead-null', place, { slots: { 'lead-set': choice('reel'), nulled: ohm(0) } })
    build.reading('earth-continuity', id, { slots })
    expect(verdict()).toBe('within')
    build.reading('lead-null', place, { slots: { 'lead-set': choice('short'), nulled: ohm(0) } })
    build.reading('earth-continuity', id, { slots })
    expect(verdict()).toBe('close')
    build.reading('lead-null', place, { slots: { 'lead-set': choice('reel'), nulled: ohm(0) } })
    build.reading('earth-continuity', id, { slots })
    expect(verdict()).toBe('within')
    build.reading('earth-continuity', id, { slots, instrument: OTHER_TESTER })
    expect(verdict()).toBe('close')
  })

  it('that did not take hold opens nothing: what still shows 0.5 Ω with its clips joined is not nulled', () => {
    const build = new FactsBuilder()
    const place = build.part(site)
    const id = build.part({ kind: 'row', tag: 'R1', arrayId: null, conductor: null })
    build.reading('lead-null', place, { slots: { 'lead-set': choice('reel'), nulled: ohm(0.5) } })
    expect(look(build.facts(), 'earth-continuity', id).verdict).toBe('held-back')
    build.reading('earth-continuity', id, { slots: { resistance: ohm(0.2), 'lead-set': choice('reel') } })
    expect(look(build.facts(), 'earth-continuity', id).flags).toContain('leads-not-nulled')
  })

  it('expires with the visit', () => {
    const { before, after } = withNull('reel', VISITS[1]!.id, VISITS)
    expect(before).toMatchObject({ verdict: 'held-back', finding: { code: 'held-back.leads-nulled' } })
    expect(after.flags).toContain('leads-not-nulled')
  })
})

describe('safe isolation', () => {
  function isolated(amperes: string, off = 'as-it-should') {
    const build = new FactsBuilder(false)
    const place = JOB
    const string = build.string('1')
    const value = Number(amperes.replace('>', ''))
    build.reading('safe-isolation', place, {
      slots: {
        'ac-off': choice('as-it-should'),
        'dc-switch-off': choice(off),
        'clamp-current': { text: amperes, value, bound: amperes.startsWith('>') ? 'more-than' : 'exact', unit: 'A' },
      },
    })
    const facts = build.facts()
    return { isolation: look(facts, 'safe-isolation', place), polarity: look(facts, 'pv-polarity', string) }
  }

  it('without current lets plugs be parted', () => {
    const { isolation, polarity } = isolated('0.02')
    expect([isolation.verdict, polarity.verdict]).toEqual(['within', 'not-yet'])
  })

  it.each(['4.2', '>20'])('with %s A on the clamp holds every plug, and cannot be gone past', (amperes) => {
    const { isolation, polarity } = isolated(amperes)
    expect(isolation.verdict).toBe('outside')
    expect(polarity.verdict).toBe('held-back')
    expect(polarity.gates.find((gate) => gate.id === 'isolated')).toMatchObject({ hard: true, met: false })
  })

  it('with the switch on is outside whatever the clamp shows', () => {
    expect(isolated('0.02', 'not-as-it-should').isolation.verdict).toBe('outside')
  })
})

describe('sensors in the plane of an array', () => {
  function set(tilt: number, azimuth: number | null) {
    const build = new FactsBuilder()
    const id = build.part(array)
    build.reading('sensors', id, {
      slots: {
        tilt: readValueOf(tilt, 'deg', 0),
        ...(azimuth === null ? {} : { azimuth: readValueOf(azimuth, 'deg', 0) }),
        ...checks('light-in-plane', 'cell-sensor-on-back'),
      },
    })
    return look(build.facts(), 'sensors', id)
  }

  it.each([
    [35, 355, 'within'],
    [38, 355, 'within'],
    [35, 4, 'within'],
    [35, null, 'close'],
    [41, 355, 'outside'],
    [35, 20, 'outside'],
    [35, 330, 'outside'],
  ])('at %d° tilt and %s° azimuth on 35° and 355° is %s', (tilt, azimuth, verdict) => {
    expect(set(tilt, azimuth).verdict).toBe(verdict)
  })

  it('on a roof that is as good as flat wants no compass', () => {
    const build = new FactsBuilder()
    const id = build.part({ ...array, tilt_deg: 5 })
    const slots = { tilt: readValueOf(4, 'deg', 0), ...checks('light-in-plane', 'cell-sensor-on-back') }
    build.reading('sensors', id, { slots })
    expect(look(build.facts(), 'sensors', id).verdict).toBe('within')
  })

  it('says which of the two is off, the short way round', () => {
    expect(set(35, 20).finding).toMatchObject({ code: 'sensors.azimuth-off', figures: { off_deg: 25 } })
  })
})

describe('strings in a combiner', () => {
  it('are not joined before each is known to be the right way round', () => {
    const build = new FactsBuilder()
    const combiner = build.part({ kind: 'combiner', tag: 'C1', inverterId: null })
    const strings = ['1', '2', '3'].map((tag) => build.part({ ...exampleString(10), tag, combinerId: combiner }))
    build.polarity(strings[0]!)
    build.polarity(strings[1]!, 'reversed')
    const held = look(build.facts(), 'combiner-polarity', combiner)
    expect(held).toMatchObject({ verdict: 'held-back', finding: { figures: { count: 2, other: '2' } } })
    expect(held.gates.find((gate) => gate.id === 'strings-polarity')).toMatchObject({ hard: true, met: false })
    build.polarity(strings[1]!)
    build.polarity(strings[2]!)
    expect(look(build.facts(), 'combiner-polarity', combiner).verdict).toBe('not-yet')
  })

  it('drive current back into one another: three of 9.6 A need fuses where modules bear 15 A', () => {
    const build = new FactsBuilder()
    const arrayId = build.part(array)
    const combiner = build.part({ kind: 'combiner', tag: 'C1', inverterId: null })
    const fused = { ...exampleModule, maxSeriesFuse_A: 15 }
    const string = (tag: string, fuse: { ratedVoltage_V: number; rating_A: number } | null): PartData => ({
      ...exampleString(10),
      tag,
      arrayId,
      combinerId: combiner,
      moduleType: { ...exampleString(10).moduleType, data: fused },
      fuse,
    })
    const ids = ['1', '2', '3'].map((tag) => build.part(string(tag, null)))
    const bare = look(build.facts(), 'design-fuses', arrayId)
    expect(bare).toMatchObject({ verdict: 'outside', finding: { figures: { what: 'fuse-needed', value: 24 } } })
    expect(look(build.facts(), 'combiner-polarity', combiner).gates.find((one) => one.id === 'design-fuses')!.met).toBe(
      false,
    )
    for (const [k, id] of ids.entries()) {
      const after = string(String(k + 1), { ratedVoltage_V: 1000, rating_A: 15 })
      build.add({ kind: 'plant-change', v: 1, before: null, after, base: null }, { partId: id })
    }
    // 15 A is the modules' own most, so it lies on the limit.
    expect(look(build.facts(), 'design-fuses', arrayId).verdict).toBe('close')
  })
})

describe('the design check', () => {
  const kit = (most: Partial<Record<Measurable, number>>): Instrument[] => [
    {
      id: testId(7),
      tag: '07',
      name: 'Tester',
      serial: '',
      calibrationDue: null,
      standIn: false,
      ranges: Object.entries(most).map(([measures, value]) => ({
        measures: measures as Measurable,
        accuracy: { ofReading_pct: 1, digits: 1 },
        most: value,
        decimals: 1,
      })),
    },
  ]
  function plant(modules: number, others: PartData[], instruments: Instrument[] = [], regime = defaultRegime) {
    const build = new FactsBuilder()
    build.part(site)
    const arrayId = build.part(array)
    build.part({
      ...exampleString(modules),
      arrayId,
      moduleType: { ...exampleString(modules).moduleType, data: { ...exampleModule, maxSystemVoltage_V: 1500 } },
    })
    for (const other of others) build.part(other)
    const evaluation = evaluate(build.facts({ instruments, regime }), START_ms)
    return (step: string) => evaluation.byKey.get(stepKey(step, arrayId))!
  }

  it('takes the cold of the site: 24 × 37.4 V × (1 + 0.0031 × 35) is 995 V', () => {
    const inverter: PartData = { kind: 'inverter', tag: 'INV', maxInput_V: 1000 }
    const one = plant(24, [inverter])('design-voltage')
    expect(one.verdict).toBe('within')
    expect(one.finding.figures.value).toBeCloseTo(994.99, 0)
  })

  it.each([
    ['beta', 994.99],
    ['table', 24 * 37.4 * 1.14],
    ['flat', 24 * 37.4 * 1.15],
  ] as const)('by the school of %s comes to %d V', (school, value) => {
    const regime = withSchools({ 'pv.cold-voltage': school })
    const inverter: PartData = { kind: 'inverter', tag: 'INV', maxInput_V: 2000 }
    expect(plant(24, [inverter], [], regime)('design-voltage').finding.figures.value).toBeCloseTo(value, 0)
  })

  it('names the device that gives way first', () => {
    const parts: PartData[] = [
      { kind: 'inverter', tag: 'INV', maxInput_V: 1100 },
      { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 900, rating_A: 32 },
      { kind: 'surge-protection', tag: 'SPD1', ratedVoltage_V: 1200 },
    ]
    expect(plant(24, parts)('design-voltage')).toMatchObject({
      verdict: 'outside',
      finding: { figures: { what: 'voc-cold-switch', limit: 900 } },
    })
  })

  it('waits for a plate that nobody has read', () => {
    expect(plant(24, [{ kind: 'inverter', tag: 'INV', maxInput_V: null }])('design-voltage').verdict).toBe('not-yet')
  })

  it('holds the switching on back where it fails, and lets a reason pass', () => {
    const build = new FactsBuilder()
    const arrayId = build.part(array)
    build.part({ ...exampleString(24), arrayId })
    const inverter = build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 800 })
    const gate = () => look(build.facts(), 'reconnect', inverter).gates.find((one) => one.id === 'design-voltage')!
    expect(gate()).toMatchObject({ met: false, hard: false, finding: { figures: { other: 'South' } } })
    build.add(
      { kind: 'override', v: 1, gate: 'design-voltage', reason: 'the plate was read wrongly' },
      { step: 'reconnect', partId: inverter },
    )
    expect(gate().met).toBe(true)
  })

  it('asks whether the kit can bear what the string gives in the cold, and at a cloud’s edge', () => {
    const one = (most: Partial<Record<Measurable, number>>) => plant(24, [], kit(most))('design-kit')
    expect(one({ 'dc-voltage': 1000, 'dc-current': 20 }).verdict).toBe('within')
    expect(one({ 'dc-voltage': 950, 'dc-current': 20 })).toMatchObject({
      verdict: 'outside',
      finding: { figures: { what: 'kit-voltage' } },
    })
    expect(one({ 'dc-voltage': 1000, 'dc-current': 10 })).toMatchObject({
      verdict: 'outside',
      finding: { figures: { what: 'kit-current', value: 12 } },
    })
  })

  it('is not made for a site of which nobody said how cold or hot it gets, unless it fails anywhere', () => {
    const found = (modules: number, own: Partial<typeof site>) => {
      const build = new FactsBuilder()
      const arrayId = build.part(array)
      build.part({ ...site, ...own } as PartData)
      const { moduleType } = exampleString(modules)
      const data = { ...moduleType.data, maxSystemVoltage_V: 1000 }
      build.part({ ...exampleString(modules), moduleType: { ...moduleType, data }, arrayId })
      build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 950, trackerMin_V: 200, trackerMax_V: 850 })
      const of = (step: string) => look(build.facts(), step, arrayId)
      return [of('design-voltage'), of('design-tracker'), of('design-kit')].map(({ verdict, finding }) => [
        verdict,
        finding.code,
      ])
    }
    expect(found(20, {})[0]![0]).toBe('within')
    const [voltage, tracker] = found(20, { lowestTemperature_C: null } as never)
    expect(voltage).toEqual(['not-yet', 'design.how-cold'])
    expect(tracker).toEqual(['not-yet', 'design.how-cold'])
    expect(found(20, { highestCellTemperature_C: null } as never)[1]).toEqual(['not-yet', 'design.how-hot'])
    // 26 modules of 37.4 V give 972 V at 25 °C: more than the inverter takes in any winter.
    expect(found(26, { lowestTemperature_C: null } as never)[0]).toEqual(['outside', 'design.outside'])
  })

  it('checks strings alike once, and every unlike one', () => {
    const build = new FactsBuilder()
    const arrayId = build.part(array)
    build.part(site)
    for (let k = 1; k <= 30; k++) build.part({ ...exampleString(20), tag: String(k), arrayId })
    build.part({ ...exampleString(24), tag: '31', arrayId })
    build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 950 })
    const one = look(build.facts(), 'design-voltage', arrayId)
    expect(one).toMatchObject({ verdict: 'outside', finding: { figures: { tag: '31' } } })
  })
})

describe('lists of checks', () => {
  const all = (answer: string): Record<string, SlotValue> =>
    Object.fromEntries(
      ['dc-switch-on', 'ac-on', 'starts', 'mains-lost-stops', 'restarts', 'monitoring-on', 'alarm-seen'].map((id) => [
        id,
        choice(answer),
      ]),
    )
  function reconnect(slots: Record<string, SlotValue>, v: 2 | 3 | 4 = 4) {
    const build = new FactsBuilder()
    const id = build.part({ kind: 'inverter', tag: 'INV', maxInput_V: null })
    build.reading('reconnect', id, { slots, v })
    return look(build.facts(), 'reconnect', id)
  }

  it('kept before a line was asked are whole without it, and say so', () => {
    const { 'ac-on': later, 'monitoring-on': _on, 'alarm-seen': _seen, ...before } = all('as-it-should')
    expect(reconnect(before, 2)).toMatchObject({ verdict: 'within', finding: { figures: { count: 4 } } })
    expect(reconnect(before, 2).flags).toContain('earlier-questions')
    expect(reconnect(all('as-it-should'), 2).flags).not.toContain('earlier-questions')
    expect(reconnect(before, 3).verdict).toBe('not-yet')
    expect(reconnect({ ...before, 'ac-on': later! }, 3)).toMatchObject({
      verdict: 'within',
      finding: { figures: { count: 5 } },
    })
    expect(reconnect({ ...before, 'ac-on': later! }).verdict).toBe('not-yet')
    expect(reconnect({ ...before, 'ac-on': choice('not-as-it-should') }, 2).verdict).toBe('outside')
  })

  it('are within when every line is as it should be', () => {
    expect(reconnect(all('as-it-should'))).toMatchObject({ verdict: 'within', finding: { code: 'checks.within' } })
  })

  it('are within, and say so, with lines left out', () => {
    const one = reconnect({ ...all('as-it-should'), restarts: { choice: 'check-left-out', note: 'no mains yet' } })
    expect(one).toMatchObject({ verdict: 'within', finding: { code: 'checks.within-but', figures: { left: 1 } } })
  })

  it('are outside by one line, which is named', () => {
    const one = reconnect({
      ...all('as-it-should'),
      'mains-lost-stops': { choice: 'not-as-it-should', note: 'runs on' },
    })
    expect(one).toMatchObject({ verdict: 'outside', finding: { figures: { what: 'mains-lost-stops', more: 0 } } })
  })

  it('are not yet while lines are open', () => {
    expect(reconnect({ starts: choice('as-it-should') })).toMatchObject({
      verdict: 'not-yet',
      finding: { figures: { count: 6 } },
    })
  })
})

describe('an inverter that comes back', () => {
  const watch = (wait_s: number, reconnect_s: number | null, more: Record<string, SlotValue> = {}) => {
    const build = new FactsBuilder()
    const id = build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000, reconnect_s })
    const slots = { ...checks('protection-set', 'protection-shown'), 'reconnect-wait': readValueOf(wait_s, 's', 0) }
    build.reading('grid-watch', id, { slots: { ...slots, ...more } })
    return look(build.facts(), 'grid-watch', id)
  }

  it.each([
    [75, 60, 'within'],
    [60, 60, 'close'],
    [24, 60, 'outside'],
    [75, null, 'not-yet'],
  ] as const)('after %d s where the network asks %j s is %s', (wait_s, asked_s, verdict) => {
    expect(watch(wait_s, asked_s).verdict).toBe(verdict)
  })

  it('late enough is outside all the same where its protection is set for another network', () => {
    expect(watch(75, 60, { 'protection-set': choice('not-as-it-should') }).verdict).toBe('outside')
  })
})
