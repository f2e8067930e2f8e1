import { describe, expect, it } from 'vitest'
import { calc } from '../support/calc'

const group = {
  photocurrent_A: 9,
  saturationCurrent_A: 1e-10,
  modifiedIdeality_V: 0.5,
  seriesResistance_ohm: 0.1,
  shuntResistance_ohm: 100,
  bypass: { kind: 'diode', saturationCurrent_A: 1e-7, slope_V: 0.03 },
}
const module = (rest: object = {}) => ({ reversed: false, groups: [group, { ...group, ...rest }, group] })
const string = (...modules: object[]) => ({ seriesResistance_ohm: 0.2, modules })

/** string-curve and iv-translate to the letter; the curves themselves are compared in stringCurve.test.ts. */
describe('string-curve', () => {
  it('gives currents in the order of the voltages, and every point that is named', () => {
    const voltages_V = [20, 0, 40, 10]
    const { out } = calc('string-curve', { strings: [string(module({ photocurrent_A: 4 }))], voltages_V })
    expect(Object.keys(out).sort()).toEqual(
      ['currents_A', 'fillFactor', 'imp_A', 'isc_A', 'maxima', 'pmax_W', 'vmp_V', 'voc_V'].sort(),
    )
    expect(out.currents_A).toHaveLength(4)
    expect(out.currents_A[1]).toBeCloseTo(out.isc_A, 9)
    // More voltage, less current; beyond open circuit it is negative.
    expect(out.currents_A[1]).toBeGreaterThan(out.currents_A[3])
    expect(out.currents_A[2]).toBeLessThan(0)
    expect(out.maxima).toHaveLength(2)
    expect(Object.keys(out.maxima[0]).sort()).toEqual(['current_A', 'power_W', 'voltage_V'])
    expect(out.fillFactor).toBeCloseTo(out.pmax_W / (out.voc_V * out.isc_A), 12)
  })

  it('takes many cases at once, and gives each what it gives it alone', () => {
    const cases = [
      { strings: [string(module(), module())], voltages_V: [5] },
      { strings: [string(module(), { ...module(), reversed: true }, module())], voltages_V: [5] },
    ]
    expect(calc('string-curve', cases).out).toEqual(cases.map((one) => calc('string-curve', one).out))
  })

  it.each([
    [{ strings: [], voltages_V: [1] }, 'strings', 'at least 1'],
    [{ strings: [string()], voltages_V: [] }, 'modules', 'at least 1'],
    [
      { strings: [string(module({ bypass: { kind: 'wire' } }))], voltages_V: [] },
      'kind',
      '"diode" or "short" or "open"',
    ],
    [{ strings: [string(module({ photocurrent_A: -1 }))], voltages_V: [] }, 'photocurrent_A', 'at least 0'],
    [{ strings: [string(module({ shade: 1 }))], voltages_V: [] }, 'shade', 'not known here'],
    [{ strings: [string(module())], voltages_V: ['5'] }, '"5"', 'a number'],
  ])('refuses %j', (input, where, may) => {
    const { status, stdout, problem } = calc('string-curve', input)
    expect([status, stdout]).toEqual([2, ''])
    const said = problem.errors.map((one: { message: string }) => one.message).join('\n')
    expect(said).toContain(where)
    expect(said).toContain(may)
  })
})

describe('iv-translate', () => {
  const from = { irradiance_Wm2: 800, cellTemperature_C: 40 }
  const to = { irradiance_Wm2: 1000, cellTemperature_C: 25 }
  const one = { isc_A: 8, alpha_AperK: 0.004, beta_VperK: -0.12, seriesResistance_ohm: 0.5, kappa_ohmPerK: 0.002 }
  const two = {
    voc_V: 36,
    alphaRel_perK: 0.0005,
    betaRel_perK: -0.003,
    a: 0.06,
    seriesResistance_ohm: 0.5,
    kappa_ohmPerK: 0.002,
  }
  const points = [
    [30, 6],
    [0, 8],
  ]

  it('carries each point by IEC 60891:2009 procedure 1 and 2 (from memory), in their order', () => {
    const { out } = calc('iv-translate', [
      { points, procedure: 1, from, to, parameters: one },
      { points, procedure: 2, from, to, parameters: two },
    ])
    // Worked by hand from the two formulas.
    expect(out[0].points).toEqual([
      [expect.closeTo(31.0682, 9), expect.closeTo(7.94, 9)],
      [expect.closeTo(0 - 0.5 * 1.94 + 0.03 * 9.94 + 1.8, 9), expect.closeTo(9.94, 9)],
    ])
    const raised = 36 * (0.045 + 0.06 * Math.log(1.25))
    expect(out[1].points).toEqual([
      [expect.closeTo(30 + raised - 0.721875 + 0.2233125, 9), expect.closeTo(7.44375, 9)],
      [expect.closeTo(raised - 0.5 * 1.925 + 0.03 * 9.925, 9), expect.closeTo(9.925, 9)],
    ])
  })

  it.each([
    [{ points, procedure: 3, from, to, parameters: one }, 'procedure is 3; it may be: 1 or 2'],
    [{ points, procedure: 1, from, to, parameters: two }, 'isc_A is nothing; it may be: a number'],
    [{ points: [], procedure: 1, from, to, parameters: one }, 'at least 1'],
    [
      { points, procedure: 2, from: { ...from, irradiance_Wm2: 0 }, to, parameters: two },
      'irradiance_Wm2 is 0; it may be: at least 1',
    ],
  ])('refuses %j', (input, message) => {
    const { status, problem } = calc('iv-translate', input)
    expect(status).toBe(2)
    expect(problem.errors.map((error: { message: string }) => error.message).join('\n')).toContain(message)
  })
})

describe('iv-features and iv-fit', () => {
  const diode = {
    photocurrent_A: 9.6,
    saturationCurrent_A: 2.1e-10,
    seriesResistance_ohm: 2.4,
    shuntResistance_ohm: 3900,
    modifiedIdeality_V: 16.5,
  }
  const voltages_V = Array.from({ length: 160 }, (_, k) => k * 2.54)
  const whole = calc('single-diode', { ...diode, voltages_V }).out
  const points = voltages_V.map((voltage, k) => [voltage, whole.currents_A[k]])

  it('name what single-diode computed', () => {
    const { out } = calc('iv-features', { points })
    for (const name of ['voc_V', 'isc_A', 'pmax_W']) expect(Math.abs(out[name] / whole[name] - 1)).toBeLessThan(1e-4)
    expect(out.fillFactor).toBeCloseTo(out.pmax_W / (out.voc_V * out.isc_A), 12)
    expect(Math.abs(out.slopeAtIsc_S * diode.shuntResistance_ohm - 1)).toBeLessThan(0.02)
    expect(out.slopeAtVoc_ohm).toBeGreaterThan(diode.seriesResistance_ohm)
    expect(out.steps).toEqual([])
    const { out: fit } = calc('iv-fit', { points })
    for (const [name, value] of Object.entries(diode)) {
      expect(fit[name].value / value).toBeCloseTo(1, 5)
      expect(Object.keys(fit[name]).sort()).toEqual(['high', 'low', 'value'])
    }
  })

  it('names the ledge of a string with a cell group in shade', () => {
    const strings = [string(module(), module(), module({ photocurrent_A: 4 }), module(), module())]
    const volts = Array.from({ length: 200 }, (_, k) => k * 0.96)
    const { out: shaded } = calc('string-curve', { strings, voltages_V: volts })
    const { out } = calc('iv-features', { points: volts.map((voltage, k) => [voltage, shaded.currents_A[k]]) })
    expect(out.steps).toEqual([
      { voltage_V: expect.any(Number), width_V: expect.any(Number), drop_A: expect.any(Number) },
    ])
    expect(Math.abs(out.steps[0].drop_A / 5 - 1)).toBeLessThan(0.05)
  })

  it.each([
    ['iv-features', { points: [[30, 6]] }, 'at least 5 points'],
    ['iv-features', { points: points.map(([voltage, current]) => [-voltage!, current]) }, 'leads were crossed'],
    ['iv-features', { points: points.map(([voltage]) => [voltage, 0]) }, 'Every point is zero'],
    ['iv-fit', { points: points.slice(0, 40) }, 'up to open circuit'],
    ['iv-fit', { points, sigma_A: 0 }, 'sigma_A is 0'],
    ['iv-fit', { points, scatter: 1 }, 'not known here'],
  ])('%s refuses bad points', (name, input, message) => {
    const { status, stdout, problem } = calc(name, input)
    expect([status, stdout]).toEqual([2, ''])
    expect(problem.errors.map((error: { message: string }) => error.message).join('\n')).toContain(message)
  })
})

describe('iv-causes', () => {
  const plate = {
    pmax_W: 282,
    voc_V: 37.4,
    isc_A: 9.6,
    vmp_V: 31,
    imp_A: 9.1,
    alpha_pctPerK: 0.05,
    beta_pctPerK: -0.31,
    gamma_pctPerK: -0.4,
    cellsInSeries: 60,
  }
  const five = calc('desoto-fit', { module: plate }).out
  const own = {
    photocurrent_A: five.photocurrent_A,
    saturationCurrent_A: five.saturationCurrent_A,
    modifiedIdeality_V: five.modifiedIdeality_V / 3,
    seriesResistance_ohm: five.seriesResistance_ohm / 3,
    shuntResistance_ohm: five.shuntResistance_ohm / 3,
    bypass: { kind: 'diode', saturationCurrent_A: 3e-7, slope_V: 0.03 },
  }
  const dim = { ...own, photocurrent_A: 0.5 * own.photocurrent_A }
  const modules = Array.from({ length: 10 }, (_, k) => ({
    reversed: false,
    groups: k === 0 ? [dim, dim, own] : [own, own, own],
  }))
  const voltages_V = Array.from({ length: 120 }, (_, k) => k * 3.13)
  const { currents_A } = calc('string-curve', { strings: [{ seriesResistance_ohm: 0, modules }], voltages_V }).out
  const points = voltages_V.map((voltage, k) => [voltage, currents_A[k]])
  const input = { points, module: plate, modulesInSeries: 10, irradiance_Wm2: 1000, cellTemperature_C: 25 }

  it('names two cell groups at half the light, for sure', () => {
    const { out } = calc('iv-causes', input)
    expect([out.sound, out.canTell]).toEqual([false, true])
    expect(out.causes[0]).toMatchObject({ id: 'shade', figures: { count: 2 }, behind_sigma: 0 })
    expect(out.causes[0].figures.light_pct).toBeCloseTo(50, 0)
    expect(out.causes.map((one: { id: string }) => one.id)).toContain('sound')
  })

  it.each([
    [{ ...input, points: points.slice(0, 30) }, 'up to open circuit'],
    [{ ...input, modulesInSeries: 0 }, 'modulesInSeries is 0'],
    [{ ...input, irradiance_Wm2: 0 }, 'irradiance_Wm2 is 0'],
    [{ ...input, module: { ...plate, vmp_V: 40 } }, 'Vmp is below Voc'],
  ])('refuses what cannot be explained', (bad, message) => {
    const { status, problem } = calc('iv-causes', bad)
    expect(status).toBe(2)
    expect(problem.errors.map((error: { message: string }) => error.message).join('\n')).toContain(message)
  })
})
