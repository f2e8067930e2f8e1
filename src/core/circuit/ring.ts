/** A ring final circuit: both ends of each conductor at the board, read end to end. Source: BS 7671:2018 643.2 (from memory). */
import { scaled, type Span, sumOf } from '../quantity/span'

/**
 * R1+R2 at any point of a sound ring, ohm: the four halves of its conductors in parallel come to a quarter of both.
 * @example ringR1r2(exactly(0.4), exactly(0.66)).least // 0.265
 */
export const ringR1r2 = (line: Span, protective: Span): Span => scaled(sumOf([line, protective]), 1 / 4)

/** How far two readings lie apart at most, ohm; two bounds may be anything apart. */
export function apart(a: Span, b: Span): Span {
  const whisker = Math.hypot(a.whisker, b.whisker)
  if (a.bound === 'exact' && b.bound === 'exact') {
    const value = Math.abs(a.least - b.least)
    return { least: value, most: value, bound: 'exact', whisker }
  }
  const least = Math.max(0, a.least - b.most, b.least - a.most)
  return { least, most: Math.max(a.most - b.least, b.most - a.least), bound: 'between', whisker }
}
