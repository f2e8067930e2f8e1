import type { ReadValue } from '../quantity/readValue'
import type { Verdict } from './verdict'

export type Band = {
  /** Least allowed value, null where there is none. */
  low: number | null
  /** Most allowed value, null where there is none. */
  high: number | null
  /** Values between a limit and here are close. Null where the regime has no close band. */
  closeLow: number | null
  closeHigh: number | null
}

export type Judged = { verdict: Verdict; where: 'below' | 'inside' | 'above' | 'undecided' }

/** A two-sided band around an expectation, in the expectation's unit; `closeShare` of each half is close. */
export function bandAround(expected: number, allowed_pct: number, closeShare_pct: number): Band {
  const half = (Math.abs(expected) * allowed_pct) / 100
  const close = half * (1 - closeShare_pct / 100)
  return { low: expected - half, high: expected + half, closeLow: expected - close, closeHigh: expected + close }
}

/**
 * A value or a bound against a band. `whisker` is the reading's own uncertainty (k = 2) in the same unit.
 *
 * Exactly on the limit is close. A bound proves what it proves and no more: `>999` is within for a minimum that it
 * clears and outside for a maximum that it passes; where it decides nothing the verdict is not yet.
 *
 * @example judge({ value: 999, bound: 'more-than' }, { low: 1, high: null, closeLow: 2, closeHigh: null }, 0) // within
 */
export function judge(read: Pick<ReadValue, 'value' | 'bound'>, band: Band, whisker: number): Judged {
  if (read.bound !== 'exact') return judgeBound(read.value, read.bound, band)
  const { value } = read
  if (band.low !== null && value < band.low) return { verdict: 'outside', where: 'below' }
  if (band.high !== null && value > band.high) return { verdict: 'outside', where: 'above' }
  const closeToLow =
    band.low !== null && (value - whisker <= band.low || (band.closeLow !== null && value <= band.closeLow))
  const closeToHigh =
    band.high !== null && (value + whisker >= band.high || (band.closeHigh !== null && value >= band.closeHigh))
  return { verdict: closeToLow || closeToHigh ? 'close' : 'within', where: 'inside' }
}

function judgeBound(value: number, bound: 'more-than' | 'less-than', band: Band): Judged {
  const undecided: Judged = { verdict: 'not-yet', where: 'undecided' }
  if (bound === 'more-than') {
    if (band.high !== null) return value >= band.high ? { verdict: 'outside', where: 'above' } : undecided
    if (band.low !== null && value >= band.low) {
      const clear = band.closeLow === null || value >= band.closeLow
      return { verdict: clear ? 'within' : 'close', where: 'inside' }
    }
    return undecided
  }
  if (band.low !== null) return value <= band.low ? { verdict: 'outside', where: 'below' } : undecided
  if (band.high !== null && value <= band.high) {
    const clear = band.closeHigh === null || value <= band.closeHigh
    return { verdict: clear ? 'within' : 'close', where: 'inside' }
  }
  return undecided
}
