/** A curve as an entry holds it: two lists of figures as they were read, bounded, and what its instrument said of the sweep. */
import { z } from 'zod'
import { type CurveFeatures, featuresOf } from './features'
import type { CurvePoint, CurveRefusal } from './points'

/** More are thinned before they are kept: no curve of a string shows more than so many. */
export const MOST_POINTS_KEPT = 400
const FEWEST_KEPT = 2
const MOST_V = 3000
const MOST_A = 1000

export const curveValueSchema = z
  .strictObject({
    voltages_V: z.array(z.number().min(-MOST_V).max(MOST_V)).min(FEWEST_KEPT).max(MOST_POINTS_KEPT),
    currents_A: z.array(z.number().min(-MOST_A).max(MOST_A)).min(FEWEST_KEPT).max(MOST_POINTS_KEPT),
    /** How long the sweep took, s. */
    sweep_s: z.number().positive().max(600).optional(),
    /** Light when it had ended, W/m2; that of its beginning stands with the conditions. */
    endIrradiance_Wm2: z.number().min(0).max(1600).optional(),
    /** So many points were read, where they are fewer now. */
    thinnedFrom: z.number().int().positive().max(100_000_000).optional(),
    /** What the instrument called it. */
    memory: z.string().trim().min(1).max(40).optional(),
  })
  .refine(({ voltages_V, currents_A }) => voltages_V.length === currents_A.length, {
    message: 'as many currents as voltages',
    path: ['currents_A'],
  })
export type CurveValue = z.infer<typeof curveValueSchema>

export const pointsOf = ({ voltages_V, currents_A }: Pick<CurveValue, 'voltages_V' | 'currents_A'>): CurvePoint[] =>
  voltages_V.map((voltage, k) => [voltage, currents_A[k]!])

const known = new WeakMap<CurveValue, CurveFeatures | CurveRefusal>()

/** What a kept curve shows: worked out once for each. */
export function featuresIn(curve: CurveValue): CurveFeatures | CurveRefusal {
  let found = known.get(curve)
  if (found === undefined) {
    found = featuresOf(pointsOf(curve))
    known.set(curve, found)
  }
  return found
}

/**
 * A curve of points in any number: more than can be kept are thinned, evenly along the curve as it is drawn, its ends
 * and its own points as they were.
 */
export function curveOf(
  points: readonly CurvePoint[],
  more: Omit<CurveValue, 'voltages_V' | 'currents_A'> = {},
): CurveValue {
  const kept = thinned(points)
  return {
    voltages_V: kept.map(([voltage]) => voltage),
    currents_A: kept.map(([, current]) => current),
    ...more,
    ...(kept.length < points.length ? { thinnedFrom: points.length } : {}),
  }
}

function thinned(points: readonly CurvePoint[]): readonly CurvePoint[] {
  if (points.length <= MOST_POINTS_KEPT) return points
  const sorted = [...points].sort((a, b) => a[0] - b[0])
  const reach = (of: 0 | 1): number => {
    let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
    for (const point of sorted) {
      low = Math.min(low, point[of])
      high = Math.max(high, point[of])
    }
    return high - low || 1
  }
  const [wide, high] = [reach(0), reach(1)]
  // Along the voltage and down the current, so that neither flat part nor descent goes short. Noise goes up and down and
  // adds nothing to the way: only the lowest current so far counts.
  const ways: number[] = [0]
  let lowest = sorted[0]![1]
  for (let k = 1; k < sorted.length; k++) {
    const [voltage, current] = sorted[k]!
    const fallen = Math.max(0, lowest - current)
    lowest = Math.min(lowest, current)
    ways.push(ways[k - 1]! + (voltage - sorted[k - 1]![0]) / wide + fallen / high)
  }
  const whole = ways.at(-1)!
  const kept: CurvePoint[] = []
  for (let k = 0; k < sorted.length; k++) {
    const isDue = ways[k]! >= (whole * kept.length) / (MOST_POINTS_KEPT - 1) - 1e-12
    if (isDue || k === sorted.length - 1) kept.push(sorted[k]!)
  }
  return kept.slice(0, MOST_POINTS_KEPT)
}
