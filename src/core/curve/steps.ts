/**
 * Ledges of a curve: places where the current falls, and then stands again. A sound curve falls ever more steeply; where
 * the fall slackens before open circuit, some of its cell groups give less than the others.
 */
import { type CurvePoint, scatterOf } from './points'

export type CurveStep = {
  /** Where it falls most steeply, V. */
  voltage_V: number
  /** From there to the next fall, V: so much of the string is held at the lower current. */
  width_V: number
  /** From the ledge above to the one below, A. */
  drop_A: number
}

const PLACES = 300
/** Looked at up to this share of the open-circuit voltage: beyond it every curve is steep. */
const UP_TO = 0.995
/** Half the width over which the fall is taken, as a share of the open-circuit voltage; and at least so many points. */
const HALF_WIDTH = 0.012
const LEAST_POINTS = 5
/** A ledge that lies less far under the straight line over it than this share of the short-circuit current is none. */
const LEAST_SHARE = 0.005
/** Nor one that lies under it by less than so many times the scatter: then noise would do. */
const TIMES_SCATTER = 2.5

/** Current and its fall at a voltage, by the line that fits its neighbourhood best. */
type Place = { voltage_V: number; current_A: number; fall_S: number }
type Fall = { left: Place; peak: Place; right: Place; at: number }

/** The smallest drop that is seen as one, A: twice what a ledge has to lie under the line over it. */
export const leastDropOf = (sorted: readonly CurvePoint[], isc_A: number): number =>
  2 * Math.max(LEAST_SHARE * isc_A, TIMES_SCATTER * scatterOf(sorted))

/**
 * @param sorted by rising voltage.
 * @param slope_S how the curve falls at short circuit: what falls so between two ledges is no drop.
 */
export function stepsOf(sorted: readonly CurvePoint[], voc_V: number, isc_A: number, slope_S: number): CurveStep[] {
  const places = placesOf(sorted, voc_V)
  const falls = fallsOf(places, slope_S, leastDropOf(sorted, isc_A) / 2)
  return falls.map((fall, k) => {
    const { voltage_V } = fall.peak
    const next_V = falls[k + 1]?.peak.voltage_V ?? descentFrom(places, fall.right.current_A / 2, voltage_V)
    return { voltage_V, width_V: next_V - voltage_V, drop_A: netOf(fall, slope_S) }
  })
}

/** Where the last descent passes a current, V. */
function descentFrom(places: readonly Place[], current_A: number, from_V: number): number {
  const below = places.find((one) => one.voltage_V > from_V && one.current_A <= current_A)
  return (below ?? places.at(-1)!).voltage_V
}

function placesOf(sorted: readonly CurvePoint[], voc_V: number): Place[] {
  const half_V = HALF_WIDTH * voc_V
  const places: Place[] = []
  let [from, to] = [0, 0]
  for (let k = 0; k <= PLACES; k++) {
    const voltage_V = (UP_TO * voc_V * k) / PLACES
    while (from < sorted.length && sorted[from]![0] < voltage_V - half_V) from++
    while (to < sorted.length && sorted[to]![0] <= voltage_V + half_V) to++
    const [first, last] = widened(sorted, voltage_V, from, to)
    places.push(placeAt(sorted, first, last, voltage_V))
  }
  return places
}

/** A neighbourhood with enough points in it, taken from the side that is nearer. */
function widened(sorted: readonly CurvePoint[], voltage_V: number, from: number, to: number): [number, number] {
  let [first, last] = [from, to]
  while (last - first < Math.min(LEAST_POINTS, sorted.length)) {
    const below = first > 0 ? voltage_V - sorted[first - 1]![0] : Number.POSITIVE_INFINITY
    const above = last < sorted.length ? sorted[last]![0] - voltage_V : Number.POSITIVE_INFINITY
    if (below <= above) first--
    else last++
  }
  return [first, last]
}

function placeAt(sorted: readonly CurvePoint[], first: number, last: number, voltage_V: number): Place {
  const count = last - first
  let [sumV, sumI] = [0, 0]
  for (let k = first; k < last; k++) {
    sumV += sorted[k]![0]
    sumI += sorted[k]![1]
  }
  const [meanV, meanI] = [sumV / count, sumI / count]
  let [squares, products] = [0, 0]
  for (let k = first; k < last; k++) {
    const off = sorted[k]![0] - meanV
    squares += off * off
    products += off * (sorted[k]![1] - meanI)
  }
  const slope = squares > 0 ? products / squares : 0
  return { voltage_V, current_A: meanI + slope * (voltage_V - meanV), fall_S: -slope }
}

/**
 * Falls between ledges: steepest places with a flatter one before and behind. The one whose ledge stands out least is
 * taken out while that is too little, and its ledges become one.
 */
function fallsOf(places: readonly Place[], slope_S: number, least_A: number): Fall[] {
  const flats = flatsOf(places)
  for (;;) {
    const falls = flats.slice(1).map((to, k) => fallBetween(places, flats[k]!, to))
    const stand = falls.map((one, k) => {
      const depth_A = depthOf(places, falls[k - 1]?.at ?? 0, falls[k + 1]?.at ?? places.length - 1)
      return Math.min(depth_A, netOf(one, Math.max(one.left.fall_S, one.right.fall_S)) / 2, netOf(one, slope_S) / 2)
    })
    const smallest = stand.reduce((best, one, k) => (one < stand[best]! ? k : best), 0)
    if (falls.length === 0 || stand[smallest]! >= least_A) return falls
    const isLeftFlatter = places[flats[smallest]!]!.fall_S <= places[flats[smallest + 1]!]!.fall_S
    flats.splice(isLeftFlatter ? smallest + 1 : smallest, 1)
  }
}

/** What a fall takes beyond what the curve would have lost anyway between its two ledges, falling so steeply, A. */
const netOf = ({ left, right }: Fall, slope_S: number): number =>
  left.current_A - right.current_A - Math.max(slope_S, 0) * (right.voltage_V - left.voltage_V)

function fallBetween(places: readonly Place[], from: number, to: number): Fall {
  let at = from
  for (let k = from; k <= to; k++) if (places[k]!.fall_S > places[at]!.fall_S) at = k
  return { left: places[from]!, peak: places[at]!, right: places[to]!, at }
}

/** How far the curve lies at most under the lowest concave curve over it, between two places, A. */
function depthOf(places: readonly Place[], from: number, to: number): number {
  const hull: number[] = []
  for (let k = from; k <= to; k++) {
    while (hull.length >= 2 && !isConcave(places[hull.at(-2)!]!, places[hull.at(-1)!]!, places[k]!)) hull.pop()
    hull.push(k)
  }
  let most_A = 0
  for (let side = 1; side < hull.length; side++) {
    const [a, b] = [places[hull[side - 1]!]!, places[hull[side]!]!]
    const slope = (b.current_A - a.current_A) / (b.voltage_V - a.voltage_V)
    for (let k = hull[side - 1]! + 1; k < hull[side]!; k++) {
      const { voltage_V, current_A } = places[k]!
      most_A = Math.max(most_A, a.current_A + slope * (voltage_V - a.voltage_V) - current_A)
    }
  }
  return most_A
}

const isConcave = (a: Place, b: Place, c: Place): boolean =>
  (b.current_A - a.current_A) * (c.voltage_V - b.voltage_V) > (c.current_A - b.current_A) * (b.voltage_V - a.voltage_V)

/** Places where the curve is flatter than on both sides, and its beginning. */
function flatsOf(places: readonly Place[]): number[] {
  const flats: number[] = []
  for (let k = 0; k < places.length - 1; k++) {
    const here = places[k]!.fall_S
    const before = k === 0 ? Number.POSITIVE_INFINITY : places[k - 1]!.fall_S
    if (here < before && here <= places[k + 1]!.fall_S) flats.push(k)
  }
  return flats
}
