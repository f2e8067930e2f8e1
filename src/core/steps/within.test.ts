import { describe, expect, it } from 'vitest'
import { causes, evaluate, evaluateDraft, linesOf, stepKey } from '../evaluate'
import type { PartData } from '../plant/part'
import { readValueOf } from '../quantity/readValue'
import type { SlotValue } from '../record/entry'
import type { Instrument } from '../record/instrument'
import { defaultRegime } from '../regime/shipped'
import { conditions, FactsBuilder, readingBody, START_ms, testId } from '../testing/factsBuilder'
import { choose, classic, iec, Installation, over, read } from '../testing/installation'
import { exampleCircuit, exampleElectrode, exampleModule, exampleRcd, exampleString } from './worked'

const tt = { arrangement: 'TT' as const, declaredZe_ohm: null }
const ms = (value: number): SlotValue => read(value, 'ms', 1)
const Mohm = (value: number): SlotValue => read(value, 'Mohm', 2)
const under = (value: number, unit: 'ohm' | 'Mohm' | 'ms'): SlotValue => ({
  text: `<${value}`,
  value,
  bound: 'less-than',
  unit,
})
const loop = (value: SlotValue, more: Record<string, SlotValue> = {}) => ({
  'loop-method': choose('non-trip'),
  zs: value,
  ...more,
})
const pairs = (lN: SlotValue, lPe: SlotValue, nPe: SlotValue) => ({
  pairing: choose('pair-by-pair'),
  'l-n': lN,
  'l-pe': lPe,
  'n-pe': nPe,
})
const three = (a: SlotValue, b: SlotValue, c: SlotValue) => ({
  'electrode-method': choose('three-lead'),
  're-1': a,
  're-2': b,
  're-3': c,
})
const electrodeSite = (rated_mA = 30) => {
  const site = new Installation({ supply: tt, rcd: { rated_mA } })
  return { site, id: site.build.part({ ...exampleElectrode, rods: 1 }) }
}
const summed = (own: ConstructorParameters<typeof Installation>[0], ze: number, r1r2: number): Installation => {
  const site = new Installation(own)
  return site.take('ze', site.supply, { ze: read(ze) }).take('r1r2', site.circuit, { r1r2: read(r1r2) })
}

describe('a display over its range', () => {
  it.each([
    [over(20, 'ohm'), over(20, 'ohm'), over(20, 'ohm')],
    [read(40), over(199, 'ohm'), read(40)],
  ])('decides no electrode: %j', (a, b, c) => {
    const { site, id } = electrodeSite()
    expect(site.take('electrode', id, three(a, b, c)).says('electrode', id).verdict).toBe('not-yet')
  })

  it('decides no loop of an electrode', () => {
    const site = new Installation({ supply: tt, rcd: {} })
    const id = site.build.part({ ...exampleElectrode, testedBy: 'loop' })
    const found = site.take('electrode-loop', id, { 're-loop': over(20, 'ohm') }).says('electrode-loop', id)
    expect(found.verdict).toBe('not-yet')
  })

  it('of a ramp is outside: the device did not trip by then', () => {
    const site = new Installation({ rcd: {} })
    const found = site.take('rcd-trips', site.rcd!, { 'once-0': ms(30), ramp: over(30, 'mA') })
    expect(found.says('rcd-trips', site.rcd!).verdict).toBe('outside')
  })

  it('beside figures does not hide behind them: Zs of a B6', () => {
    const site = new Installation({ circuit: { rating_A: 6 } })
    const slots = loop(read(3), { 'zs-2': read(2.9), 'zs-3': over(1.99, 'ohm') })
    expect(site.take('zs', site.circuit, slots).says('zs', site.circuit).verdict).toBe('not-yet')
  })

  it('makes the sum of which it is a part as little known', () => {
    const site = new Installation()
    site.take('ze', site.supply, { ze: read(0.2) }).take('r1r2', site.circuit, { r1r2: over(0.5, 'ohm') })
    const found = site.take('zs', site.circuit, { 'loop-method': choose('calculated') }).says('zs', site.circuit)
    expect(found.verdict).toBe('not-yet')
  })
})

describe('a bound below the least', () => {
  it('is undecided, whatever stands beside it: AC pairs', () => {
    const site = new Installation()
    const slots = pairs(Mohm(3), under(5, 'Mohm'), Mohm(300))
    expect(site.take('ac-insulation', site.circuit, slots).says('ac-insulation', site.circuit).verdict).toBe('not-yet')
  })

  it('and so on the DC side', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    const slots = {
      method: choose('each-to-earth'),
      'set-voltage': choose('v1000'),
      behaviour: choose('steady'),
      surface: choose('dry'),
      surge: choose('none-there'),
      'negative-to-earth': Mohm(3),
      'positive-to-earth': under(5, 'Mohm'),
    }
    build.reading('pv-insulation', string, { slots })
    const one = evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-insulation', string))!
    expect(one.verdict).toBe('not-yet')
  })
})

describe('what is compared with nothing', () => {
  const check = (step: string, parts: readonly PartData[], strings: readonly PartData[]) => {
    const build = new FactsBuilder()
    build.part({ kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 })
    const arrayId = build.part({ kind: 'array', tag: 'South', tilt_deg: 30, azimuth_deg: 180, mounting: 'open-rack' })
    for (const one of parts) build.part(one)
    for (const one of strings) build.part({ ...one, arrayId } as PartData)
    return evaluate(build.facts(), START_ms).byKey.get(stepKey(step, arrayId))!
  }
  const dcSwitch = (tag: string, rating_A: number): PartData => ({
    kind: 'dc-switch',
    tag,
    ratedVoltage_V: 1000,
    rating_A,
  })
  const inverter = (tag: string, maxInput_V: number): PartData => ({
    kind: 'inverter',
    tag,
    maxInput_V,
    maxShortCircuit_A: 40,
  })
  const heavy = {
    ...exampleString(10),
    moduleType: { ...exampleString(10).moduleType, data: { ...exampleModule, isc_A: 15 } },
  }

  it('is no pass: one switch that is too small is outside, and of two nobody said which', () => {
    const parts = [inverter('INV', 1000)]
    expect(check('design-current', [...parts, dcSwitch('DC1', 16)], [heavy]).verdict).toBe('outside')
    const two = [...parts, dcSwitch('DC1', 16), dcSwitch('DC2', 16)]
    expect(check('design-current', two, [heavy]).verdict).toBe('not-yet')
  })

  it('is no pass: a cable that carries less than its own string gives, whatever the switch carries', () => {
    // 1.25 * 15 A is 18.75 A, of one string: what is joined to it further on does not flow in its own cable.
    const parts = [inverter('INV', 1000), dcSwitch('DC1', 60)]
    const pair = (cable_A: number) => ['1', '2'].map((tag) => ({ ...heavy, tag, input: 'A', cable_A }))
    expect(check('design-current', parts, pair(18)).verdict).toBe('outside')
    expect(check('design-current', parts, pair(19)).verdict).toBe('within')
    // Nobody knows how many meet in an input: the cable is checked all the same.
    const apart = ['1', '2'].map((tag) => ({ ...heavy, tag, cable_A: 18 }))
    expect(check('design-current', parts, apart).verdict).toBe('outside')
  })

  it('is no pass: two small inverters that no string names', () => {
    const string = exampleString(11)
    expect(check('design-voltage', [inverter('INV1', 300), inverter('INV2', 300)], [string]).verdict).toBe('not-yet')
    expect(check('design-voltage', [inverter('INV1', 300)], [string]).verdict).toBe('outside')
    expect(check('design-voltage', [], [string]).verdict).toBe('not-yet')
  })

  it('is no pass: strings of which nobody said to which input they go', () => {
    const strings = [1, 2, 3, 4, 5, 6].map((k) => ({ ...exampleString(10), tag: String(k) }))
    expect(check('design-fuses', [inverter('INV', 1000)], strings).verdict).not.toBe('within')
  })

  it('is no pass: a device of which nobody knows what it breaks', () => {
    const site = new Installation({ circuit: { breaking_kA: 10 } })
    site.build.part({ ...exampleCircuit, tag: '2', boardId: site.board, breaking_kA: null })
    const slots = { pefc: read(7000, 'A', 0), pscc: read(6800, 'A', 0) }
    expect(site.take('fault-current', site.board, slots).says('fault-current', site.board).verdict).toBe('not-yet')
  })
})

describe('a residual current device', () => {
  it('stands in for no device: none entered, and none in the table', () => {
    for (const circuit of [
      { device: null, rating_A: null },
      { device: 'gG' as const, rating_A: 35 },
    ]) {
      const site = summed({ rcd: {}, circuit }, 0.3, 149)
      expect(site.take('zs', site.circuit, loop(read(150))).says('zs', site.circuit).verdict).not.toBe('within')
    }
  })

  it('stands in for nothing that is broken: a loop far above its sum', () => {
    const site = summed({ rcd: {} }, 0.2, 0.4)
    const found = site.take('zs', site.circuit, loop(read(900, 'ohm', 0))).says('zs', site.circuit)
    expect(found.verdict).toBe('outside')
    expect([found.code, ...(found.one.finding.also ?? []).map((also) => also.code)]).toContain('zs.far-above-sum')
  })

  it('that is selective discriminates from none that is as slow and less sensitive', () => {
    const site = new Installation({ rcd: { delay: 'selective', rated_mA: 300 } })
    const lower = site.build.part({
      ...exampleRcd,
      tag: 'RCD2',
      delay: 'selective',
      rated_mA: 100,
      upstreamId: site.rcd,
    })
    expect(site.says('rcd-cascade', lower).verdict).not.toBe('within')
  })

  it('is timed at its own multiple of a pulsating current, and at half is a trip however late', () => {
    const site = new Installation({ rcd: { type: 'A' } })
    site.regime = classic
    const all = {
      'half-180': over(1999, 'ms'),
      'once-0': ms(30),
      'once-180': ms(30),
      'five-0': ms(20),
      'five-180': ms(20),
    }
    const found = site.take('rcd-trips', site.rcd!, { ...all, 'half-0': ms(2500) }).says('rcd-trips', site.rcd!)
    expect(found).toMatchObject({ verdict: 'outside', code: 'rcd.half-tripped' })
  })

  it('read over a shorter wait than its school asks is not read', () => {
    const site = new Installation({ rcd: {} })
    site.regime = classic
    const all = {
      'half-180': over(1999, 'ms'),
      'once-0': ms(300),
      'once-180': ms(30),
      'five-0': ms(20),
      'five-180': ms(20),
    }
    const found = site.take('rcd-trips', site.rcd!, { ...all, 'half-0': over(300, 'ms') }).says('rcd-trips', site.rcd!)
    expect(found.verdict).toBe('not-yet')
  })

  it('of a bound counts only what the bound says: under 100 ms is no time', () => {
    const site = new Installation({ rcd: { delay: 'selective', rated_mA: 100 } })
    const lower = site.build.part({ ...exampleRcd, tag: 'RCD2', upstreamId: site.rcd })
    site.take('rcd-trips', lower, { 'once-0': ms(30), 'five-0': ms(20) })
    site.take('rcd-trips', site.rcd!, { 'once-0': under(100, 'ms') })
    expect(site.says('rcd-cascade', lower).code).not.toBe('rcd-cascade.by-both')
  })
})

describe('a circuit on an electrode', () => {
  it('behind a fuse and no residual current device has no table, and no pass', () => {
    const site = summed({ supply: tt, circuit: { device: 'gG' } }, 0.2, 0.3)
    const found = site.take('zs', site.circuit, loop(read(0.5))).says('zs', site.circuit)
    expect(found).toMatchObject({ verdict: 'not-yet', code: 'zs.no-table' })
  })

  it('without a reading of what is before it has no pass', () => {
    const site = new Installation({ supply: tt, rcd: {} })
    expect(site.take('zs', site.circuit, loop(read(15))).says('zs', site.circuit).verdict).toBe('not-yet')
  })

  it('that reads less than its electrode alone says so', () => {
    const site = summed({ supply: tt, rcd: {} }, 18, 0.6)
    const id = site.build.part({ ...exampleElectrode, rods: 1 })
    site.take('electrode', id, three(read(18.2), read(18.3), read(18.1)))
    const found = site.take('zs', site.circuit, loop(read(15.1))).says('zs', site.circuit)
    expect(found).toMatchObject({ verdict: 'close', code: 'zs.below-electrode' })
  })
})

describe('the instrument’s own uncertainty', () => {
  const instrument = (ofReading_pct: number, most: number) => ({
    id: testId(7),
    tag: '07',
    name: 'Tester',
    calibrationDue: null,
    standIn: false,
    accuracy: { ofReading_pct, digits: 0 },
    most,
  })
  const with10 = (site: Installation, step: string, part: string, slots: Record<string, SlotValue>, pct: number) => {
    site.build.reading(step, part, { slots, conditions: null, instrument: instrument(pct, 5000) })
    return site.says(step, part)
  }

  it('makes an electrode and a trip close where it reaches over the limit', () => {
    const { site, id } = electrodeSite(300)
    const slots = { ...three(read(160), read(160), read(160)), 'electrode-lead': choose('taken-off') }
    expect(with10(site, 'electrode', id, slots, 2).one.judgement!.verdict).toBe('within')
    expect(with10(site, 'electrode', id, slots, 12).one.judgement!.verdict).toBe('close')
    const trip = (pct: number) => {
      const one = new Installation({ rcd: {} })
      return with10(one, 'rcd-trips', one.rcd!, { 'once-0': ms(290) }, pct).one
    }
    expect(trip(1).judgement!.verdict).toBe('within')
    expect(trip(5).judgement!.verdict).toBe('close')
    // What makes it close is said: its uncertainty.
    expect(trip(5).judgement!.finding.also ?? []).toEqual(
      expect.arrayContaining([expect.objectContaining({ code: 'close.whisker' })]),
    )
  })

  it('goes by the range of its own quantity: volts are no amperes', () => {
    const build = new FactsBuilder()
    const string = build.string('1', 9)
    build.polarity(string)
    const copy = {
      ...instrument(1, 20),
      ranges: [
        { measures: 'dc-current' as const, accuracy: { ofReading_pct: 1, digits: 1 }, most: 20, decimals: 2 },
        { measures: 'dc-voltage' as const, accuracy: { ofReading_pct: 1, digits: 1 }, most: 1000, decimals: 1 },
      ],
    }
    const slots = { current: readValueOf(9, 'A', 2), voltage: readValueOf(279, 'V', 1) }
    build.reading('operating', string, { slots, conditions: conditions(), instrument: copy })
    const one = evaluate(build.facts(), START_ms).byKey.get(stepKey('operating', string))!
    expect(one.counting!.flags).not.toContain('over-instrument-range')
  })
})

describe('an insulation test', () => {
  const string = (own: object, slots: Record<string, SlotValue>, modules = 11) => {
    const build = new FactsBuilder()
    const data = exampleString(modules)
    const id = build.part({ ...data, moduleType: { ...data.moduleType, data: { ...exampleModule, ...own } } })
    const setUp = {
      method: choose('joined-to-earth'),
      behaviour: choose('steady'),
      surface: choose('dry'),
      surge: choose('none-there'),
    }
    build.reading('pv-insulation', id, { slots: { ...setUp, joined: Mohm(300), ...slots } })
    return evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-insulation', id))!
  }

  it('above what the modules bear is no pass', () => {
    expect(string({ maxSystemVoltage_V: 600 }, { 'set-voltage': choose('v1500') }).verdict).not.toBe('within')
  })

  it('of which less voltage came on than was set is no pass', () => {
    const slots = { 'set-voltage': choose('v1000'), applied: readValueOf(120, 'V', 0) }
    expect(string({}, slots)).toMatchObject({ verdict: 'not-yet', finding: { code: 'pv-insulation.applied-too-low' } })
    // A bound below what is asked proves nothing of it.
    const more = { ...slots, applied: { text: '>400', value: 400, bound: 'more-than', unit: 'V' } as const }
    expect(string({}, more)).toMatchObject({ verdict: 'not-yet', finding: { code: 'pv-insulation.applied-too-low' } })
  })

  it('of a circuit at less than its voltage, or without live to live, is no pass', () => {
    const site = new Installation()
    const slots = pairs(Mohm(300), Mohm(300), Mohm(300))
    const low = site.take('ac-insulation', site.circuit, { ...slots, 'set-voltage': choose('v250') })
    expect(low.says('ac-insulation', site.circuit).verdict).toBe('not-yet')
    const joined = { pairing: choose('all-joined'), electronics: choose('electronics-out'), 'joined-to-pe': Mohm(300) }
    const half = site.take('ac-insulation', site.circuit, joined).says('ac-insulation', site.circuit)
    expect(half.verdict).toBe('not-yet')
    const whole = site.take('ac-insulation', site.circuit, { ...joined, 'live-to-live': Mohm(300) })
    expect(whole.says('ac-insulation', site.circuit).verdict).toBe('within')
  })

  it('of three phases at 400 V to earth is made at 1000 V', () => {
    const site = new Installation({
      supply: { phases: 3, nominal_V: 400 },
      board: { phases: 3 },
      circuit: { phases: 3 },
    })
    const all = ['l1-l2', 'l1-l3', 'l2-l3', 'l1-n', 'l2-n', 'l3-n', 'l1-pe', 'l2-pe', 'l3-pe', 'n-pe']
    const slots = { pairing: choose('pair-by-pair'), ...Object.fromEntries(all.map((id) => [id, Mohm(300)])) }
    expect(site.take('ac-insulation', site.circuit, slots).says('ac-insulation', site.circuit).verdict).toBe('not-yet')
    const right = site.take('ac-insulation', site.circuit, { ...slots, 'set-voltage': choose('v1000') })
    expect(right.says('ac-insulation', site.circuit).verdict).toBe('within')
  })
})

describe('a figure that is put together', () => {
  it('is judged as it is and not as it is printed', () => {
    // 0.1749 of 0.1734 ohm printed with two decimals would be 0.17, and pass.
    const site = new Installation({ circuit: { device: 'B', rating_A: 252 } })
    site
      .take('ze', site.supply, { ze: read(0.1, 'ohm', 4) })
      .take('r1r2', site.circuit, { r1r2: read(0.0749, 'ohm', 4) })
    const found = site.take('zs', site.circuit, { 'loop-method': choose('calculated') }).says('zs', site.circuit)
    expect(found.verdict).toBe('outside')
  })

  it('has one line that decides, and that is its verdict', () => {
    const site = summed({ supply: { arrangement: 'TN-S' }, rcd: {} }, 0.7, 1.2)
    const { evaluation, one } = site.take('zs', site.circuit, loop(read(2))).says('zs', site.circuit)
    const deciding = linesOf(evaluation, one).filter((line) => line.decides)
    expect(deciding.map((line) => line.verdict)).toEqual([one.verdict])
  })
})

describe('a sub-board', () => {
  it('is not held against what Ze gives at the origin', () => {
    const site = new Installation()
    const sub = site.build.part({ kind: 'board', tag: 'DB2', name: 'Shed', boardId: site.board, phases: 1 })
    site.build.part({ ...exampleCircuit, tag: '9', boardId: sub })
    site.take('ze', site.supply, { ze: read(0.2) })
    const slots = { pefc: read(480, 'A', 0), pscc: read(500, 'A', 0) }
    expect(site.take('fault-current', sub, slots).says('fault-current', sub).code).not.toBe('fault-current.below-ze')
  })
})

describe('a warmth that cannot be', () => {
  it('is no warmth: 300 V of five modules', () => {
    const build = new FactsBuilder()
    const string = build.string('1', 5)
    build.polarity(string)
    const at = conditions()
    const cell = { ...at.cell, way: 'voltage' as const, read: readValueOf(300, 'V', 1) }
    build.reading('pv-isc', string, {
      slots: { current: readValueOf(7.1, 'A', 2) },
      conditions: { ...at, cell } as never,
    })
    const one = evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-isc', string))!
    expect(one.verdict).toBe('not-yet')
  })
})

describe('which reading counts', () => {
  const visits = [
    { id: testId(0xc1), startsAt: new Date(START_ms).toISOString(), title: '' },
    { id: testId(0xc2), startsAt: new Date(START_ms + 86_400_000).toISOString(), title: '' },
  ]
  it('is the worst of its own visit, and a later visit speaks for itself', () => {
    const build = new FactsBuilder()
    const id = build.string('1')
    const slots = (value: number) => ({
      method: choose('joined-to-earth'),
      'set-voltage': choose('v1000'),
      behaviour: choose('steady'),
      surface: choose('dry'),
      surge: choose('none-there'),
      joined: Mohm(value),
    })
    const one = () => evaluate(build.facts({ visits }), START_ms).byKey.get(stepKey('pv-insulation', id))!
    build.reading('pv-insulation', id, { slots: slots(1.5) }, { visitId: visits[0]!.id })
    build.reading('pv-insulation', id, { slots: slots(900) }, { visitId: visits[0]!.id })
    expect(one().verdict).toBe('close')
    const later = new Date(START_ms + 86_400_000).toISOString()
    build.reading('pv-insulation', id, { slots: slots(900) }, { visitId: visits[1]!.id, deviceTime: later })
    expect(one().verdict).toBe('within')
  })

  describe('where the worst does', () => {
    const setUp = {
      method: choose('joined-to-earth'),
      'set-voltage': choose('v500'),
      behaviour: choose('steady'),
      surface: choose('dry'),
      surge: choose('none-there'),
    }
    const afterwards = (...readings: Record<string, SlotValue>[]) => {
      const build = new FactsBuilder()
      const id = build.part(exampleString(8))
      for (const slots of readings) build.reading('pv-insulation', id, { slots: { ...setUp, ...slots } })
      return evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-insulation', id))!
    }
    const tooLow = { 'set-voltage': choose('v250'), joined: Mohm(900) }
    const below: SlotValue = { text: '<5', value: 5, bound: 'less-than', unit: 'Mohm' }

    it('is not one that its set-up made worthless, once it was read again as it should be', () => {
      expect(afterwards(tooLow).verdict).toBe('not-yet')
      expect(afterwards(tooLow, { joined: Mohm(900) }).verdict).toBe('within')
      expect(afterwards({ joined: Mohm(900) }, tooLow).verdict).toBe('not-yet')
    })

    it('is one that may lie beyond its limit, whatever is read after it', () => {
      expect(afterwards({ joined: below }, { joined: Mohm(900) }).verdict).toBe('not-yet')
      expect(afterwards({ ...tooLow, joined: Mohm(0.2) }, { joined: Mohm(900) }).verdict).toBe('outside')
    })
  })
})

describe('what a verdict rests on', () => {
  it.each([
    ['the supply becomes TT', 'supply', { ...tt }, 'zs'],
    ['a breaking capacity falls', 'circuit', { breaking_kA: 3 }, 'fault-current'],
    ['a device changes', 'circuit', { device: 'C' }, 'zs'],
  ] as const)('is recorded: %s', (_, kind, change, step) => {
    const site = summed({}, 0.2, 0.4)
    const part = step === 'zs' ? site.circuit : site.board
    const slots = step === 'zs' ? loop(read(0.6)) : { pefc: read(1100, 'A', 0), pscc: read(1200, 'A', 0) }
    site.take(step, part, slots)
    expect(site.says(step, part).one.flags).not.toContain('plant-changed')
    const id = site[kind]
    const before = site.says(step, part).evaluation.parts.get(id)!.data
    site.build.add(
      { kind: 'plant-change', v: 1, before, after: { ...before, ...change } as PartData, base: null },
      { partId: id },
    )
    expect(site.says(step, part).one.flags).toContain('plant-changed')
  })
})

describe('a doubt', () => {
  it('looks at the real plant: ten times what Ze and R1+R2 come to', () => {
    const site = summed({}, 0.2, 0.4)
    const body = { slots: loop(read(6)), conditions: null }
    expect(site.check('zs', site.circuit, body)).toMatchObject({ state: 'ask', code: 'slip-up' })
  })
})

describe('each figure', () => {
  it('says for itself where it came from: typed beside a simulated tester is typed', () => {
    const instrument = {
      id: testId(9),
      tag: '09',
      name: 'T',
      calibrationDue: null,
      standIn: true,
      accuracy: { ofReading_pct: 2, digits: 2 },
      most: 200,
    }
    const flags = (slot: SlotValue) => {
      const site = new Installation()
      site.build.reading('r1r2', site.circuit, { slots: { r1r2: slot, 'lead-set': choose('A') }, instrument })
      return site.says('r1r2', site.circuit).one.flags
    }
    expect(flags(read(0.4))).not.toContain('stand-in')
    expect(flags({ ...read(0.4), how: 'stand-in' })).toContain('stand-in')
  })
})

describe('R1+R2', () => {
  it('of a good deal less than its conductors says so', () => {
    const site = new Installation({ circuit: { line_mm2: 2.5, protective_mm2: 1.5, length_m: 54.3 } })
    const found = site.take('r1r2', site.circuit, { r1r2: read(0.6) }).says('r1r2', site.circuit)
    expect(found).toMatchObject({ verdict: 'close', code: 'r1r2.too-low' })
    expect(causes(found.evaluation, found.one).length).toBeGreaterThan(0)
  })
})

describe('the ends of a bridged ring', () => {
  it('look sound, and its points do not', () => {
    const site = new Installation({ circuit: { layout: 'ring', length_m: 54 } })
    const ends = { 'ring-r1': read(0.4), 'ring-rn': read(0.4), 'ring-r2': read(0.66) }
    const crossed = (l: number, h: number) => ({
      'cross-l-n-lowest': read(l),
      'cross-l-n-highest': read(h),
      'cross-l-pe-lowest': read(0.26),
      'cross-l-pe-highest': read(0.28),
    })
    site.take('ring-ends', site.circuit, { ...ends, ...crossed(0.2, 0.21) })
    expect(site.says('ring-ends', site.circuit).verdict).toBe('within')
    site.take('ring-ends', site.circuit, { ...ends, ...crossed(0.12, 0.21) })
    expect(site.says('ring-ends', site.circuit).verdict).toBe('outside')
    site.build.reading('ring-ends', site.circuit, { slots: { ...ends, 'lead-set': choose('A') } })
    expect(site.says('ring-ends', site.circuit).one.judgement!.verdict).toBe('not-yet')
  })
})

describe('a regime', () => {
  it('cites its own documents', () => {
    const site = summed({}, 0.2, 0.4)
    site.regime = iec
    const { evaluation, one } = site.take('zs', site.circuit, loop(read(0.6))).says('zs', site.circuit)
    for (const line of linesOf(evaluation, one)) expect(line.source ?? '').not.toMatch(/^bs7671/)
  })

  it('that lacks a figure gives a reading and no verdict', () => {
    const site = new Installation()
    const { 'ac.voltage-factor': _, ...limits } = defaultRegime.limits
    site.regime = { ...defaultRegime, limits }
    const found = site.take('zs', site.circuit, loop(read(0.6))).says('zs', site.circuit)
    expect(found.verdict).toBe('not-yet')
    expect(found.one.finding.code).toContain('lack')
  })
})

describe('closing out', () => {
  it('of a house without modules asks nothing of sensors, scaffold or inverters', () => {
    const site = new Installation()
    const asked = site.says('zs', site.circuit).evaluation.steps.map((one) => one.step.id)
    expect(asked).toContain('close-out-ac')
    expect(asked).not.toContain('close-out')
    // The lists of the site are there without anybody adding one.
    expect(asked).toContain('lead-null')
  })
})

describe('a draft', () => {
  it('may be kept only when everything is answered, nothing is refused and the set-up is right', () => {
    const site = new Installation()
    const { evaluation, one } = site.says('ac-insulation', site.circuit)
    const draft = (slots: Record<string, SlotValue>) => evaluateDraft(evaluation, one, readingBody({ slots }))
    const onlyLiveLive = draft({ pairing: choose('pair-by-pair'), 'l-n': Mohm(300) })
    expect(onlyLiveLive.mayKeep).toBe(false)
    expect(onlyLiveLive.missing.map((slot) => slot.id)).toEqual(expect.arrayContaining(['l-pe', 'n-pe']))
    expect(onlyLiveLive.judgement.verdict).toBe('not-yet')
  })
})

describe('an instrument of the kit', () => {
  it('that knows nothing of a quantity is said, not passed over', () => {
    const clamp: Instrument = {
      id: testId(4),
      tag: '04',
      name: 'Clamp',
      serial: '',
      calibrationDue: null,
      standIn: false,
      ranges: [{ measures: 'dc-current', accuracy: { ofReading_pct: 1, digits: 1 }, most: 20, decimals: 2 }],
    }
    const build = new FactsBuilder()
    const string = build.string('1')
    const one = evaluate(build.facts({ instruments: [clamp] }), START_ms).byKey.get(stepKey('pv-polarity', string))!
    expect(one.gates.find((gate) => gate.id === 'tester-unknown')).toMatchObject({ met: false })
  })
})

// Found by the laws: what was close by its figure came to be within by a worse instrument.
describe('a worse instrument', () => {
  const tester = (measures: 'loop-impedance' | 'continuity', ofReading_pct: number) => ({
    id: testId(9),
    tag: '09',
    name: 'Installation tester',
    calibrationDue: null,
    standIn: false,
    accuracy: { ofReading_pct, digits: 0 },
    most: 1000,
    ranges: [{ measures, accuracy: { ofReading_pct, digits: 0 }, most: 1000, decimals: 2 }],
  })
  const readBy = (site: Installation, step: string, slots: Record<string, SlotValue>, ofReading_pct: number) => {
    const instrument = tester(step === 'zs' ? 'loop-impedance' : 'continuity', ofReading_pct)
    const { part } = site.says(step, site.circuit).one
    const plantRevision = part.revision
    site.build.reading(step, site.circuit, { slots, instrument, plantRevision })
    return site.says(step, site.circuit)
  }
  // Ze + (R1+R2) is 0.7: a fifth more and a joint of 0.05 is 0.89.
  const sum = { ze: 0.3, r1r2: 0.4 }

  it.each([
    [0.95, 0, 'close', 'zs.above-sum'],
    [0.95, 20, 'close', 'zs.above-sum'],
    [0.86, 0, 'within', 'zs.within'],
    [0.86, 5, 'close', 'zs.perhaps-above-sum'],
    [0.25, 0, 'close', 'zs.below-ze'],
    [0.25, 30, 'close', 'zs.below-ze'],
  ])('leaves a loop of %s ohm by an instrument of %s %% %s', (value, ofReading_pct, verdict, code) => {
    const site = summed({}, sum.ze, sum.r1r2)
    expect(readBy(site, 'zs', loop(read(value)), ofReading_pct)).toMatchObject({ verdict, code })
  })

  it.each([0, 40])('of %s %% leaves conductors that read too little close', (ofReading_pct) => {
    const slots = { r1r2: read(0.15), 'lead-set': choose('A') }
    const found = readBy(new Installation(), 'r1r2', slots, ofReading_pct)
    expect(found).toMatchObject({ verdict: 'close', code: 'r1r2.too-low' })
  })
})
