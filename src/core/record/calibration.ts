/** An instrument's calibration against the day on which it runs out. */
import { exactly } from '../quantity/span'
import { atLeast, compare } from '../verdict/compare'
import type { Verdict } from '../verdict/verdict'

const DAY_ms = 86_400_000
/** Days before the end of a calibration which count as close (house rule). */
export const CLOSE_DAYS = 30

/** Days from now to the end of the day on which a calibration runs out; negative once it has. */
export function daysLeft(due: string, now: number): number {
  return Math.ceil((Date.parse(`${due}T23:59:59Z`) - now) / DAY_ms) - 1
}

/** A calibration against its last day: close in the last thirty. */
export function calibrationVerdict(days: number): Verdict {
  return compare(exactly(days), atLeast(0, CLOSE_DAYS)).verdict
}
