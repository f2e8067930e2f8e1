import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { exampleModule } from '../steps/worked'
import { cellFromAir, cellFromBack, cellFromVoltage } from './cellTemperature'
import { refuseConditions, weatherOf } from './conditions'
import { expectation, MODULE_SPREAD_PCT, powerSpreadOf, spreadOf } from './expectation'
import { findRoot } from './findRoot'
import { moduleDataSchema, moduleDoubts } from './moduleData'
import { lightTerm, quickRuleCurrent, quickRuleVoltage } from './quickRule'
import { currentAt, maximumPowerPoint, openCircuitVoltage, type SingleDiode } from './singleDiode'
import { moduleModel, referToStc } from './stringModel'
import { conditions } from '../testing/factsBuilder'

const anyDiode: fc.Arbitrary<SingleDiode> = fc.record({
  photocurrent_A: fc.double({ min: 0.05, max: 20, noNaN: true }),
  saturationCurrent_A: fc.double({ min: 1e-14, max: 1e-7, noNaN: true }),
  seriesResistance_ohm: fc.double({ min: 0, max: 2, noNaN: true }),
  shuntResistance_ohm: fc.double({ min: 20, max: 5000, noNaN: true }),
  modifiedIdeality_V: fc.double({ min: 0.6, max: 4, noNaN: true }),
})

describe('the single-diode equation', () => {
  it('is met at every voltage', () => {
    fc.assert(
      fc.property(anyDiode, fc.double({ min: 0, max: 1.2, noNaN: true }), (d, share) => {
        const voltage = share * openCircuitVoltage(d)
        const current = currentAt(d, voltage)
        const u = voltage + current * d.seriesResistance_ohm
        const right =
          d.photocurrent_A - d.saturationCurrent_A * Math.expm1(u / d.modifiedIdeality_V) - u / d.shuntResistance_ohm
        expect(Math.abs(current - right)).toBeLessThan(1e-9 * Math.max(1, Math.abs(current)))
      }),
    )
  })

  it('has no more power anywhere than at the maximum', () => {
    fc.assert(
      fc.property(anyDiode, fc.double({ min: 0, max: 1, noNaN: true }), (d, share) => {
        const voltage = share * openCircuitVoltage(d)
        expect(voltage * currentAt(d, voltage)).toBeLessThanOrEqual(maximumPowerPoint(d).pmax_W * (1 + 1e-9) + 1e-12)
      }),
    )
  })
})

describe('the quick rules', () => {
  it('warm a string by its coefficient', () => {
    expect(quickRuleVoltage({ voc_V: 40, beta_pctPerK: -0.25 }, 10, 45)).toBeCloseTo(380, 10)
  })

  it('give half the current in half the light', () => {
    expect(quickRuleCurrent({ isc_A: 10, alpha_pctPerK: 0.05 }, 500, 45)).toBeCloseTo(5.05, 10)
  })

  it('agree with the full model within two per cent in good light', () => {
    const model = moduleModel(exampleModule)
    for (const [g, t] of [
      [1000, 25],
      [800, 45],
      [400, 30],
      [200, 25],
    ] as const) {
      const rule = quickRuleVoltage(exampleModule, 1, t) + lightTerm(60, g, t)
      expect(Math.abs(rule / model.voc_V(g, t) - 1)).toBeLessThan(0.02)
    }
  })
})

describe('referral to standard test conditions', () => {
  it('gives the plate value back for a sound string', () => {
    const model = moduleModel(exampleModule)
    expect(referToStc(model.voc_V(300, 50), model.voc_V, 300, 50)).toBeCloseTo(37.4, 9)
    expect(referToStc(model.isc_A(300, 50), model.isc_A, 300, 50)).toBeCloseTo(9.6, 9)
  })
})

describe('cell temperature', () => {
  it('lies above the back of an open rack', () => {
    expect(cellFromBack(40, 800, 'open-rack').value_C).toBeCloseTo(42.4, 10)
    expect(cellFromBack(40, 800, 'insulated-back').value_C).toBe(40)
  })

  it('follows the air by the nominal figure', () => {
    expect(cellFromAir(20, 800, 45).value_C).toBeCloseTo(45, 10)
  })

  it('comes back from the voltage it gives', () => {
    const voltage = 8 * (quickRuleVoltage(exampleModule, 1, 47) + lightTerm(60, 650, 47))
    expect(cellFromVoltage(exampleModule, 8, voltage, 650).value_C).toBeCloseTo(47, 6)
  })

  it('is known worst from the air', () => {
    const model = moduleModel(exampleModule)
    const back = weatherOf(conditions(), exampleModule)!
    const byBack = expectation(model.voc_V, back, MODULE_SPREAD_PCT)
    const byAir = expectation(model.voc_V, { ...back, cell: cellFromAir(20, 742, 45) }, MODULE_SPREAD_PCT)
    expect(byAir.uncertainty).toBeGreaterThan(byBack.uncertainty)
  })

  it('leaves what the maker lets a module differ by from its plate', () => {
    expect(spreadOf(exampleModule)).toBe(MODULE_SPREAD_PCT)
    const model = moduleModel(exampleModule)
    const back = weatherOf(conditions(), exampleModule)!
    const [plain, loose] = [spreadOf(exampleModule), spreadOf({ ...exampleModule, vocIscTolerance_pct: 3 })].map(
      (spread) => expectation(model.voc_V, back, spread),
    )
    // Squares add: 3 % in place of 1 % of the same voltage.
    const more = loose!.uncertainty ** 2 - plain!.uncertainty ** 2
    expect(more).toBeCloseTo((0.03 ** 2 - 0.01 ** 2) * plain!.value ** 2, 9)
    expect(loose!.value).toBe(plain!.value)
    // A tolerance of the power says nothing of voltage and current.
    expect(spreadOf({ ...exampleModule, tolerance_pct: 5 })).toBe(MODULE_SPREAD_PCT)
    expect(powerSpreadOf({ ...exampleModule, tolerance_pct: 5 })).toBe(5)
  })

  it('refuses light that no sky gives', () => {
    expect(refuseConditions(conditions(5000))).toBe('irradiance-out-of-reach')
    expect(refuseConditions(conditions(742, 400))).toBe('temperature-out-of-reach')
    expect(refuseConditions(conditions())).toBeNull()
  })
})

describe('a data plate', () => {
  it('is refused with a coefficient of the wrong sign', () => {
    expect(moduleDataSchema.safeParse({ ...exampleModule, beta_pctPerK: 0.34 }).success).toBe(false)
    expect(moduleDataSchema.safeParse({ ...exampleModule, alpha_pctPerK: -0.34 }).success).toBe(false)
  })

  it('is refused with Vmp above Voc', () => {
    const parsed = moduleDataSchema.safeParse({ ...exampleModule, vmp_V: 37.5 })
    expect(parsed.error?.issues[0]).toMatchObject({ path: ['vmp_V'] })
  })

  it('is asked about where power and product part', () => {
    expect(moduleDoubts({ ...exampleModule, pmax_W: 345 })).toMatchObject([{ code: 'power-gap' }])
    expect(moduleDoubts({ ...exampleModule, cellsInSeries: 120 })).toMatchObject([{ code: 'cell-voltage' }])
    expect(moduleDoubts(exampleModule)).toEqual([])
  })
})

describe('root finding', () => {
  it('finds the root of a cube', () => {
    expect(findRoot((x) => x ** 3 - 2, 0, 2)).toBeCloseTo(2 ** (1 / 3), 14)
  })

  it('says where there is none', () => {
    expect(findRoot((x) => x ** 2 + 1, -1, 1)).toBeNull()
  })
})
