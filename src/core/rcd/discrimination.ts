/**
 * Whether of two devices in series only the lower one opens, at one and the same current.
 * Source: IEC 60364-5-53 535.3 and IEC 61008-1 table 1 (from memory).
 */
import { type Multiple, multiples, type Rcd, tripBand } from './limits'

const LEAST_RATIO = 3

/** By the rule: the upper one selective and at least three times the rated current of the lower one. */
export const discriminateByRule = (upper: Rcd, lower: Rcd): boolean =>
  upper.kind === 'selective' && upper.rated_mA >= LEAST_RATIO * lower.rated_mA

/** The multiple of a device's own rated current whose band holds at a current: the highest not above it. */
function multipleAt(rcd: Rcd, current_mA: number): Exclude<Multiple, 0.5> {
  const reached = multiples.filter((one) => one !== 0.5 && one * rcd.rated_mA <= current_mA)
  return reached.at(-1) as Exclude<Multiple, 0.5>
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

/** From readings at one current: the upper one's shortest time above the lower one's longest. Null without both. */
export function discriminationByReadings(upper_ms: readonly number[], lower_ms: readonly number[]): boolean | null {
  if (upper_ms.length === 0 || lower_ms.length === 0) return null
  return Math.min(...upper_ms) > Math.max(...lower_ms)
}
