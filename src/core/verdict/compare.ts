/**
 * The one comparison of the trade: what is known of a quantity, against a band. Everything that is ever called within
 * came out of it.
 */
import type { Span } from '../quantity/span'

export type Band = {
  /** Least allowed value, null where there is none. */
  low: number | null
  /** Most allowed value, null where there is none. */
  high: number | null
  /** Values between a limit and here are close. Null where the regime has no close band. */
  closeLow: number | null
  closeHigh: number | null
  /** The low limit itself is outside already: a detector that must not trip at 3 mA. */
  lowIsOutside?: boolean
}

export type Compared = {
  readonly verdict: 'within' | 'close' | 'outside' | 'not-yet'
  readonly where: 'below' | 'inside' | 'above' | 'undecided'
  /** What makes it close: it lies on the limit, in the regime's close band, or only its whisker touches; else null. */
  readonly closeBy: 'limit' | 'band' | 'whisker' | null
}

/** At most, or at least, a value; with a close band where one is given. */
export const atMost = (high: number, closeHigh: number | null = null): Band => ({
  low: null,
  high,
  closeLow: null,
  closeHigh,
})
export const atLeast = (low: number, closeLow: number | null = null): Band => ({
  low,
  high: null,
  closeLow,
  closeHigh: null,
})

/** A two-sided band around an expectation, in the expectation's unit; `closeShare` of each half is close. */
export function bandAround(expected: number, allowed_pct: number, closeShare_pct: number): Band {
  const half = (Math.abs(expected) * allowed_pct) / 100
  const close = half * (1 - closeShare_pct / 100)
  return { low: expected - half, high: expected + half, closeLow: expected - close, closeHigh: expected + close }
}

/** What a comparison can come to: there are few answers, and thousands who get them. */
const undecided: Compared = { verdict: 'not-yet', where: 'undecided', closeBy: null }
const below: Compared = { verdict: 'outside', where: 'below', closeBy: null }
const above: Compared = { verdict: 'outside', where: 'above', closeBy: null }
const inside: Compared = { verdict: 'within', where: 'inside', closeBy: null }
const closeTo = {
  limit: { verdict: 'close', where: 'inside', closeBy: 'limit' },
  band: { verdict: 'close', where: 'inside', closeBy: 'band' },
  whisker: { verdict: 'close', where: 'inside', closeBy: 'whisker' },
} as const satisfies Record<string, Compared>

/**
 * Three-valued: within, close or outside where what is known decides, else undecided. Exactly on the limit is close. A
 * span decides only where all of it lies on one side; nothing is decided by no limit, or by a figure that is none.
 *
 * @example compare(spanOf({ value: 999, bound: 'more-than' }, 0), atLeast(1, 2)) // within
 * @example compare(spanOf({ value: 5, bound: 'less-than' }, 0), atLeast(1, 2)) // undecided
 */
export function compare(span: Span, band: Band): Compared {
  const { low, high } = band
  if (low === null && high === null) return undecided
  if (Number.isNaN(span.least + span.whisker + (low ?? 0) + (high ?? 0)) || Number.isNaN(span.most)) return undecided
  if (low !== null && isBelow(span, low, band.lowIsOutside === true)) return below
  if (high !== null && isAbove(span, high)) return above
  if ((low !== null && span.least < low) || (high !== null && span.most > high)) return undecided
  const closeBy = closeness(span, band)
  return closeBy ? closeTo[closeBy] : inside
}

/** All of it lies below: an open end on the limit does, the limit itself only where it is outside already. */
const isBelow = ({ most, bound }: Span, low: number, shut: boolean): boolean =>
  most < low || (most === low && (shut || bound === 'less-than'))

const isAbove = ({ least, bound }: Span, high: number): boolean =>
  least > high || (least === high && bound === 'more-than')

function closeness({ least, most, bound, whisker }: Span, band: Band): Compared['closeBy'] {
  const { low, high, closeLow, closeHigh } = band
  const lowEnd = bound === 'more-than' ? Number.EPSILON * Math.abs(least) : 0
  const highEnd = bound === 'less-than' ? Number.EPSILON * Math.abs(most) : 0
  if (least + lowEnd === low || most - highEnd === high) return 'limit'
  const inBand =
    (closeLow !== null && least + lowEnd <= closeLow) || (closeHigh !== null && most - highEnd >= closeHigh)
  if (inBand) return 'band'
  const touches =
    (low !== null && least + lowEnd - whisker <= low) || (high !== null && most - highEnd + whisker >= high)
  return touches ? 'whisker' : null
}
