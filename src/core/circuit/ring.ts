/** A ring final circuit: both ends of each conductor at the board, read end to end. Source: BS 7671:2018 643.2 (from memory). */

export type RingEnds = { line_ohm: number; neutral_ohm: number; protective_ohm: number }

/**
 * R1+R2 at any point of a sound ring, ohm: the four halves of its conductors in parallel come to a quarter of both.
 * @example ringR1r2_ohm({ line_ohm: 0.4, protective_ohm: 0.66 }) // 0.265
 */
export const ringR1r2_ohm = ({ line_ohm, protective_ohm }: Pick<RingEnds, 'line_ohm' | 'protective_ohm'>): number =>
  (line_ohm + protective_ohm) / 4

export type RingDifference = {
  /** The pair that is farthest apart. */
  of: 'neutral' | 'protective'
  /** What it should read for the line that was read. */
  expected_ohm: number
  difference_ohm: number
}

/**
 * How far neutral and protective conductor are from what the line's reading makes them: the same, and by the areas.
 *
 * @param areaRatio line over protective conductor; null where areas are not known, then only the neutral is compared.
 * @example ringDifference({ line_ohm: 0.4, neutral_ohm: 0.41, protective_ohm: 0.75 }, 2.5 / 1.5).of // 'protective'
 */
export function ringDifference(ends: RingEnds, areaRatio: number | null): RingDifference {
  const off = (of: RingDifference['of'], read_ohm: number, expected_ohm: number): RingDifference => ({
    of,
    expected_ohm,
    difference_ohm: Math.abs(read_ohm - expected_ohm),
  })
  const neutral = off('neutral', ends.neutral_ohm, ends.line_ohm)
  if (areaRatio === null) return neutral
  const protective = off('protective', ends.protective_ohm, ends.line_ohm * areaRatio)
  return protective.difference_ohm > neutral.difference_ohm ? protective : neutral
}
