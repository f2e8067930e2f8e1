import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { currentAt, maximumPowerPoint, openCircuitVoltage, type SingleDiode } from '../pv/singleDiode'
import { type CellGroup, LiveGroup } from './cellGroup'
import { type CurveModule, ParallelStrings } from './stringCurve'
import { byProcedure1, byProcedure2, byProcedure3, type Measured } from './translate'

const cells: SingleDiode = {
  photocurrent_A: 11.2,
  saturationCurrent_A: 4.4e-10,
  seriesResistance_ohm: 0.09,
  shuntResistance_ohm: 140,
  modifiedIdeality_V: 0.56,
}
const diode = { kind: 'diode', saturationCurrent_A: 3e-7, slope_V: 0.03 } as const
const group = (light = 1, rest: Partial<CellGroup> = {}): CellGroup => ({
  ...cells,
  photocurrent_A: cells.photocurrent_A * light,
  bypass: diode,
  ...rest,
})
/** A group solved at a current. */
function groupAt(of: CellGroup, current_A: number): LiveGroup {
  const live = new LiveGroup(of)
  live.solve(current_A)
  return live
}
const module = (...groups: CellGroup[]): CurveModule => ({ reversed: false, groups })
const array = (modules: readonly CurveModule[], seriesResistance_ohm = 0): ParallelStrings =>
  new ParallelStrings([{ seriesResistance_ohm, modules }])

describe('a cell group', () => {
  it('without a bypass is a single diode', () => {
    const bare = group(1, { bypass: { kind: 'open' } })
    for (const volts of [0, 5, 9.5, 11, 12.6]) {
      const amperes = currentAt(cells, volts)
      expect(groupAt(bare, amperes).voltage_V).toBeCloseTo(volts, 9)
    }
  })

  it('has a voltage at any current, falling with it, held by its diode where it is overdriven', () => {
    const lights = fc.double({ min: 0, max: 1.2, noNaN: true })
    const currents = fc.double({ min: -60, max: 60, noNaN: true })
    fc.assert(
      fc.property(lights, currents, currents, (light, a, b) => {
        const [low, high] = a < b ? [a, b] : [b, a]
        const [more, less] = [groupAt(group(light), low), groupAt(group(light), high)]
        expect(more.voltage_V).toBeGreaterThanOrEqual(less.voltage_V - 1e-9)
        expect(less.voltage_V).toBeGreaterThan(-1)
        expect(more.fall_S / more.rise).toBeGreaterThan(0)
      }),
    )
  })
})

describe('a string of cell groups', () => {
  it('that are alike is one diode with as many cells', () => {
    const whole: SingleDiode = {
      ...cells,
      modifiedIdeality_V: 6 * cells.modifiedIdeality_V,
      seriesResistance_ohm: 6 * cells.seriesResistance_ohm,
      shuntResistance_ohm: 6 * cells.shuntResistance_ohm,
    }
    const bare = group(1, { bypass: { kind: 'open' } })
    const one = array([module(bare, bare, bare), module(bare, bare, bare)])
    const { voc_V, vmp_V, pmax_W, maxima } = one.features()
    expect(voc_V).toBeCloseTo(openCircuitVoltage(whole), 8)
    const power = maximumPowerPoint(whole)
    expect([vmp_V, pmax_W]).toEqual([expect.closeTo(power.vmp_V, 6), expect.closeTo(power.pmax_W, 8)])
    expect(maxima).toHaveLength(1)
  })

  it('has one more maximum for each level of light, and the lost volts of a bypassed group at the first', () => {
    const shaded = array([module(group(), group(0.6), group()), module(group(), group(0.3), group())]).features()
    expect(shaded.maxima).toHaveLength(3)
    const whole = array([module(group(), group(), group()), module(group(), group(), group())]).features()
    expect(shaded.isc_A).toBeCloseTo(whole.isc_A, 1)
    expect(shaded.pmax_W).toBeLessThan(whole.pmax_W)
  })

  it('with a module the wrong way round loses the volts of two at no load', () => {
    const fine = group(1, { seriesResistance_ohm: 0.04 })
    const right = module(fine, fine, fine)
    const string = (count: number, turned = 0): ParallelStrings =>
      array([
        ...Array.from({ length: count }, () => right),
        ...Array.from({ length: turned }, () => ({ ...right, reversed: true })),
      ])
    const turned = string(10, 1).features()
    const nine = string(9).features()
    expect(turned.voc_V).toBeCloseTo(nine.voc_V, 6)
    // Under load 2 to 3 % less power than with two missing: its cells are driven beyond open circuit (handbook 3).
    expect(100 * (1 - turned.pmax_W / nine.pmax_W)).toBeGreaterThan(2)
    expect(100 * (1 - turned.pmax_W / nine.pmax_W)).toBeLessThan(3)
  })

  it('in parallel with one like it carries twice the current; beyond open circuit it flows back', () => {
    const string = { seriesResistance_ohm: 0.4, modules: [module(group(), group())] }
    const [one, pair] = [new ParallelStrings([string]), new ParallelStrings([string, string])]
    const { voc_V } = one.features()
    for (const volts of [0, 0.5 * voc_V, 0.95 * voc_V])
      expect(pair.currentAt(volts)).toBeCloseTo(2 * one.currentAt(volts), 8)
    expect(one.currentAt(1.02 * voc_V)).toBeLessThan(0)
  })

  it('is refused without a string or a group', () => {
    expect(() => new ParallelStrings([])).toThrow(RangeError)
    expect(() => new ParallelStrings([{ seriesResistance_ohm: 0, modules: [] }])).toThrow(
      'one cell group in each string',
    )
  })

  it('that is dark gives nothing', () => {
    const { pmax_W, maxima, fillFactor } = array([module(group(0), group(0))]).features()
    expect([pmax_W, maxima.length, fillFactor]).toEqual([0, 0, 0])
  })
})

describe('a curve carried to other conditions (IEC 60891:2009, from memory, worked by hand)', () => {
  const from = { irradiance_Wm2: 800, cellTemperature_C: 40 }
  const to = { irradiance_Wm2: 1000, cellTemperature_C: 25 }

  it('by procedure 1', () => {
    const carry = byProcedure1({
      isc_A: 8,
      alpha_AperK: 0.004,
      beta_VperK: -0.12,
      seriesResistance_ohm: 0.5,
      kappa_ohmPerK: 0.002,
    })
    // I2 = 6 + 8 (1.25 - 1) + 0.004 (-15) = 7.94; V2 = 30 - 0.5 x 1.94 - 0.002 x 7.94 (-15) - 0.12 (-15) = 31.0682.
    const [[voltage_V, current_A]] = carry([[30, 6]], from, to) as [[number, number]]
    expect([voltage_V, current_A]).toEqual([expect.closeTo(31.0682, 10), expect.closeTo(7.94, 10)])
  })

  it('by procedure 2', () => {
    const carry = byProcedure2({
      voc_V: 36,
      alphaRel_perK: 0.0005,
      betaRel_perK: -0.003,
      a: 0.06,
      seriesResistance_ohm: 0.5,
      kappa_ohmPerK: 0.002,
    })
    // I2 = 6 (1 - 0.0075) 1.25 = 7.44375; V2 = 30 + 36 (0.045 + 0.06 ln 1.25) - 0.5 x 1.44375 + 0.002 x 7.44375 x 15.
    const expected_V = 30 + 36 * (0.045 + 0.06 * Math.log(1.25)) - 0.721875 + 0.2233125
    const [[voltage_V, current_A]] = carry([[30, 6]], from, to) as [[number, number]]
    expect([voltage_V, current_A]).toEqual([expect.closeTo(expected_V, 10), expect.closeTo(7.44375, 10)])
  })

  it('to its own conditions is left as it is, in its order', () => {
    const points = [
      [30, 6],
      [0, 8],
      [36, 0],
    ] as const
    const one = byProcedure1({
      isc_A: 8,
      alpha_AperK: 0.004,
      beta_VperK: -0.12,
      seriesResistance_ohm: 0.5,
      kappa_ohmPerK: 0,
    })
    expect(one(points, from, from)).toEqual(points)
    expect(() => one(points, { ...from, irradiance_Wm2: 0 }, to)).toThrow('light to carry from')
  })
})

describe('a curve between two (IEC 60891:2009 procedure 3, from memory)', () => {
  /** A string at a light, its series resistance and temperature left alone. */
  const at = (light: number): Measured => {
    const string = array([module(group(light), group(light), group(light))])
    const { voc_V } = string.features()
    const points = Array.from({ length: 300 }, (_, k) => {
      const voltage = (voc_V * k) / 299
      return [voltage, string.currentAt(voltage)] as const
    })
    return { points, at: { irradiance_Wm2: 1000 * light, cellTemperature_C: 40 } }
  }

  it('half way is the one that was measured half way', () => {
    const between = byProcedure3(at(0.6), at(1), { irradiance_Wm2: 800, cellTemperature_C: 40 })
    const truth = array([module(group(0.8), group(0.8), group(0.8))])
    const { isc_A } = truth.features()
    for (const [voltage, current] of between)
      expect(Math.abs(current - truth.currentAt(voltage)) / isc_A).toBeLessThan(0.02)
    expect(between[0]![1]).toBeCloseTo(isc_A, 2)
  })

  it('is refused off the line between both, and between two alike', () => {
    expect(() => byProcedure3(at(0.6), at(1), { irradiance_Wm2: 800, cellTemperature_C: 25 })).toThrow('on the line')
    expect(() => byProcedure3(at(1), at(1), { irradiance_Wm2: 800, cellTemperature_C: 40 })).toThrow(
      'unlike conditions',
    )
  })
})
