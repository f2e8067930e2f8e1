import { describe, expect, it } from 'vitest'
import { calc } from '../support/calc'

/** The AC side and earth on the command line, to the letter; each figure from the rule or table named beside it. */
const answers = (name: string, input: unknown) => calc(name, input).out

const near = (value: number, places = 3): unknown => expect.closeTo(value, places)

describe('max-zs', () => {
  it('agrees with the printed table of breakers, BS 7671:2018 table 41.3 (from memory)', () => {
    const rows = [
      ['B', 6, 7.28],
      ['B', 16, 2.73],
      ['B', 32, 1.37],
      ['B', 40, 1.09],
      ['C', 16, 1.37],
      ['C', 32, 0.68],
      ['D', 32, 0.34],
    ] as const
    const out = answers(
      'max-zs',
      rows.map(([device, rating_A]) => ({ device, rating_A })),
    ) as { limit_ohm: number }[]
    expect(out.map((one) => Number(one.limit_ohm.toFixed(2)))).toEqual(rows.map((row) => row[2]))
  })

  it('gives the fuse rows of table 41.2 as printed (from memory)', () => {
    const rows = { 6: 7.8, 10: 4.65, 16: 2.43, 20: 1.68, 25: 1.29, 32: 0.99 }
    const out = answers(
      'max-zs',
      Object.keys(rows).map((rating) => ({ device: 'gG', rating_A: Number(rating) })),
    )
    expect(out).toEqual(
      Object.values(rows).map((limit_ohm) => expect.objectContaining({ limit_ohm: near(limit_ohm, 9) })),
    )
  })

  it('takes four fifths of the unrounded limit: 1.0925 ohm for a B32', () => {
    expect(answers('max-zs', { device: 'B', rating_A: 32 })).toMatchObject({
      limit_ohm: near(1.365625, 9),
      limit80_ohm: near(1.0925, 9),
    })
  })

  it('follows the voltage and the factor: two thirds of 230 V over 160 A (IEC 60364-6 annex D, from memory)', () => {
    const out = answers('max-zs', [
      { device: 'B', rating_A: 32, voltageFactor: 2 / 3 },
      { device: 'C', rating_A: 10, nominalVoltage_V: 120 },
      { device: 'gG', rating_A: 10, nominalVoltage_V: 115 },
    ])
    expect(out).toMatchObject([
      { limit_ohm: near((2 / 3) * (230 / 160), 9) },
      { limit_ohm: near(1.14, 9) },
      { limit_ohm: near(2.325, 9) },
    ])
  })
})

describe('fault-current', () => {
  it('gives the higher of earth fault and short circuit for one phase, and no three-phase current', () => {
    const input = { lineEarth_ohm: 0.23, lineNeutral_ohm: 0.25, phases: 1, nominalVoltage_V: 230 }
    expect(answers('fault-current', input)).toMatchObject({
      pefc_A: near(1000),
      pscc_A: near(920),
      ipf_A: near(1000),
      threePhase_A: null,
      lineLine_A: null,
    })
  })

  it('gives twice and root three times the line-neutral current for three phases; the highest can flow', () => {
    const input = { lineEarth_ohm: 0.2, lineNeutral_ohm: 0.1, phases: 3, nominalVoltage_V: 230 }
    expect(answers('fault-current', input)).toMatchObject({
      pefc_A: near(1150),
      pscc_A: near(2300),
      threePhase_A: near(4600),
      lineLine_A: near(3983.717),
      ipf_A: near(4600),
    })
  })
})

describe('r1r2', () => {
  it('adds the metre resistances of IEC 60228 class 2 (from memory), cold or at 70 degC', () => {
    const path = { line_mm2: 2.5, protective_mm2: 1.5, length_m: 20 }
    expect(answers('r1r2', [path, { ...path, atOperatingTemperature: true }])).toMatchObject([
      { r1r2_ohm: near(0.3902, 9) },
      { r1r2_ohm: near(0.46824, 9) },
    ])
  })
})

describe('electrode', () => {
  it('takes mean and spread of three readings: 18.1 ohm, 3.3 % (common practice)', () => {
    const input = { readings_ohm: [18.3, 17.7, 18.3], method: 'three-lead', ratedResidualCurrents_mA: [30, 100] }
    expect(answers('electrode', input)).toMatchObject({
      mean_ohm: near(18.1),
      spread_pct: near(3.3149),
      limits: [
        { ratedResidualCurrent_mA: 30, limit_ohm: 1667 },
        { ratedResidualCurrent_mA: 100, limit_ohm: 500 },
      ],
      verdict: 'within',
    })
  })

  it('takes a long lead off the loop method: 96 less 2 is 94 ohm (common practice)', () => {
    const input = { readings_ohm: [96], leads_ohm: 2, method: 'loop', ratedResidualCurrents_mA: [30] }
    expect(answers('electrode', input)).toMatchObject({ mean_ohm: 94, spread_pct: null, verdict: 'within' })
  })

  it('passes the table of BS 7671 41.5 as printed (from memory), and 50 V over the current elsewhere', () => {
    const at = (read: number, rated: number) => ({
      readings_ohm: [read],
      method: 'loop',
      ratedResidualCurrents_mA: [rated],
    })
    const cases = [at(1667, 30), at(1667.1, 30), at(500, 100), at(167, 300), at(100, 500), at(5000, 10), at(5000.1, 10)]
    expect((answers('electrode', cases) as { verdict: string }[]).map((one) => one.verdict)).toEqual([
      'close',
      'outside',
      'close',
      'close',
      'close',
      'close',
      'outside',
    ])
  })

  it('says close for one spike place, not yet for readings far apart or no device', () => {
    const base = { method: 'three-lead', ratedResidualCurrents_mA: [30] }
    const out = answers('electrode', [
      { ...base, readings_ohm: [40] },
      { ...base, readings_ohm: [40, 44, 47] },
      { ...base, readings_ohm: [40, 40.4, 40.8], ratedResidualCurrents_mA: [] },
      { ...base, readings_ohm: [2400, 2600] },
    ])
    expect(out).toMatchObject([
      { verdict: 'close', findings: ['single-reading'] },
      { verdict: 'not-yet', findings: ['spread-wide'] },
      { verdict: 'not-yet', findings: ['no-device'] },
      { verdict: 'outside' },
    ])
  })
})

describe('rods', () => {
  const rod = { resistivity_ohm_m: 100, length_m: 3, diameter_m: 0.016, spacing_m: 3 }
  it('gives one rod by Dwight (33.5 ohm, worked by hand) and two in line by BS 7430 (from memory)', () => {
    // ln(8*3/0.016) - 1 = 6.3132; 100/(2 pi 3) = 5.3052; 33.493. a = 100/(2 pi 33.493 3) = 0.15840; (1 + a)/2.
    const out = answers('rods', [
      { ...rod, count: 1 },
      { ...rod, count: 2 },
      { ...rod, count: 10 },
    ])
    expect(out).toMatchObject([
      { single_ohm: near(33.493, 2), combined_ohm: near(33.493, 2), rodsNeeded: null },
      { combined_ohm: near(19.399, 2) },
      { combined_ohm: near(3.3493 * (1 + 3.81 * 0.1584), 2) },
    ])
  })

  it('says how many rods reach a target, and null where ten do not', () => {
    const out = answers('rods', [
      { ...rod, count: 1, target_ohm: 20 },
      { ...rod, count: 1, target_ohm: 40 },
      { ...rod, count: 1, target_ohm: 2 },
    ])
    expect(out).toMatchObject([{ rodsNeeded: 2 }, { rodsNeeded: 1 }, { rodsNeeded: null }])
  })
})

describe('rcd-verdict', () => {
  const device = {
    type: 'A',
    kind: 'general',
    ratedResidualCurrent_mA: 30,
    standard: 'BS EN 61008',
    regime: 'bs7671-a2',
  }
  const at = (multiple: number, angle_deg: number, time_ms: number | string) => ({ multiple, angle_deg, time_ms })

  it('finds the times of a sound device within (common practice)', () => {
    const readings = [at(1, 0, 37.2), at(1, 180, 29.3), at(5, 0, 14.1), at(5, 180, 8.4)]
    expect(answers('rcd-verdict', { ...device, readings })).toMatchObject({ verdict: 'within', recorded_ms: 37.2 })
    const classic = { ...device, regime: 'bs7671-three-multiple' }
    expect(answers('rcd-verdict', { ...classic, readings })).toMatchObject({ verdict: 'not-yet', recorded_ms: 14.1 })
    const all = [at(0.5, 0, '>2000'), at(0.5, 180, '>2000'), ...readings]
    expect(answers('rcd-verdict', { ...classic, readings: all })).toMatchObject({
      verdict: 'within',
      recorded_ms: 14.1,
    })
  })

  it('judges a charge point’s ramps: 21.5 mA AC within, 6 mA DC exactly on the limit, 2.4 mA too sensitive', () => {
    const point = { ...device, place: 'charge-point' }
    const times = [at(1, 0, 151.6), at(1, 180, 140.3), at(5, 0, 25.2), at(5, 180, 24.7), { ramp_mA: 21.5 }]
    const out = answers('rcd-verdict', [
      { ...point, readings: times },
      { ...point, readings: [...times, { ramp_mA: 6, waveform: 'dc' }] },
      { ...point, readings: [{ ramp_mA: 2.4, waveform: 'dc' }] },
      { ...point, readings: [{ ramp_mA: 7.5, waveform: 'pulsating' }] },
    ])
    expect((out as { verdict: string }[]).map((one) => one.verdict)).toEqual(['within', 'close', 'outside', 'not-yet'])
    expect((out as { findings: { code: string }[] }[])[3]!.findings[0]!.code).toBe('detector-tripped-first')
  })

  it('takes the bands of selective devices, the older standard and both half-multiple schools', () => {
    const one = (rest: object, time: ReturnType<typeof at>) => ({ ...device, ...rest, readings: [time] })
    const selective = { kind: 'selective', ratedResidualCurrent_mA: 100 }
    const out = answers('rcd-verdict', [
      one(selective, at(1, 0, 129)),
      one(selective, at(1, 0, 310)),
      one(selective, at(5, 0, 49)),
      one({ standard: 'BS 4293' }, at(1, 0, 250)),
      one({}, at(1, 0, 250)),
      one({}, at(2, 0, 151)),
      one({}, at(1, 0, '>2000')),
      one({}, at(0.5, 0, '>1999')),
      one({}, at(0.5, 0, '>300')),
      one({}, at(0.5, 0, 640)),
    ])
    expect(
      (out as { verdict: string; findings: { verdict: string }[] }[]).map((each) => each.findings[0]!.verdict),
    ).toEqual([
      'outside',
      'within',
      'outside',
      'outside',
      'within',
      'outside',
      'outside',
      'within',
      'not-yet',
      'outside',
    ])
    // Half the rated current by itself proves nothing.
    expect((out as { verdict: string }[])[7]!.verdict).toBe('not-yet')
  })

  it('names what the school asks for and nobody read', () => {
    const { findings } = answers('rcd-verdict', {
      ...device,
      regime: 'bs7671-three-multiple',
      readings: [at(0.5, 0, '>2000'), at(1, 0, 30)],
    }) as { findings: { code: string; figures: object }[] }
    expect(findings.filter((one) => one.code === 'trip-wanting').map((one) => one.figures)).toEqual([
      { multiple: 0.5, angle_deg: 180 },
      { multiple: 1, angle_deg: 180 },
      { multiple: 5, angle_deg: 0 },
      { multiple: 5, angle_deg: 180 },
    ])
  })
})

describe('insulation-verdict', () => {
  const circuit = { nominalVoltage_V: 230, surgeProtection: false, devicesOn: true }
  it('gives voltage, least, the lowest and the verdict (BS 7671 643.3, from memory)', () => {
    const out = answers('insulation-verdict', [
      { ...circuit, pairs: { 'L-N': '>999', 'L-PE': 640, 'N-PE': 700 } },
      { ...circuit, pairs: { 'L-N': 1.4, 'L-PE': 640 } },
      { ...circuit, pairs: { 'L-PE': 0.02 } },
      { ...circuit, pairs: { 'L-N': '>999', 'L-PE': '>999', 'N-PE': '>999' }, devicesOn: false },
      { ...circuit, pairs: { 'L-N': 50, 'L-PE': 40, 'N-PE': 60 }, surgeProtection: true },
      { ...circuit, pairs: { 'L-N': 0.6, 'L-PE': 5, 'N-PE': 5 }, nominalVoltage_V: 24 },
      { ...circuit, pairs: [{ pair: 'L1-L2', riso_Mohm: 300 }], nominalVoltage_V: 690 },
      { ...circuit, pairs: {} },
    ])
    // Pairs that were not read leave it open; what is outside is outside by one of them.
    expect(out).toMatchObject([
      {
        testVoltage_V: 500,
        minimum_Mohm: 1,
        lowest: 640,
        lowestLiveLive: '>999',
        lowestLiveEarth: 640,
        verdict: 'within',
      },
      { lowest: 1.4, verdict: 'not-yet' },
      { lowest: 0.02, verdict: 'outside' },
      { lowest: '>999', verdict: 'not-yet', findings: ['perfect-on-open-ends'] },
      { testVoltage_V: 250, minimum_Mohm: 1, lowest: 40, verdict: 'within' },
      { testVoltage_V: 250, minimum_Mohm: 0.5, verdict: 'close' },
      { testVoltage_V: 1000, minimum_Mohm: 1, lowest: 300, verdict: 'not-yet' },
      { lowest: null, verdict: 'not-yet' },
    ])
  })
})

describe('bad input', () => {
  const rcd = { type: 'A', kind: 'general', ratedResidualCurrent_mA: 30, standard: '61008', regime: 'bs7671-a2' }
  it.each([
    ['max-zs', { device: 'gG', rating_A: 11 }, 'rating_A'],
    ['max-zs', { device: 'K', rating_A: 16 }, 'device'],
    ['fault-current', { lineEarth_ohm: 0, lineNeutral_ohm: 1, phases: 1, nominalVoltage_V: 230 }, 'lineEarth_ohm'],
    ['fault-current', { lineEarth_ohm: 1, lineNeutral_ohm: 1, phases: 2, nominalVoltage_V: 230 }, 'phases'],
    ['r1r2', { line_mm2: 3, protective_mm2: 1.5, length_m: 1 }, 'line_mm2'],
    ['electrode', { readings_ohm: [], method: 'loop', ratedResidualCurrents_mA: [30] }, 'readings_ohm'],
    ['electrode', { readings_ohm: [1], leads_ohm: 2, method: 'loop', ratedResidualCurrents_mA: [30] }, 'readings_ohm'],
    ['rods', { resistivity_ohm_m: 100, length_m: 3, diameter_m: 16, count: 1, spacing_m: 3 }, 'diameter_m'],
    ['rods', { resistivity_ohm_m: 100, length_m: 3, diameter_m: 0.016, count: 11, spacing_m: 3 }, 'count'],
    ['rcd-verdict', { ...rcd, readings: [{ multiple: 1, time_ms: 0 }] }, 'readings'],
    ['rcd-verdict', { ...rcd, readings: [{ multiple: 3, time_ms: 10 }] }, 'readings'],
    ['rcd-verdict', { ...rcd, readings: [{ time_ms: 10 }] }, 'readings'],
    ['rcd-verdict', { ...rcd, readings: [], standard: 'none' }, 'standard'],
    ['rcd-verdict', { ...rcd, readings: [], regime: 'house' }, 'regime'],
    [
      'insulation-verdict',
      { nominalVoltage_V: 230, pairs: { 'A-B': 1 }, surgeProtection: false, devicesOn: true },
      'pairs',
    ],
    [
      'insulation-verdict',
      { nominalVoltage_V: 230, pairs: { 'L-N': -1 }, surgeProtection: false, devicesOn: true },
      'pairs',
    ],
  ])('%s refuses %j', (name, input, where) => {
    const { status, stdout, problem } = calc(name, input)
    expect(status).toBe(2)
    expect(stdout).toBe('')
    expect(problem.errors[0].path[0]).toBe(where)
  })
})
