import { describe, expect, it } from 'vitest'
import { calc } from '../support/calc'

/** insulation-dc, earth-fault and ratings to the letter; figures worked by hand from the rule named beside each. */
describe('insulation-dc', () => {
  const cases = [
    // IEC 62446-1 table 2 (from memory): 1.25 * 299.2 = 374 V, so 500 V and 1 Mohm.
    { vocStc_V: 299.2, school: 'table', readings_Mohm: [640, 810, 870] },
    { vocStc_V: 90, school: 'table', readings_Mohm: [0.9] },
    { vocStc_V: 500, school: 'table', readings_Mohm: ['>999', '>999'] },
    { vocStc_V: 900, school: 'table', readings_Mohm: [0.4, 300] },
    { vocStc_V: 90, school: 'fixed', readings_Mohm: [1.5] },
    // Twice 248 V is 496 V, so the step of 500 V (common practice).
    { vocStc_V: 299.2, school: 'twice', workingVoltage_V: 248, readings_Mohm: [870] },
    { vocStc_V: 700, school: 'table', maxSystemVoltage_V: 800, readings_Mohm: [] },
  ]
  it('gives voltage, least, the lowest and the verdict', () => {
    expect(calc('insulation-dc', cases).out).toMatchObject([
      { testVoltage_V: 500, minimum_Mohm: 1, value: 640, verdict: 'within' },
      { testVoltage_V: 250, minimum_Mohm: 0.5, value: 0.9, verdict: 'close' },
      { testVoltage_V: 1000, minimum_Mohm: 1, value: '>999', verdict: 'within' },
      { testVoltage_V: 1500, minimum_Mohm: 1, value: 0.4, verdict: 'outside' },
      { testVoltage_V: 500, minimum_Mohm: 1, value: 1.5, verdict: 'close' },
      { testVoltage_V: 500, minimum_Mohm: 1, value: 870, verdict: 'within' },
      { testVoltage_V: 500, minimum_Mohm: 1, value: null, verdict: 'not-yet' },
    ])
  })

  it.each([
    [{ vocStc_V: 300, school: 'twice', readings_Mohm: [9] }, 'workingVoltage_V'],
    [{ vocStc_V: 300, school: 'table', readings_Mohm: [-1] }, 'readings_Mohm'],
    [{ vocStc_V: 300, school: 'table', readings_Mohm: ['high'] }, 'readings_Mohm'],
    [{ vocStc_V: 300, school: 'table', maxSystemVoltage_V: 100, readings_Mohm: [] }, 'maxSystemVoltage_V'],
    [{ vocStc_V: 300, school: 'best', readings_Mohm: [] }, 'school'],
  ])('refuses %j', (input, where) => {
    const { status, stdout, problem } = calc('insulation-dc', input)
    expect(status).toBe(2)
    expect(stdout).toBe('')
    expect(problem.errors[0].path[0]).toBe(where)
  })
})

describe('earth-fault', () => {
  const input = {
    voc_V: 400,
    positiveToEarth_V: 100,
    negativeToEarth_V: 200,
    meterResistance_ohm: 1e7,
    modulesInSeries: 12,
  }

  it('names the place from the positive end, and the resistance', () => {
    const { out } = calc('earth-fault', input)
    expect(out.fraction).toBeCloseTo(1 / 3, 12)
    expect(out.afterModule).toBe(4)
    // x = V+/(V+ + V-); Rf = Rm (Voc/(V+ + V-) - 1) = 1e7 * (400/300 - 1)
    expect(out.faultResistance_ohm).toBeCloseTo(1e7 / 3, 4)
  })

  it('is clean below 2 % of Voc, and refuses more than Voc', () => {
    expect(calc('earth-fault', { ...input, positiveToEarth_V: 3, negativeToEarth_V: 4 }).out).toEqual({
      fraction: null,
      afterModule: null,
      faultResistance_ohm: null,
    })
    expect(calc('earth-fault', { ...input, positiveToEarth_V: 300, negativeToEarth_V: 200 }).status).toBe(2)
  })
})

describe('ratings', () => {
  const module = {
    pmax_W: 405,
    voc_V: 37,
    isc_A: 14,
    vmp_V: 31,
    imp_A: 13.06,
    alpha_pctPerK: 0.046,
    beta_pctPerK: -0.26,
    gamma_pctPerK: -0.34,
    cellsInSeries: 54,
    maxSystemVoltage_V: 1000,
    maxSeriesFuse_A: 25,
  }
  const input = {
    module,
    modulesInSeries: 20,
    stringsInParallel: 1,
    lowestTemperature_C: -10,
    highestCellTemperature_C: 70,
    inverter: { maxInput_V: 800, trackerMin_V: 200, trackerMax_V: 700, maxShortCircuit_A: 20 },
    switch: { ratedVoltage_V: 1000, rating_A: 16 },
    fuse: null,
  }
  const check = (change: object, id: string) =>
    calc('ratings', { ...input, ...change }).out.checks.find((one: { id: string }) => one.id === id)

  it('takes the highest voltage by each school', () => {
    // 20 * 37 * (1 - 0.0026 * -35); the table has 1.14 for -10 degC; flat is 1.15.
    expect(check({}, 'voc-cold-inverter').value).toBeCloseTo(807.34, 6)
    expect(check({}, 'voc-cold-inverter')).toMatchObject({ limit: 800, verdict: 'outside' })
    expect(check({ school: 'table' }, 'voc-cold-module').value).toBeCloseTo(843.6, 6)
    expect(check({ school: 'flat' }, 'voc-cold-switch').value).toBeCloseTo(851, 6)
  })

  it('14 A gives 17.5 A: a 16 A switch is outside (handbook 17, common practice)', () => {
    expect(check({}, 'isc-switch')).toMatchObject({ value: 17.5, limit: 16, verdict: 'outside' })
  })

  it('says that fuses are needed, and which', () => {
    // (3 - 1) * 1.25 * 14 = 35 A is above the module's 25 A; then 21 A to 25 A.
    expect(check({ stringsInParallel: 3 }, 'fuse-needed')).toMatchObject({ value: 35, limit: 25, verdict: 'outside' })
    const fuse = { ratedVoltage_V: 1000, rating_A: 25 }
    expect(check({ stringsInParallel: 3, fuse }, 'fuse-range')).toMatchObject({ value: 25, verdict: 'close' })
  })

  it('needs no beta under the table, and does under beta', () => {
    const { beta_pctPerK: _, ...without } = module
    expect(check({ module: without, school: 'table' }, 'voc-cold-module').value).toBeCloseTo(843.6, 6)
    expect(calc('ratings', { ...input, module: without }).status).toBe(2)
  })

  it('takes null for what is not there', () => {
    const { out } = calc('ratings', { ...input, inverter: null, switch: null })
    expect(out.checks.map((one: { id: string; verdict: string }) => `${one.id} ${one.verdict}`)).toEqual([
      'voc-cold-inverter not-yet',
      'voc-cold-switch not-yet',
      'voc-cold-module within',
      'vmp-cold-tracker not-yet',
      'vmp-hot-tracker not-yet',
      'isc-switch not-yet',
      'isc-inverter not-yet',
      'fuse-needed within',
      'fuse-range left-out',
    ])
  })
})
