/**
 * The five parameters of the single-diode equation from a measured curve, each with its 95 % interval. Residuals are of
 * the current, exactly solved at each voltage; steps by Levenberg and Marquardt with the derivatives written out (Moré,
 * "The Levenberg-Marquardt algorithm", 1978; from memory). I0 and the ideality are taken by their logarithms and the
 * shunt by its conductance, for so the parabola that the intervals rest on fits best.
 */
import { inverse, Matrix, solve } from 'ml-matrix'
import type { SingleDiode } from '../pv/singleDiode'
import { featuresOf } from './features'
import type { CurvePoint, CurveRefusal } from './points'
import { studentQuantile } from './student'

/** @property high null where the points set no upper bound: a shunt too weak to be seen. */
export type Interval = { value: number; low: number; high: number | null }
export type DiodeFit = {
  [name in keyof SingleDiode]: Interval
} & {
  /** Root of the mean square of what is left of the currents, A. */
  rms_A: number
}

/** Photocurrent in A, ln of the saturation current, ln of the ideality, series resistance in ohm, shunt conductance in S. */
type Five = [photo: number, lnDark: number, lnIdeality: number, series_ohm: number, shunt_S: number]
const FIVE = [0, 1, 2, 3, 4] as const

const MOST_STEPS = 100
const MOST_NEWTON = 60
const SETTLED = 1e-12
const FEWEST = 8
/** Where a series resistance or a shunt comes out below nothing, it is nothing, and the rest is fitted without it. */
const NEVER_NEGATIVE = [3, 4] as const

/**
 * Fits points in any order.
 *
 * @param sigma_A scatter of the currents where it is known; else what is left of the points tells it.
 */
export function fitDiode(points: readonly CurvePoint[], sigma_A: number | null = null): DiodeFit | CurveRefusal {
  const features = featuresOf(points)
  if (typeof features === 'string') return features
  if (points.length < FEWEST) return 'too-few-points'
  const start = startOf(points, features.voc_V, features.isc_A)
  let free: number[] = [...FIVE]
  let fitted = descend(points, start, free)
  const held = NEVER_NEGATIVE.filter((k) => fitted.five[k] < 0)
  if (held.length > 0) {
    free = free.filter((k) => !held.some((one) => one === k))
    const bound: Five = [...fitted.five]
    held.forEach((k) => {
      bound[k] = 0
    })
    fitted = descend(points, bound, free)
  }
  return withIntervals(fitted, free, points.length, sigma_A)
}

type Fitted = { five: Five; square: number; normal: Matrix }

function withIntervals(
  { five, square, normal }: Fitted,
  free: readonly number[],
  count: number,
  sigma_A: number | null,
) {
  const left = count - free.length
  const scatter_A = sigma_A ?? Math.sqrt(square / left)
  const times = studentQuantile(sigma_A === null ? left : Number.POSITIVE_INFINITY)
  const spread = inverse(normal)
  const reach = FIVE.map((k) => {
    const at = free.indexOf(k)
    return at < 0 ? 0 : times * scatter_A * Math.sqrt(Math.max(0, spread.get(at, at)))
  })
  const around = (k: 0 | 3): Interval => ({
    value: five[k],
    low: Math.max(0, five[k] - reach[k]!),
    high: five[k] + reach[k]!,
  })
  const byLogarithm = (k: 1 | 2): Interval => ({
    value: Math.exp(five[k]),
    low: Math.exp(five[k] - reach[k]!),
    high: Math.exp(five[k] + reach[k]!),
  })
  const [least_S, most_S] = [five[4] - reach[4]!, five[4] + reach[4]!]
  return {
    photocurrent_A: around(0),
    saturationCurrent_A: byLogarithm(1),
    seriesResistance_ohm: around(3),
    shuntResistance_ohm: {
      value: five[4] > 0 ? 1 / five[4] : NO_SHUNT_ohm,
      low: most_S > 0 ? 1 / most_S : NO_SHUNT_ohm,
      high: least_S > 0 ? 1 / least_S : null,
    },
    modifiedIdeality_V: byLogarithm(2),
    rms_A: Math.sqrt(square / count),
  }
}

/** What stands for a shunt that is not there: through it flows nothing that any instrument shows, ohm. */
const NO_SHUNT_ohm = 1e9

/** Fall of the squares until nothing is gained any more. */
function descend(points: readonly CurvePoint[], start: Five, free: readonly number[]): Fitted {
  let five = start
  let here = lookAt(points, five, free)
  let damping = 1e-3
  for (let step = 0; step < MOST_STEPS; step++) {
    const damped = here.normal.clone()
    for (let k = 0; k < free.length; k++) damped.set(k, k, damped.get(k, k) * (1 + damping))
    const move = solve(damped, Matrix.columnVector(here.pull))
    const next = five.map((one, k) => (free.includes(k) ? one + move.get(free.indexOf(k), 0) : one)) as Five
    const there = lookAt(points, next, free)
    if (there.square <= here.square) {
      const gained = here.square - there.square
      five = next
      here = there
      damping = Math.max(1e-12, damping / 10)
      if (gained <= SETTLED * here.square) break
    } else {
      damping *= 8
      if (damping > 1e12) break
    }
  }
  return { five, square: here.square, normal: here.normal }
}

/** Sum of squares, and what Gauss and Newton need: J'J and J'r. */
function lookAt(points: readonly CurvePoint[], five: Five, free: readonly number[]) {
  const [photo, lnDark, lnIdeality, series_ohm, shunt_S] = five
  const [dark, ideality] = [Math.exp(lnDark), Math.exp(lnIdeality)]
  const count = free.length
  const slopes = new Float64Array(5)
  const sums = new Float64Array(count * count)
  const pull = new Array<number>(count).fill(0)
  let square = 0
  for (const [voltage, measured] of points) {
    const u = diodeVoltage(voltage, measured, photo, dark, ideality, series_ohm, shunt_S)
    const grown = dark * Math.exp(Math.min(u / ideality, 600))
    const current = photo - (grown - dark) - u * shunt_S
    const conductance = grown / ideality + shunt_S
    const share = 1 / (1 + series_ohm * conductance)
    slopes[0] = share
    slopes[1] = -(grown - dark) * share
    slopes[2] = ((grown * u) / ideality) * share
    slopes[3] = -conductance * current * share
    slopes[4] = -u * share
    const off = measured - current
    square += off * off
    for (let a = 0; a < count; a++) {
      const slope = slopes[free[a]!]!
      pull[a]! += slope * off
      for (let b = a; b < count; b++) sums[a * count + b]! += slope * slopes[free[b]!]!
    }
  }
  const normal = new Matrix(count, count)
  for (let a = 0; a < count; a++)
    for (let b = a; b < count; b++) {
      normal.set(a, b, sums[a * count + b]!)
      normal.set(b, a, sums[a * count + b]!)
    }
  return { square: Number.isFinite(square) ? square : Number.POSITIVE_INFINITY, normal, pull }
}

/** u = V + I Rs, by Newton's method from the current as it was measured. */
function diodeVoltage(
  voltage: number,
  measured: number,
  photo: number,
  dark: number,
  ideality: number,
  series_ohm: number,
  shunt_S: number,
): number {
  let u = voltage + measured * series_ohm
  if (series_ohm === 0) return u
  // Beyond this the diode alone carries the photocurrent: from there Newton falls without fail.
  const most = Math.max(voltage, ideality * Math.log1p(Math.max(0, photo) / dark))
  if (!(u < most)) u = most
  for (let step = 0; step < MOST_NEWTON; step++) {
    const grown = dark * Math.exp(Math.min(u / ideality, 600))
    const current = photo - (grown - dark) - u * shunt_S
    const off = u - series_ohm * current - voltage
    const move = off / (1 + series_ohm * (grown / ideality + shunt_S))
    u -= move
    if (Math.abs(move) <= 1e-11 * Math.max(1, Math.abs(u))) return u
  }
  return u
}

/** Idealities and series resistances that a start is looked for among, as shares of Voc, and of Voc/Isc. */
const IDEALITIES = [0.025, 0.035, 0.045, 0.055, 0.07, 0.09, 0.13]
const SERIES = [0, 0.005, 0.015, 0.03, 0.05, 0.08, 0.12]

/** A start is found from so many points as well as from all. */
const POINTS_TO_START = 60

/** For an ideality and a series resistance the other three are linear: the best of a few dozen pairs is the start. */
function startOf(points: readonly CurvePoint[], voc_V: number, isc_A: number): Five {
  const every = Math.max(1, Math.floor(points.length / POINTS_TO_START))
  const few = points.filter((_, k) => k % every === 0)
  let best: { five: Five; square: number } | null = null
  for (const ideality of IDEALITIES.map((share) => share * voc_V)) {
    for (const series_ohm of SERIES.map((share) => (share * voc_V) / isc_A)) {
      const found = linearPart(few, ideality, series_ohm, voc_V)
      if (found && (!best || found.square < best.square)) best = found
    }
  }
  if (best) return best.five
  const ideality = 0.05 * voc_V
  return [isc_A, Math.log(isc_A) - voc_V / ideality, Math.log(ideality), 0, 0]
}

/** The three linear ones by their normal equations, in the unknowns current, current of the diode at Voc, and shunt. */
function linearPart(points: readonly CurvePoint[], ideality: number, series_ohm: number, voc_V: number) {
  const normal = Matrix.zeros(3, 3)
  const pull = [0, 0, 0]
  let all = 0
  for (const [voltage, current] of points) {
    const u = voltage + current * series_ohm
    const row = [1, -Math.exp(Math.min((u - voc_V) / ideality, 50)), -u / voc_V]
    all += current * current
    for (let a = 0; a < 3; a++) {
      pull[a]! += row[a]! * current
      for (let b = 0; b < 3; b++) normal.set(a, b, normal.get(a, b) + row[a]! * row[b]!)
    }
  }
  const [photo, atOpen_A, byOpen_A] = solve(normal, Matrix.columnVector(pull)).to1DArray() as [number, number, number]
  if (!(photo > 0 && atOpen_A > 0)) return null
  const square = all - photo * pull[0]! - atOpen_A * pull[1]! - byOpen_A * pull[2]!
  const lnDark = Math.log(atOpen_A) - voc_V / ideality
  const five: Five = [photo, lnDark, Math.log(ideality), series_ohm, Math.max(0, byOpen_A / voc_V)]
  return { five, square }
}
