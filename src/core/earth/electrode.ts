/** The resistance of an earth electrode from its readings, and the limit that each residual current device sets. */
import { lessOf, meanOf, type Span, standingFor, widened } from '../quantity/span'
import { atMost, type Band, compare } from '../verdict/compare'
import { type Decided, gravest } from '../verdict/verdict'
import { tooGood } from './rods'

export const electrodeMethods = ['three-lead', 'loop'] as const
export type ElectrodeMethod = (typeof electrodeMethods)[number]

/** How the spread of readings at several spike places is taken. Source: handbook section 8. */
export const spreadSchools = ['range', 'deviation'] as const
export type SpreadSchool = (typeof spreadSchools)[number]
const DEVIATION_FACTOR = 1.2

export type Spread = { mean: Span; spread_pct: number | null }

/**
 * Mean and spread of readings, after a lead's own resistance was taken off. One reading has no spread, and neither have
 * displays over their range. `range` is (max - min)/mean; `deviation` is 1.2 times the greatest deviation from the mean.
 *
 * @throws Error without readings.
 * @example meanAndSpread([exactly(20), exactly(19), exactly(21)], exactly(0), 'range').spread_pct // 10
 */
export function meanAndSpread(readings: readonly Span[], leads: Span, school: SpreadSchool): Spread {
  const own = readings.map((one) => lessOf(one, leads))
  const mean = meanOf(own)
  if (own.length === 1 || mean.bound !== 'exact' || mean.least <= 0) return { mean, spread_pct: null }
  const values = own.map((one) => one.least)
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const apart = school === 'range' ? most - least : DEVIATION_FACTOR * Math.max(most - mean.least, mean.least - least)
  return { mean, spread_pct: (100 * apart) / mean.least }
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
  readings: readonly Span[]
  /** What stands where it is not the mean of the readings: the true place of a curve. */
  value?: Span | null
  /** One of its rods read alone, and how many there are. */
  single?: { read_ohm: number; count: number } | null
  leads: Span
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

export type ElectrodeLimit = { ratedResidualCurrent_mA: number; limit_ohm: number; band: Band; verdict: Decided }
export type ElectrodeJudged = Spread & {
  /** What is held against the limits: the mean, the true place of a curve, the highest of several loops. */
  value: Span
  limits: ElectrodeLimit[]
  verdict: Decided
  findings: ElectrodeFinding[]
}

/** What a finding makes of the verdict at least. */
const atLeastBy: Partial<Record<ElectrodeFinding, Decided>> = {
  'no-reading': 'not-yet',
  'no-device': 'not-yet',
  'spread-wide': 'not-yet',
  'single-reading': 'close',
  'too-good': 'close',
}

/**
 * The verdict on an electrode: against every device above it; a three-lead reading by itself is close for want of a
 * spread, as are several rods that read better than they could; readings too far apart decide nothing unless they are
 * outside. Loops have no places to average: the highest of several counts, and what they differ by is its uncertainty.
 *
 * @throws Error without readings.
 */
export function judgeElectrode(ask: ElectrodeAsk): ElectrodeJudged {
  const spread = meanAndSpread(ask.readings, ask.leads, ask.spreadSchool)
  const value = ask.value ?? (ask.method === 'loop' ? highestLoop(ask) : spread.mean)
  const limits = ask.ratedResidualCurrents_mA.map((rated): ElectrodeLimit => {
    const limit_ohm = electrodeLimit_ohm(rated, ask.touch_V)
    const band = atMost(limit_ohm, Math.min(limit_ohm, ask.unstable_ohm))
    return { ratedResidualCurrent_mA: rated, limit_ohm, band, verdict: compare(value, band).verdict }
  })
  const findings = findingsOf(ask, spread, value)
  const verdict = gravest([...limits.map((one) => one.verdict), ...findings.flatMap((one) => atLeastBy[one] ?? [])])
  return { ...spread, value, limits, findings, verdict }
}

/** The highest of several loops less the lead; those of less decide by themselves where they are bounds. */
function highestLoop({ readings, leads }: ElectrodeAsk): Span {
  const own = readings.map((one) => lessOf(one, leads))
  const highest = own.reduce((most, one) => (one.most > most.most ? one : most))
  if (own.some((one) => one.bound !== 'exact')) return highest
  return widened(highest, (highest.most - Math.min(...own.map((one) => one.least))) / 2)
}

function findingsOf(ask: ElectrodeAsk, { spread_pct }: Spread, value: Span): ElectrodeFinding[] {
  const byProbes = ask.method === 'three-lead'
  return [
    ...(value.most <= 0 ? (['no-reading'] as const) : []),
    ...(ask.ratedResidualCurrents_mA.length === 0 ? (['no-device'] as const) : []),
    ...(byProbes && spread_pct !== null && spread_pct > ask.spread_pct ? (['spread-wide'] as const) : []),
    ...(byProbes && ask.readings.length === 1 ? (['single-reading'] as const) : []),
    ...(ask.single && tooGood(standingFor(value), ask.single.read_ohm, ask.single.count)
      ? (['too-good'] as const)
      : []),
    ...(value.least > ask.unstable_ohm ? (['may-not-be-stable'] as const) : []),
  ]
}
