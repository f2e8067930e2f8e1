/** The resistance of an earth electrode from its readings, and the limit that each residual current device sets. */
import { judge } from '../verdict/judge'
import { tooGood } from './rods'
import { type Verdict, worst } from '../verdict/verdict'

export const electrodeMethods = ['three-lead', 'loop'] as const
export type ElectrodeMethod = (typeof electrodeMethods)[number]

/** How the spread of readings at several spike places is taken. Source: handbook section 8. */
export const spreadSchools = ['range', 'deviation'] as const
export type SpreadSchool = (typeof spreadSchools)[number]
const DEVIATION_FACTOR = 1.2

export type Spread = { mean_ohm: number; spread_pct: number | null }

/**
 * Mean and spread of readings, after a lead's own resistance was taken off. One reading has no spread.
 * `range` is (max - min)/mean; `deviation` is 1.2 times the greatest deviation from the mean.
 *
 * @throws Error without readings.
 * @example meanAndSpread([16.1, 15.5, 16.1], 0, 'range') // mean 15.9, spread 3.77 %
 */
export function meanAndSpread(readings_ohm: readonly number[], leads_ohm: number, school: SpreadSchool): Spread {
  if (readings_ohm.length === 0) throw new Error('meanAndSpread: expected readings, got none')
  const own = readings_ohm.map((one) => one - leads_ohm)
  const mean_ohm = own.reduce((sum, one) => sum + one, 0) / own.length
  if (own.length === 1 || mean_ohm <= 0) return { mean_ohm, spread_pct: null }
  const [least, most] = [Math.min(...own), Math.max(...own)]
  const apart = school === 'range' ? most - least : DEVIATION_FACTOR * Math.max(most - mean_ohm, mean_ohm - least)
  return { mean_ohm, spread_pct: (100 * apart) / mean_ohm }
}

/** Limits as the table prints them; it passes as printed. Source: BS 7671:2018 table 41.5 (from memory). */
const printed_ohm: Readonly<Record<string, number>> = { '30': 1667, '100': 500, '300': 167, '500': 100 }
const PRINTED_FOR_V = 50

/**
 * Highest RA that a residual current device allows: touch voltage over rated residual current, as printed where the
 * table has it.
 * @example electrodeLimit_ohm(30, 50) // 1667
 */
export function electrodeLimit_ohm(rated_mA: number, touch_V: number): number {
  const row = touch_V === PRINTED_FOR_V ? printed_ohm[String(rated_mA)] : undefined
  return row ?? (1000 * touch_V) / rated_mA
}

export type ElectrodeAsk = {
  readings_ohm: readonly number[]
  /** What stands where it is not the mean of the readings: the true place of a curve. */
  value_ohm?: number | null
  /** One of its rods read alone, and how many there are. */
  single?: { read_ohm: number; count: number } | null
  leads_ohm: number
  method: ElectrodeMethod
  ratedResidualCurrents_mA: readonly number[]
  spreadSchool: SpreadSchool
  /** Limits of the regime. */
  touch_V: number
  spread_pct: number
  unstable_ohm: number
}

export type ElectrodeFinding =
  | 'spread-wide'
  | 'single-reading'
  | 'may-not-be-stable'
  | 'too-good'
  | 'no-device'
  | 'no-reading'

export type ElectrodeJudged = Spread & {
  limits: { ratedResidualCurrent_mA: number; limit_ohm: number; verdict: Verdict }[]
  verdict: Verdict
  findings: ElectrodeFinding[]
}

/**
 * The verdict on an electrode: against every device above it; a three-lead reading by itself is close for want of a
 * spread, as are several rods that read better than they could; readings too far apart decide nothing unless they are
 * all outside.
 *
 * @throws Error without readings.
 */
export function judgeElectrode(ask: ElectrodeAsk): ElectrodeJudged {
  const own = meanAndSpread(ask.readings_ohm, ask.leads_ohm, ask.spreadSchool)
  const spread = { ...own, mean_ohm: ask.value_ohm ?? own.mean_ohm }
  const limits = ask.ratedResidualCurrents_mA.map((rated) => {
    const limit_ohm = electrodeLimit_ohm(rated, ask.touch_V)
    const band = { low: null, high: limit_ohm, closeLow: null, closeHigh: ask.unstable_ohm }
    const { verdict } = judge({ value: spread.mean_ohm, bound: 'exact' }, band, 0)
    return { ratedResidualCurrent_mA: rated, limit_ohm, verdict }
  })
  const findings = findingsOf(ask, spread)
  const against = worst(limits.map((one) => one.verdict))
  return { ...spread, limits, findings, verdict: overall(against, findings) }
}

function findingsOf(ask: ElectrodeAsk, { mean_ohm, spread_pct }: Spread): ElectrodeFinding[] {
  const byProbes = ask.method === 'three-lead'
  return [
    ...(ask.ratedResidualCurrents_mA.length === 0 ? (['no-device'] as const) : []),
    ...(byProbes && ask.readings_ohm.length === 1 ? (['single-reading'] as const) : []),
    ...(byProbes && spread_pct !== null && spread_pct > ask.spread_pct ? (['spread-wide'] as const) : []),
    ...(ask.single && tooGood(mean_ohm, ask.single.read_ohm, ask.single.count) ? (['too-good'] as const) : []),
    ...(mean_ohm > ask.unstable_ohm ? (['may-not-be-stable'] as const) : []),
    ...(mean_ohm <= 0 ? (['no-reading'] as const) : []),
  ]
}

function overall(against: Verdict, findings: readonly ElectrodeFinding[]): Verdict {
  if (findings.includes('no-reading')) return 'not-yet'
  if (against === 'outside' || against === 'not-yet') return against
  if (findings.includes('spread-wide')) return 'not-yet'
  return findings.includes('single-reading') || findings.includes('too-good') ? 'close' : against
}
