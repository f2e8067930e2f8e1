/**
 * What is known of a quantity: where it lies between two ends, with the instrument's own uncertainty. A display over its
 * range (`>20`) is a span without an upper end, and sums and means of such displays stay spans: a bound decides only
 * what it decides.
 */
import type { ReadValue } from './readValue'

export type Bound = ReadValue['bound'] | 'between'
export type Span = {
  readonly least: number
  readonly most: number
  /** `exact` where both ends are one; `more-than` and `less-than` leave their own figure out; `between` holds both ends. */
  readonly bound: Bound
  /** The instrument's uncertainty (k = 2) in the same unit; none on a bound, whose figure is the range and no reading. */
  readonly whisker: number
}

/** A figure that is known as it stands. */
export const exactly = (value: number, whisker = 0): Span => ({ least: value, most: value, bound: 'exact', whisker })

/**
 * A reading as a span. What instruments of this trade show is never below nothing.
 * @example spanOf({ value: 5, bound: 'less-than' }, 0) // 0 to 5
 */
export function spanOf({ value, bound }: Pick<ReadValue, 'value' | 'bound'>, whisker: number): Span {
  if (bound === 'more-than') return { least: value, most: Number.POSITIVE_INFINITY, bound, whisker: 0 }
  if (bound === 'less-than') return { least: Math.min(0, value), most: value, bound, whisker: 0 }
  return exactly(value, whisker)
}

/** How the ends of several are known together: one that is not exact makes the whole so. */
function boundOf(spans: readonly Span[]): Bound {
  let known: Bound = 'exact'
  for (const { bound } of spans) {
    if (bound === 'exact' || bound === known) continue
    known = known === 'exact' ? bound : 'between'
  }
  return known
}

/**
 * The sum; uncertainties do not depend on each other, so they add as squares.
 * @example sumOf([exactly(0.2), spanOf({ value: 1.99, bound: 'more-than' }, 0)]).least // 2.19
 */
export function sumOf(spans: readonly Span[]): Span {
  let [least, most, squares] = [0, 0, 0]
  for (const one of spans) {
    least += one.least
    most += one.most
    squares += one.whisker * one.whisker
  }
  return { least, most, bound: boundOf(spans), whisker: Math.sqrt(squares) }
}

/**
 * The mean of readings with one instrument: what it is off by is in each of them, so the mean is off by as much.
 * @throws Error without readings.
 */
export function meanOf(spans: readonly Span[]): Span {
  if (spans.length === 0) throw new Error('meanOf: expected readings, got none')
  const sum = sumOf(spans)
  const whisker = spans.reduce((all, one) => all + one.whisker, 0) / spans.length
  return { ...scaled(sum, 1 / spans.length), whisker }
}

/** Multiplied by a positive figure. */
export const scaled = (span: Span, factor: number): Span => ({
  least: span.least * factor,
  most: span.most * factor,
  bound: span.bound,
  whisker: span.whisker * factor,
})

/** Less another: what a long lead has of its own. */
export const lessOf = (span: Span, off: Span): Span => ({
  least: span.least - off.most,
  most: span.most - off.least,
  bound:
    boundOf([span, off]) === 'exact'
      ? 'exact'
      : span.bound === 'exact' || off.bound !== 'exact'
        ? 'between'
        : span.bound,
  whisker: Math.hypot(span.whisker, off.whisker),
})

/** With more uncertainty than the instrument's own: the spread of repeats. */
export const widened = (span: Span, whisker: number): Span =>
  whisker > span.whisker ? { least: span.least, most: span.most, bound: span.bound, whisker } : span

/** The figure that stands for a span in a sentence: its own where it is exact, else the end that is known. */
export const standingFor = ({ least, most, bound }: Span): number => (bound === 'less-than' ? most : least)
