import { describe, expect, it } from 'vitest'
import { fitDeSoto } from '@/core/pv/deSoto'
import { lightTerm, quickRuleVoltage } from '@/core/pv/quickRule'
import { moduleModel, referToStc } from '@/core/pv/stringModel'
import { exampleElectrode } from '@/core/steps/worked'
import { choose, Installation, read } from '@/core/testing/installation'
import { calc } from '../support/calc'
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

describe('worked values of earth and loops', () => {
  it('has a fault current of 799 and 759 A below what 6 kA breaks', () => {
    const site = new Installation()
    const read799 = { pefc: read(799, 'A', 0), pscc: read(759, 'A', 0) }
    const found = site.take('fault-current', site.board, read799).says('fault-current', site.board)
    expect(found.verdict).toBe('within') // T
    expect(found.one.finding.figures.ipf_kA).toBe(0.799) // T
    // Computed: 0.23 ohm on 230 V is 1000 A, which 799 A does not agree with.
    expect(230 / 0.23).toBeCloseTo(1000, 9)
    site.take('ze', site.supply, { 'earthing-conductor': choose('earth-off'), ze: read(0.23) })
    expect(site.says('fault-current', site.board).code).toBe('fault-current.below-ze')
  })

  it('calls a socket’s 22.5 ohm above an electrode of 15.9 no fault', () => {
    const site = new Installation({ supply: { arrangement: 'TT', declaredZe_ohm: null }, rcd: {} })
    const electrode = site.build.part(exampleElectrode)
    const slots = { 'electrode-method': choose('three-lead'), 'electrode-lead': choose('taken-off') }
    const places = { 're-1': read(15.9), 're-2': read(15.9), 're-3': read(15.9) }
    expect(site.take('electrode', electrode, { ...slots, ...places }).says('electrode', electrode).verdict).toBe(
      'within',
    )
    site.take('ze', site.supply, { 'earthing-conductor': choose('earth-off'), ze: read(22) })
    site.take('r1r2', site.circuit, { r1r2: read(0.4) })
    site.take('zs', site.circuit, { 'loop-method': choose('non-trip'), zs: read(22.5) })
    expect(site.says('zs', site.circuit).verdict).toBe('within') // T
  })

  it('takes the lead of 1 ohm off 106: 105 ohm, which carries 2.2 A', () => {
    const input = { readings_ohm: [106], leads_ohm: 1, method: 'loop', ratedResidualCurrents_mA: [30] }
    expect(calc('electrode', input).out).toMatchObject({ mean_ohm: 105, verdict: 'within' }) // T
    expect(230 / 105).toBeCloseTo(2.2, 1) // T
  })

  it('takes 80 % of the unrounded limit of B32: 1.09 ohm', () => {
    const { limit_ohm, limit80_ohm } = calc('max-zs', { device: 'B', rating_A: 32 }).out as Record<string, number>
    expect(limit_ohm).toBeCloseTo(1.3656, 4)
    expect(limit80_ohm).toBeCloseTo(1.09, 2) // T
  })
})

describe('worked values of residual current devices', () => {
  const device = {
    type: 'AC',
    kind: 'general',
    ratedResidualCurrent_mA: 30,
    standard: 'BS EN 61008',
    regime: 'bs7671-a2',
  }
  const at = (multiple: number, angle_deg: number, time_ms: number) => ({
    multiple,
    angle_deg,
    waveform: 'ac',
    time_ms,
  })
  const verdictOf = (input: object): unknown => (calc('rcd-verdict', input).out as { verdict: unknown }).verdict

  it('calls 34.9, 26, 12.6 and 6.8 ms within', () => {
    const readings = [at(1, 0, 34.9), at(1, 180, 26), at(5, 0, 12.6), at(5, 180, 6.8)]
    expect(verdictOf({ ...device, readings })).toBe('within') // T
  })

  it('calls a charge point’s times and its 19.5 mA within, 6 mA of direct current exactly on the limit', () => {
    const readings = [at(1, 0, 149.2), at(1, 180, 136.1), at(5, 0, 23.8), at(5, 180, 23.8), { ramp_mA: 19.5 }]
    const point = { ...device, place: 'charge-point' }
    expect(verdictOf({ ...point, readings })).toBe('within') // T
    expect(verdictOf({ ...point, readings: [...readings, { ramp_mA: 6, waveform: 'dc' }] })).toBe('close') // T
  })
})

describe('worked values of insulation', () => {
  it('calls 900 Mohm at 500 V within', () => {
    const input = { vocStc_V: 294.8, school: 'fixed', readings_Mohm: [900] }
    expect(calc('insulation-dc', input).out).toMatchObject({ testVoltage_V: 500, verdict: 'within' }) // T
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
