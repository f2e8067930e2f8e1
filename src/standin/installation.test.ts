import { describe, expect, it } from 'vitest'
import type { PartData } from '@/core/plant/part'
import type { Instrument, Measurable } from '@/core/record/instrument'
import { exampleBoard, exampleCircuit, exampleElectrode, exampleRcd, exampleSupply } from '@/core/steps/worked'
import { START_ms, testId } from '@/core/testing/factsBuilder'
import { circuitFault, Installation, rcdFault } from './installation'
import { pressStandIn } from './press'

const range = (measures: Measurable, most: number, decimals: number) => ({
  measures,
  accuracy: { ofReading_pct: 3, digits: 2 },
  most,
  decimals,
})
const tester: Instrument = {
  id: testId(9),
  tag: '9',
  name: 'Tester',
  serial: '',
  calibrationDue: null,
  standIn: true,
  ranges: [
    range('continuity', 200, 2),
    range('insulation', 999, 1),
    range('loop-impedance', 2000, 2),
    range('fault-current', 20_000, 0),
    range('rcd-time', 1999, 1),
    range('rcd-current', 1000, 1),
    range('earth-resistance', 2000, 1),
  ],
}
const idWhere = (good: (id: string) => boolean, from = 1): string => {
  let n = from
  while (!good(testId(n))) n++
  return testId(n)
}

/** An installation of sound parts, but for what a test wants otherwise. */
function built(own: { supply?: object; circuit?: object; rcd?: object; circuitId?: string; rcdId?: string } = {}) {
  const rcdId = own.rcdId ?? idWhere((id) => rcdFault(id) === 'none', 100)
  const circuitId = own.circuitId ?? idWhere((id) => circuitFault(id) === 'none', 200)
  const parts: { id: string; data: PartData }[] = [
    { id: testId(1), data: { ...exampleSupply, ...own.supply } as PartData },
    { id: testId(2), data: exampleBoard },
    { id: rcdId, data: { ...exampleRcd, ...own.rcd } as PartData },
    { id: circuitId, data: { ...exampleCircuit, rcdId, ...own.circuit } as PartData },
    { id: testId(5), data: exampleElectrode },
  ]
  const of = (kind: PartData['kind']) => parts.find((one) => one.data.kind === kind)!
  const press = (key: Measurable, kind: PartData['kind'], slot = '', choices = {}, connection = {}) =>
    pressStandIn(tester, key, of(kind), 'sky', START_ms, { setting: { slot, choices }, others: parts, ...connection })
  const value = (...all: Parameters<typeof press>): number => {
    const pressed = press(...all)
    if (pressed.state === 'refused') throw new Error(JSON.stringify(pressed))
    return (pressed.state === 'swept' ? pressed.samples.at(-1)! : pressed.sample).value
  }
  return { parts, of, press, value }
}

describe('a simulated installation', () => {
  it('has loops that add up: Zs is a little below Ze and R1+R2, for pipes help', () => {
    const site = built({ circuit: { rcdId: null } })
    const [ze, r1r2] = [site.value('loop-impedance', 'supply'), site.value('continuity', 'circuit')]
    const zs = site.value('loop-impedance', 'circuit', 'zs', { 'loop-method': 'high-current' })
    expect(zs).toBeLessThan((ze + r1r2) * 1.1)
    expect(zs).toBeGreaterThan(r1r2)
  })

  it('reads more current with everything connected than Ze alone gives', () => {
    const site = built()
    const pefc = site.value('fault-current', 'board', 'pefc')
    expect(pefc).toBeGreaterThan((230 / site.value('loop-impedance', 'supply')) * 0.9)
  })

  it('shows the leads’ own resistance where nobody nulled them', () => {
    const site = built()
    const nulled = site.value('continuity', 'circuit')
    expect(site.value('continuity', 'circuit', '', {}, { nulled: false }) - nulled).toBeGreaterThan(0.3)
  })

  it('trips a device when the high-current test is used from line to earth behind it', () => {
    const site = built()
    expect(site.press('loop-impedance', 'circuit', 'zs', { 'loop-method': 'high-current' })).toEqual({
      state: 'refused',
      code: 'standin-tripped',
      rcd: 'RCD1',
    })
    expect(site.press('loop-impedance', 'circuit', 'zs', { 'loop-method': 'non-trip' }).state).toBe('swept')
  })

  it('reads over range where breakers are off, and low where a circuit leaks', () => {
    const leaky = idWhere((id) => circuitFault(id) === 'low-insulation', 300)
    const site = built({ circuitId: leaky })
    const off = site.press('insulation', 'circuit', 'l-pe', { devices: 'some-off' })
    expect(off).toMatchObject({ sample: { bound: 'more-than', text: '>999' } })
    expect(site.value('insulation', 'circuit', 'l-pe', { devices: 'all-on' })).toBeLessThan(1)
    const mended = { mendedParts: new Set([leaky]) }
    expect(site.value('insulation', 'circuit', 'l-pe', { devices: 'all-on' }, mended)).toBeGreaterThan(100)
  })

  it('adds ohms where a terminal is loose', () => {
    const loose = built({ circuitId: idWhere((id) => circuitFault(id) === 'loose-terminal', 400) })
    expect(loose.value('continuity', 'circuit')).toBeGreaterThan(1)
  })

  it('has devices which open in their bands, wait where they are selective, and stay at half their current', () => {
    const site = built()
    expect(site.value('rcd-time', 'rcd', 'once-0')).toBeLessThan(60)
    expect(site.value('rcd-time', 'rcd', 'five-180')).toBeLessThan(40)
    expect(site.press('rcd-time', 'rcd', 'half-0')).toMatchObject({ sample: { bound: 'more-than', text: '>1999' } })
    const waits = built({ rcd: { delay: 'selective' } }).value('rcd-time', 'rcd', 'once-0')
    expect(waits).toBeGreaterThan(130)
    expect(waits).toBeLessThan(500)
    const ramp = site.value('rcd-current', 'rcd', 'ramp')
    expect(ramp).toBeGreaterThan(15)
    expect(ramp).toBeLessThan(30)
  })

  it('has slow and sensitive devices among them', () => {
    const slow = built({ rcdId: idWhere((id) => rcdFault(id) === 'slow', 500) })
    expect(slow.value('rcd-time', 'rcd', 'once-0')).toBeGreaterThan(300)
    const sensitive = built({ rcdId: idWhere((id) => rcdFault(id) === 'sensitive', 600) })
    expect(sensitive.value('rcd-time', 'rcd', 'half-0')).toBeLessThan(300)
    expect(sensitive.value('rcd-current', 'rcd', 'ramp')).toBeLessThan(15)
  })

  it('has electrodes in soil: three spike places agree, and the loop reads more', () => {
    const site = built({ supply: { arrangement: 'TT' } })
    const three = ['re-1', 're-2', 're-3'].map((slot) => site.value('earth-resistance', 'electrode', slot))
    expect((Math.max(...three) - Math.min(...three)) / three[0]!).toBeLessThan(0.05)
    expect(site.value('loop-impedance', 'electrode', 're-loop')).toBeGreaterThan(Math.max(...three))
    const more = new Installation([{ id: 'e', data: { ...exampleElectrode, rods: 3 } }], new Set())
    const one = new Installation([{ id: 'e', data: exampleElectrode }], new Set())
    const of = (rods: number) => ({ id: 'e', data: { ...exampleElectrode, rods } })
    expect(more.electrode_ohm(of(3))).toBeGreaterThan(one.electrode_ohm(of(1)) / 3)
    expect(more.electrode_ohm(of(3))).toBeLessThan(one.electrode_ohm(of(1)))
  })

  it('has nothing to show where a key makes no sense', () => {
    const site = built()
    expect(site.press('rcd-time', 'circuit')).toMatchObject({ state: 'refused', code: 'standin-not-here' })
    expect(site.press('loop-impedance', 'board')).toMatchObject({ state: 'refused', code: 'standin-not-here' })
  })
})

describe('what a press of a simulated tester gives besides', () => {
  const wide = { ...tester, ranges: [...tester.ranges, range('ac-voltage', 500, 0)] }
  it('are the loops of one place: each conductor has its share', () => {
    const { parts, of } = built()
    const pressed = pressStandIn(wide, 'loop-impedance', of('circuit'), 'sky', START_ms, {
      setting: { slot: 'zs', choices: { 'loop-method': 'non-trip' } },
      others: parts,
    })
    if (pressed.state !== 'swept') throw new Error(pressed.state)
    const loopOf = (pair?: string) =>
      pressed.samples.find((one) => one.quantity === 'loop-impedance' && one.pair === pair)!.value
    expect(pressed.samples.at(-1)!.pair).toBeUndefined()
    expect(loopOf('L-N') + loopOf('N-PE')).toBeGreaterThan(loopOf())
    expect(loopOf() + loopOf('N-PE')).toBeGreaterThan(loopOf('L-N'))
    expect(pressed.samples.filter((one) => one.quantity === 'ac-voltage').map((one) => one.pair)).toEqual([
      'L-N',
      'L-PE',
      'N-PE',
    ])
    // An instrument that shows no volts sends none.
    const narrow = pressStandIn(tester, 'loop-impedance', of('supply'), 'sky', START_ms, { others: parts })
    expect(narrow.state).toBe('shown')
  })
})
