/** Points of a measured curve: put in order, and refused where they are no curve at all. */
import { medianOf } from '../quantity/median'

export type CurvePoint = readonly [voltage_V: number, current_A: number]

export type CurveRefusal =
  | 'too-few-points'
  | 'not-numbers'
  | 'all-zero'
  | 'no-open-circuit'
  | 'no-short-circuit'
  | 'backwards'
  | 'crosses-itself'

/** Fewer say nothing of a shape. */
export const FEWEST_POINTS = 5
/** The lowest current must come below this share of the highest, and the lowest voltage likewise: else an end is missing. */
const END_SHARE = 0.4
/** A current that rises with the voltage by more than this share of the highest is no noise. */
const CROSSING_SHARE = 0.15

/**
 * Points by rising voltage; readings at the same voltage become their mean, in the place of the first.
 * @example inOrder([[30, 0], [0, 9], [30, 0.2]]) // [[0, 9], [30, 0.1]]
 */
export function inOrder(points: readonly CurvePoint[]): CurvePoint[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0])
  const merged: CurvePoint[] = []
  for (let from = 0; from < sorted.length; ) {
    const voltage = sorted[from]![0]
    let to = from
    let sum = 0
    while (to < sorted.length && sorted[to]![0] === voltage) sum += sorted[to++]![1]
    merged.push([voltage, sum / (to - from)])
    from = to
  }
  return merged
}

/** Points that are worth looking at, by rising voltage, or why they are none. */
export function soundPoints(points: readonly CurvePoint[]): CurvePoint[] | CurveRefusal {
  if (points.some(([voltage, current]) => !Number.isFinite(voltage) || !Number.isFinite(current))) return 'not-numbers'
  const sorted = inOrder(points)
  if (sorted.length < FEWEST_POINTS) return 'too-few-points'
  const voltages = sorted.map(([voltage]) => voltage)
  const currents = sorted.map(([, current]) => current)
  const [lowest_V, highest_V] = [voltages[0]!, voltages.at(-1)!]
  const [lowest_A, highest_A] = [Math.min(...currents), Math.max(...currents)]
  if (highest_A === 0 && lowest_A === 0) return 'all-zero'
  if (highest_V <= -lowest_V || highest_A <= -lowest_A) return 'backwards'
  if (lowest_A > END_SHARE * highest_A) return 'no-open-circuit'
  if (lowest_V > END_SHARE * highest_V) return 'no-short-circuit'
  return risesBy(currents) > CROSSING_SHARE * highest_A ? 'crosses-itself' : sorted
}

/** The most by which the current stands above any that came at a lower voltage, as medians of three see it, A. */
function risesBy(currents: readonly number[]): number {
  let least = Number.POSITIVE_INFINITY
  let most = 0
  for (let k = 1; k + 1 < currents.length; k++) {
    const middle = medianOf([currents[k - 1]!, currents[k]!, currents[k + 1]!])
    least = Math.min(least, middle)
    most = Math.max(most, middle - least)
  }
  return most
}

/** Scatter of a normal distribution per median of its absolute values. */
const PER_MEDIAN = 1.4826

/**
 * Scatter of the currents, A: how far each point lies off the line between its neighbours, over the flat part below half
 * the highest voltage, where the curve itself does not bend. Zero for a curve that was computed.
 */
export function scatterOf(sorted: readonly CurvePoint[]): number {
  const half_V = sorted.at(-1)![0] / 2
  const off: number[] = []
  for (let k = 1; k + 1 < sorted.length && (sorted[k]![0] < half_V || off.length < 3); k++) {
    const [[v0, i0], [v1, i1], [v2, i2]] = [sorted[k - 1]!, sorted[k]!, sorted[k + 1]!]
    const share = (v1 - v0) / (v2 - v0)
    off.push((i1 - i0 - share * (i2 - i0)) / Math.sqrt(1 + share ** 2 + (1 - share) ** 2))
  }
  return off.length === 0 ? 0 : PER_MEDIAN * medianOf(off.map(Math.abs))
}
