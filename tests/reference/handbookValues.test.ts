import { describe, expect, it } from 'vitest'
import { fitDeSoto } from '@/core/pv/deSoto'
import { lightTerm, quickRuleVoltage } from '@/core/pv/quickRule'
import { moduleModel, referToStc } from '@/core/pv/stringModel'
import { temperatureFactor, temperatureFactors } from '@/core/pv/temperatureFactor'

/** The module of the handbook's worked values: 36.85 V, its other figures as there. */
const exampleModule = {
  pmax_W: 245,
  voc_V: 36.85,
  isc_A: 8.8,
  vmp_V: 30,
  imp_A: 8.17,
  alpha_pctPerK: 0.05,
  beta_pctPerK: -0.34,
  gamma_pctPerK: -0.43,
  cellsInSeries: 60,
} as const

/** Worked values of the trade's handbook, section 17. T: common practice, no source; computed: from the formula itself. */
describe('worked values of strings', () => {
  it('sums five modules of 36.85 V to 184.25 V', () => {
    expect(quickRuleVoltage(exampleModule, 5, 25)).toBeCloseTo(184.25, 10) // T
  })

  it('sums eight modules of 36.85 V to 294.8 V', () => {
    expect(quickRuleVoltage(exampleModule, 8, 25)).toBeCloseTo(294.8, 10) // T
  })

  it('takes 2.73 V a module in 200 W/m2', () => {
    expect(lightTerm(60, 200, 25, 1.1)).toBeCloseTo(-2.73, 2) // computed
  })

  it('explains 163 V of five modules by dull light', () => {
    // T: 163 V seen in dull light was sound. 32.6 V a module: the light at which the model gives just that is dull.
    const model = moduleModel(exampleModule)
    expect(5 * model.voc_V(1000, 25)).toBeCloseTo(184.25, 6)
    expect(5 * model.voc_V(50, 25)).toBeLessThan(163)
    expect(5 * model.voc_V(200, 25)).toBeGreaterThan(163)
  })

  it('refers four of six modules to a third too little', () => {
    // T: two of six modules taken out: STC-referred Voc far outside.
    const model = moduleModel(exampleModule)
    const seen = 4 * model.voc_V(640, 41)
    const referred = referToStc(seen, (g, t) => 6 * model.voc_V(g, t), 640, 41)
    expect(referred / (6 * 36.85)).toBeCloseTo(4 / 6, 9)
  })
})

/** Source: IEC 62548 and NEC table 690.7(A), factors for crystalline silicon, from memory. */
describe('temperature factor table against the coefficient rule', () => {
  it.each(temperatureFactors)('from $from_C degC agrees with ordinary silicon', ({ from_C, factor }) => {
    // A band's factor covers its colder end: ordinary crystalline silicon of the table's time has -0.30 to -0.40 %/K.
    const mild = 1 + 0.003 * (25 - from_C)
    const strong = 1 + 0.0045 * (25 - from_C)
    expect(factor).toBeGreaterThan(mild - 0.012)
    expect(factor).toBeLessThan(strong + 0.012)
  })

  it('takes the row whose band holds the temperature', () => {
    expect(temperatureFactor(-7)).toBe(1.14)
    expect(temperatureFactor(24)).toBe(1.02)
    expect(temperatureFactor(25)).toBe(1)
    expect(temperatureFactor(-41)).toBeNull()
  })
})

describe('data sheets without a physical solution', () => {
  it('fall back to the quick rule with the light term', () => {
    const flat = { ...exampleModule, vmp_V: 36, imp_A: 8.7, pmax_W: 313 }
    expect(fitDeSoto(flat).state).toBe('no-physical-solution')
    const model = moduleModel(flat)
    expect(model.method).toBe('quick-rule-with-light-term')
    expect(model.voc_V(200, 25)).toBeCloseTo(36.85 + lightTerm(60, 200, 25), 10)
  })
})
