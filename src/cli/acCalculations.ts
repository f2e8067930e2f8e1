/** Calculations of earth and the AC side on the command line: loops, fault currents, conductors, insulation. */
import { z } from 'zod'
import { conductor_mohmPerM, crossSections_mm2, r1r2_ohm } from '../core/circuit/conductors'
import { acInsulationTest, judgePairs, pairsOf } from '../core/circuit/insulation'
import { faultCurrents } from '../core/loop/faultCurrent'
import { CMIN, deviceTypes, fuseRatings_A, maxZs_ohm, NOMINAL_V } from '../core/loop/maxZs'
import { sources } from '../core/regime/sources'
import { boundOf, boundSchema } from './bound'
import { CalcProblem } from './problem'

const nominalVoltage_V = z.number().positive().max(1000)
const impedance_ohm = z.number().positive('an impedance is above nought').max(1e6)

export const maxZsSchema = z.strictObject({
  device: z.enum(deviceTypes),
  rating_A: z.number().positive().max(2000),
  nominalVoltage_V: nominalVoltage_V.default(NOMINAL_V),
  /** Cmin, or two thirds under IEC 60364-6. */
  voltageFactor: z.number().positive().max(1.1).default(CMIN),
})

/** What is measured cold stays under this share of the limit. Source: guidance to BS 7671, common practice. */
const COLD_SHARE = 0.8

export function maxZs(input: z.infer<typeof maxZsSchema>) {
  const { device, rating_A, nominalVoltage_V: nominal_V, voltageFactor } = input
  const limit_ohm = maxZs_ohm(device, rating_A, { nominal_V, voltageFactor })
  if (limit_ohm === null) {
    const message = `the table has fuses of ${fuseRatings_A.join(', ')} A only`
    throw new CalcProblem([{ path: ['rating_A'], message }])
  }
  return { limit_ohm, limit80_ohm: COLD_SHARE * limit_ohm, sources: [sources['bs7671-zs']] }
}

export const faultCurrentSchema = z.strictObject({
  lineEarth_ohm: impedance_ohm,
  lineNeutral_ohm: impedance_ohm,
  phases: z.literal([1, 3], 'one phase or three: 1 or 3'),
  nominalVoltage_V,
})

export function faultCurrent({ nominalVoltage_V: nominal_V, ...loops }: z.infer<typeof faultCurrentSchema>) {
  return { ...faultCurrents({ ...loops, nominal_V }), sources: [sources['bs7671-fault-current']] }
}

const area_mm2 = z.number().refine((area) => conductor_mohmPerM(area) !== null, {
  message: `the table has ${crossSections_mm2.join(', ')} mm2 only`,
})

export const r1r2Schema = z.strictObject({
  line_mm2: area_mm2,
  protective_mm2: area_mm2,
  length_m: z.number().min(0).max(10_000),
  atOperatingTemperature: z.boolean().default(false),
})

export const r1r2 = ({ atOperatingTemperature, ...path }: z.infer<typeof r1r2Schema>) => ({
  r1r2_ohm: r1r2_ohm(path, atOperatingTemperature),
  sources: [sources['iec-60228']],
})

const PAIRS = ['L-N', 'L-PE', 'N-PE', 'L+N-PE', ...pairsOf[3].filter((pair) => pair !== 'N-PE')]
const pairName = z
  .string()
  .refine((pair) => PAIRS.includes(pair), { error: `a pair of two conductors, one of ${PAIRS.join(', ')}` })

export const insulationVerdictSchema = z.strictObject({
  nominalVoltage_V,
  /** Readings in Mohm by pair. */
  pairs: z.union([
    z.record(pairName, boundSchema),
    z.array(z.strictObject({ pair: pairName, riso_Mohm: boundSchema })).max(40),
  ]),
  /** Surge protection stays in circuit: the test is made at 250 V. */
  surgeProtection: z.boolean(),
  /** Every breaker and switch of the circuit stood on. */
  devicesOn: z.boolean(),
})

export function insulationVerdict(input: z.infer<typeof insulationVerdictSchema>) {
  const listed = Array.isArray(input.pairs)
    ? input.pairs.map(({ pair, riso_Mohm }) => [pair, riso_Mohm] as const)
    : Object.entries(input.pairs)
  const twice = listed.findIndex(([pair], k) => listed.findIndex(([other]) => other === pair) !== k)
  if (twice >= 0)
    throw new CalcProblem([{ path: ['pairs', twice, 'pair'], message: 'this pair stands above already: give it once' }])
  const test = acInsulationTest(input.nominalVoltage_V, input.surgeProtection)
  const pairs = Object.fromEntries(listed.map(([pair, read]) => [pair, boundOf(read)]))
  const judged = judgePairs(pairs, test.minimum_Mohm, input.devicesOn)
  return {
    ...test,
    lowest: judged.lowest?.read ?? null,
    lowestLiveLive: judged.lowestLiveLive?.read ?? null,
    lowestLiveEarth: judged.lowestLiveEarth?.read ?? null,
    verdict: judged.verdict,
    findings: [
      ...(judged.perfectOnOpenEnds ? ['perfect-on-open-ends'] : []),
      ...judged.wanting.map((pair) => `wanting ${pair}`),
    ],
    sources: [sources['bs7671-insulation']],
  }
}
