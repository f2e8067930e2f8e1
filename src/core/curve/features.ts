/** What stands out on a measured curve, robust to its noise: ends, the highest power, slopes and ledges. */
import { fitBasis, fitPolynomial, type Polynomial } from './leastSquares'
import { medianOf } from '../quantity/median'
import { type CurvePoint, type CurveRefusal, scatterOf, soundPoints } from './points'
import { type CurveStep, leastDropOf, stepsOf } from './steps'

export type CurveFeatures = {
  voc_V: number
  isc_A: number
  vmp_V: number
  imp_A: number
  pmax_W: number
  fillFactor: number
  /** -dI/dV at short circuit, S. */
  slopeAtIsc_S: number
  /** -dV/dI at open circuit, ohm. */
  slopeAtVoc_ohm: number
  steps: readonly CurveStep[]
  /** Scatter of the currents, A. */
  scatter_A: number
  /** A drop smaller than this does not stand out of the scatter, A. */
  leastDrop_A: number
  /** The widest gap between neighbouring points in the upper half of the voltages, V: what lies in it is not seen. */
  gap_V: number
}

/** How near to an end its line is taken, as a share of the other end's; and at least from so many points. */
const NEAR_END = 0.1
const LEAST_AT_END = 5
/** A point of the line at short circuit that lies further off than so many times the scatter belongs to a ledge. */
const OFF_LINE = 4
/** The power is followed where it is above this share of the highest. */
const NEAR_TOP = 0.97
/** The photocurrent lies a little above the short-circuit current. */
const ABOVE_ISC = 1.002
const TOP_STEPS = 400

/** Features of points in any order, or why they are no curve. */
export function featuresOf(points: readonly CurvePoint[]): CurveFeatures | CurveRefusal {
  const sorted = soundPoints(points)
  if (typeof sorted === 'string') return sorted
  const short = shortCircuit(sorted)
  const open = openCircuit(sorted, short.isc_A)
  const top = highestPower(sorted)
  return {
    ...short,
    ...open,
    ...top,
    fillFactor: top.pmax_W / (open.voc_V * short.isc_A),
    steps: stepsOf(sorted, open.voc_V, short.isc_A, short.slopeAtIsc_S),
    scatter_A: scatterOf(sorted),
    leastDrop_A: leastDropOf(sorted, short.isc_A),
    gap_V: widestGap(sorted, open.voc_V),
  }
}

function widestGap(sorted: readonly CurvePoint[], voc_V: number): number {
  let widest_V = 0
  for (let k = 1; k < sorted.length; k++) {
    const [from_V, to_V] = [Math.max(sorted[k - 1]![0], voc_V / 2), Math.min(sorted[k]![0], voc_V)]
    widest_V = Math.max(widest_V, to_V - from_V)
  }
  return widest_V
}

/** The line at short circuit: the median of all slopes between its points, then the mean of those that lie on it. */
function shortCircuit(sorted: readonly CurvePoint[]): { isc_A: number; slopeAtIsc_S: number } {
  const reach_V = NEAR_END * sorted.at(-1)![0]
  const nearest = [...sorted].sort((a, b) => Math.abs(a[0]) - Math.abs(b[0]))
  const near = nearest.filter(([voltage], k) => k < LEAST_AT_END || Math.abs(voltage) <= reach_V)
  const slopes = near.flatMap(([v1, i1], k) => near.slice(k + 1).map(([v2, i2]) => (i2 - i1) / (v2 - v1)))
  const slope = medianOf(slopes)
  const off = near.map(([voltage, current]) => current - slope * voltage)
  const middle = medianOf(off)
  const spread = medianOf(off.map((one) => Math.abs(one - middle)))
  const onLine = near.filter((_, k) => Math.abs(off[k]! - middle) <= OFF_LINE * spread + 1e-9 * middle)
  if (onLine.length < 3) return { isc_A: middle, slopeAtIsc_S: -slope }
  const line = fitPolynomial(onLine, 1)
  return { isc_A: line.at(0), slopeAtIsc_S: -line.slopeAt(0) }
}

/**
 * Voltage against current at open circuit: a parabola where enough points lie near it, else the diode's own logarithm
 * through the nearest ones.
 */
function openCircuit(sorted: readonly CurvePoint[], isc_A: number): { voc_V: number; slopeAtVoc_ohm: number } {
  const nearest = [...sorted].sort((a, b) => Math.abs(a[1]) - Math.abs(b[1]))
  const near = nearest.filter(([, current]) => Math.abs(current) <= NEAR_END * isc_A)
  if (near.length >= LEAST_AT_END) {
    const curve = fitPolynomial(turned(near), 2)
    return { voc_V: curve.at(0), slopeAtVoc_ohm: -curve.slopeAt(0) }
  }
  const photocurrent_A = ABOVE_ISC * isc_A
  const few = nearest.slice(0, LEAST_AT_END).filter(([, current]) => current < 0.9 * isc_A)
  if (few.length < 4) {
    const line = fitPolynomial(turned(nearest.slice(0, 2)), 1)
    return { voc_V: line.at(0), slopeAtVoc_ohm: -line.slopeAt(0) }
  }
  const [voc_V, byCurrent, byLogarithm] = fitBasis(
    few.map(([, current]) => [1, current, Math.log(1 - current / photocurrent_A)]),
    few.map(([voltage]) => voltage),
  ) as [number, number, number]
  return { voc_V, slopeAtVoc_ohm: byLogarithm / photocurrent_A - byCurrent }
}

const turned = (points: readonly CurvePoint[]): CurvePoint[] => points.map(([voltage, current]) => [current, voltage])

/** The highest power of points by rising voltage: the top of a smooth curve through what lies around the highest point. */
export function highestPower(sorted: readonly CurvePoint[]): { vmp_V: number; imp_A: number; pmax_W: number } {
  const power = sorted.map(([voltage, current]) => [voltage, voltage * current] as const)
  let best = 0
  for (let k = 0; k < power.length; k++) if (power[k]![1] > power[best]![1]) best = k
  const least_W = NEAR_TOP * power[best]![1]
  let [from, to] = [best, best]
  while (from > 0 && power[from - 1]![1] >= least_W) from--
  while (to < power.length - 1 && power[to + 1]![1] >= least_W) to++
  from = Math.max(0, Math.min(from, best - 1))
  to = Math.min(power.length - 1, Math.max(to, best + 1))
  const around = power.slice(from, to + 1)
  const [low, high] = [around[0]![0], around.at(-1)![0]]
  const curve = fitPolynomial(around, degreeFor(around.length))
  const vmp_V = topBetween(curve, low, high)
  const pmax_W = curve.at(vmp_V)
  return { vmp_V, imp_A: pmax_W / vmp_V, pmax_W }
}

const degreeFor = (points: number): number => (points >= 9 ? 4 : points >= 6 ? 3 : 2)

function topBetween(curve: Polynomial, low: number, high: number): number {
  let best = low
  for (let k = 0; k <= TOP_STEPS; k++) {
    const here = low + ((high - low) * k) / TOP_STEPS
    if (curve.at(here) > curve.at(best)) best = here
  }
  const step = (high - low) / TOP_STEPS
  let [from, to] = [Math.max(low, best - step), Math.min(high, best + step)]
  for (let k = 0; k < 60; k++) {
    const middle = (from + to) / 2
    if (curve.slopeAt(middle) > 0) from = middle
    else to = middle
  }
  return (from + to) / 2
}
