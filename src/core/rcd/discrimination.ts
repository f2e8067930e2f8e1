/**
 * Whether of two devices in series only the lower one opens, at one and the same current.
 * Source: IEC 60364-5-53 535.3 and IEC 61008-1 table 1 (from memory).
 */
import type { Span } from '../quantity/span'
import { type Multiple, type Rcd, tripBand } from './limits'

const LEAST_RATIO = 3

/** By the rule: the upper one selective, the lower one not, and at least three times its rated current. */
export const discriminateByRule = (upper: Rcd, lower: Rcd): boolean =>
  upper.kind === 'selective' && lower.kind === 'general' && upper.rated_mA >= LEAST_RATIO * lower.rated_mA

/**
 * The multiple of a device's own rated current whose shortest time still holds at a current: the lowest not under it,
 * for a device is the faster the higher the current.
 */
function multipleAt(rcd: Rcd, current_mA: number): Exclude<Multiple, 0.5> {
  return ([1, 2, 5] as const).find((one) => one * rcd.rated_mA >= current_mA) ?? 5
}

export type Discrimination = { current_mA: number; upperLeast_ms: number | null; lowerMost_ms: number; holds: boolean }

/**
 * From the standard's bands, at the currents at which the lower one is read. Below its rated current the upper one
 * need not open (null); where it has no least time nothing keeps it from going first.
 */
export function discriminationByBands(upper: Rcd, lower: Rcd): Discrimination[] {
  return ([1, 2, 5] as const).map((multiple) => {
    const current_mA = multiple * lower.rated_mA
    const lowerMost_ms = tripBand(lower, multiple).most_ms
    if (current_mA < upper.rated_mA) return { current_mA, upperLeast_ms: null, lowerMost_ms, holds: true }
    const upperLeast_ms = tripBand(upper, multipleAt(upper, current_mA)).least_ms ?? 0
    return { current_mA, upperLeast_ms, lowerMost_ms, holds: upperLeast_ms > lowerMost_ms }
  })
}

/** A trip that was read: the current that flowed, and how long. */
export type TimedTrip = { current_mA: number; time: Span }
export type ReadDiscrimination = {
  /** Null where the readings decide nothing. */
  holds: boolean | null
  /** The current of the lower one at which the two come closest, and what is known of both there. */
  at: { current_mA: number; upperAt_mA: number; upper_ms: number; lower_ms: number } | null
}
type At = NonNullable<ReadDiscrimination['at']>

/** The shortest and the longest time at a current, by what each is known to be; the longest is null where one had no end. */
function extremes(trips: readonly TimedTrip[]): { least_ms: number; most_ms: number | null } {
  const most = Math.max(...trips.map((one) => one.time.most))
  return { least_ms: Math.min(...trips.map((one) => one.time.least)), most_ms: Number.isFinite(most) ? most : null }
}

/**
 * From readings, compared at one and the same current. A device is the slower the smaller the current: read at a
 * higher current, the upper one's shortest time still holds at the lower current; read at a lower one, its longest
 * time does.
 *
 * @param upper,lower trips at and above the rated current, alternating.
 * @example discriminationByReadings([at(100, 180)], [at(30, 35), at(150, 13)]).holds // null: nothing is known at 150 mA
 */
export function discriminationByReadings(upper: readonly TimedTrip[], lower: readonly TimedTrip[]): ReadDiscrimination {
  const each = [...new Set(lower.map((one) => one.current_mA))].map((current_mA) => compareAt(current_mA, upper, lower))
  const failing = each.find((one) => one.holds === false)
  if (failing) return failing
  if (each.length === 0 || each.some((one) => one.holds === null)) return { holds: null, at: null }
  const margin = ({ at }: ReadDiscrimination): number => at!.upper_ms - at!.lower_ms
  return each.reduce((closest, one) => (margin(one) < margin(closest) ? one : closest))
}

function compareAt(current_mA: number, upper: readonly TimedTrip[], lower: readonly TimedTrip[]): ReadDiscrimination {
  const own = extremes(lower.filter((one) => one.current_mA === current_mA))
  const currents = [...new Set(upper.map((one) => one.current_mA))]
  const known = currents.map((upperAt_mA) => ({
    upperAt_mA,
    ...extremes(upper.filter((one) => one.current_mA === upperAt_mA)),
  }))
  const above = known.filter((one) => one.upperAt_mA >= current_mA)
  const slowest = above.reduce<(typeof known)[number] | null>(
    (best, one) => (best === null || one.least_ms > best.least_ms ? one : best),
    null,
  )
  const at = (one: (typeof known)[number], upper_ms: number, lower_ms: number): At => ({
    current_mA,
    upperAt_mA: one.upperAt_mA,
    upper_ms,
    lower_ms,
  })
  if (slowest && own.most_ms !== null && slowest.least_ms > own.most_ms)
    return { holds: true, at: at(slowest, slowest.least_ms, own.most_ms) }
  const faster = known.find(
    (one) => one.upperAt_mA <= current_mA && one.most_ms !== null && one.most_ms <= own.least_ms,
  )
  return faster ? { holds: false, at: at(faster, faster.most_ms!, own.least_ms) } : { holds: null, at: null }
}
