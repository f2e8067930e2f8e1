/**
 * What may be behind the shape of a curve. Each candidate is simulated, fitted to the points together with all that is
 * not known for sure (light, warmth, series resistance, shunt), and ranked by likelihood with a price for each further
 * figure (G. Schwarz, "Estimating the dimension of a model", 1978; from memory). Shapes: IEC 62446-1 annex (from memory).
 */
import { Matrix, solve } from 'ml-matrix'
import { atConditions } from '../pv/deSoto'
import { type Candidate, candidatesFor, type CurveCause, type State } from './candidates'
import { type CurveFeatures, featuresOf } from './features'
import { type CurvePoint, type CurveRefusal, inOrder } from './points'
import type { CurveQuestion } from './question'
import { groupOf, GROUPS_PER_MODULE } from './reference'
import { Sweep } from './stringCurve'

export type Explanation = {
  id: CurveCause
  /** What it needs: groups, ohm, per cent, kelvin. */
  figures: Readonly<Record<string, number>>
  /** How far it lies behind the best one, in standard deviations of the readings; 0 for the best. */
  behind_sigma: number
  /** Of all that was tried. */
  probability: number
  /** The curve that it would give, at the voltages that were looked at. */
  curve: readonly CurvePoint[]
}

export type Explained = {
  /** Nothing is needed to explain the curve but what is not known for sure anyway. */
  isSound: boolean
  /** Best first; a sound string is one of them, wherever it stands. */
  ranked: readonly Explanation[]
  /** By how much the first is ahead of the next that is of another kind, in standard deviations. */
  ahead_sigma: number
  canTell: boolean
}

/** So many points are looked at: enough for each shape, few enough to be quick. */
const POINTS = 44
/** What a model of a real string is off by at best: share of the short-circuit current, and of the open-circuit voltage. */
const MODEL_SHARE = { current: 0.004, voltage: 0.0015 }
/** How well a data sheet tells series resistance, shunt and ideality, as deviations of their logarithms [D]. */
const SPREAD = { series: 0.13, shunt: 0.5, ideality: 0.03 }
/** Modules of one type differ by so much in current, and by so much in voltage (k = 1). */
const MODULES_pct = { current: 0.5, voltage: 0.4 }
/** A cause is believed where it explains so much more than a sound string does, in squares of deviations [D]. */
const BELIEVED = 12
/** What each further figure costs, in squares of deviations. */
const PRICE = Math.log(POINTS)
/** Two are told apart from here on, in standard deviations. */
const TOLD_APART_sigma = 2
/** Every candidate is brought near; the best of each kind to where nothing is gained any more. */
const MOVES = { near: 2, whole: 8 }
const BEST_OF_KIND = 2

/** Everything that may be otherwise than the data sheet and the sensors say. The first five are never known for sure. */
const PLAIN: State = {
  lnLight: 0,
  warmer_K: 0,
  lnSeries: 0,
  lnShunt: 0,
  lnIdeality: 0,
  joint_ohm: 0,
  shade: 0,
  shade2: 0,
}

class Fitting {
  private readonly few: readonly CurvePoint[]
  private readonly sigmas_A: readonly number[]
  private readonly priors: Readonly<Partial<Record<keyof State, number>>>

  constructor(
    private readonly question: CurveQuestion,
    features: CurveFeatures,
  ) {
    const { module, irradiance_Wm2, irradianceUncertainty_Wm2, cellTemperatureUncertainty_K, instrument_pct } = question
    this.few = alongCurve(inOrder(question.points), features, POINTS)
    const { isc_A, voc_V, scatter_A } = features
    this.sigmas_A = this.few.map((_, k) => {
      const slope_S = slopeAt(this.few, k)
      return Math.hypot(scatter_A, MODEL_SHARE.current * isc_A, slope_S * MODEL_SHARE.voltage * voc_V)
    })
    const perK = Math.abs(module.beta_pctPerK)
    this.priors = {
      lnLight:
        Math.hypot(irradianceUncertainty_Wm2 / irradiance_Wm2, instrument_pct / 100) / 2 + MODULES_pct.current / 100,
      warmer_K: Math.hypot(cellTemperatureUncertainty_K / 2, instrument_pct / 2 / perK, MODULES_pct.voltage / perK),
      lnSeries: SPREAD.series,
      lnShunt: SPREAD.shunt,
      lnIdeality: SPREAD.ideality,
    }
  }

  get points(): readonly CurvePoint[] {
    return this.few
  }

  /** Currents of a state at the voltages that are looked at. */
  currentsOf(candidate: Candidate, state: State): number[] {
    const {
      parameters,
      module,
      irradiance_Wm2,
      cellTemperature_C,
      modulesInSeries,
      stringsInParallel = 1,
    } = this.question
    const here = atConditions(
      parameters,
      module,
      irradiance_Wm2 * Math.exp(state.lnLight),
      cellTemperature_C + state.warmer_K,
    )
    const ideality = Math.exp(state.lnIdeality)
    const sound = groupOf({
      ...here,
      // A rounder knee at the same open-circuit voltage: the saturation current goes with the ideality.
      saturationCurrent_A: here.photocurrent_A * (here.saturationCurrent_A / here.photocurrent_A) ** (1 / ideality),
      modifiedIdeality_V: here.modifiedIdeality_V * ideality,
      seriesResistance_ohm: here.seriesResistance_ohm * Math.exp(state.lnSeries),
      shuntResistance_ohm: here.shuntResistance_ohm * Math.exp(-state.lnShunt),
    })
    const all = modulesInSeries * GROUPS_PER_MODULE
    const joint_ohm = Math.max(0, state.joint_ohm)
    const like = new Sweep(candidate.groups(sound, all, state), joint_ohm)
    const odd = candidate.oddString && new Sweep(candidate.oddString(sound, all), joint_ohm)
    const alike = stringsInParallel - (odd ? 1 : 0)
    return this.few.map(([voltage]) => alike * like.at(voltage).current_A + (odd ? odd.at(voltage).current_A : 0))
  }

  /** Deviations of all points, and of all that is known beforehand, in their own standard deviations. */
  private offOf(candidate: Candidate, state: State): number[] {
    const off = this.currentsOf(candidate, state).map((current, k) => (this.few[k]![1] - current) / this.sigmas_A[k]!)
    for (const name of Object.keys(this.priors) as (keyof State)[])
      if (!candidate.free.includes(name)) off.push(state[name] / this.priors[name]!)
    for (const name of candidate.free) {
      const { about, spread } = candidate.believed?.[name] ?? { about: 0, spread: Number.POSITIVE_INFINITY }
      if (Number.isFinite(spread)) off.push((state[name] - about) / spread)
    }
    return off
  }

  /** Gauss and Newton's way down, shortened where a step does not lead down. */
  fit(candidate: Candidate, from: State, moves: number): { state: State; cost: number } {
    const names = [...new Set<keyof State>([...NEVER_SURE, ...candidate.free])]
    let state = from
    let off = this.offOf(candidate, state)
    let cost = squares(off)
    let damping = 1e-2
    for (let move = 0; move < moves; move++) {
      const columns = names.map((name) => {
        const step = STEP[name]
        const moved = this.offOf(candidate, { ...state, [name]: state[name] + step })
        return moved.map((one, k) => (one - off[k]!) / step)
      })
      const next = this.downhill(candidate, state, names, columns, off, cost, damping)
      if (!next) break
      const gained = cost - next.cost
      ;({ state, off, cost, damping } = next)
      if (gained < 3e-3 * Math.max(1, cost)) break
    }
    return { state, cost }
  }

  private downhill(
    candidate: Candidate,
    state: State,
    names: readonly (keyof State)[],
    columns: readonly number[][],
    off: readonly number[],
    cost: number,
    damping: number,
  ) {
    for (let grown = damping; grown < 1e6; grown *= 10) {
      const move = solveDamped(columns, off, grown)
      const there = { ...state }
      names.forEach((name, k) => {
        const [low, high] = candidate.bounds?.[name] ?? BOUNDS[name]
        there[name] = Math.min(high, Math.max(low, state[name] - move[k]!))
      })
      const offThere = this.offOf(candidate, there)
      const costThere = squares(offThere)
      if (costThere < cost) return { state: there, off: offThere, cost: costThere, damping: grown / 10 }
    }
    return null
  }
}

const NEVER_SURE = ['lnLight', 'warmer_K', 'lnSeries', 'lnShunt', 'lnIdeality'] as const
const STEP: State = {
  lnLight: 1e-4,
  warmer_K: 1e-2,
  lnSeries: 1e-3,
  lnShunt: 1e-2,
  lnIdeality: 1e-4,
  joint_ohm: 1e-3,
  shade: 1e-4,
  shade2: 1e-4,
}
const BOUNDS: Record<keyof State, [number, number]> = {
  lnLight: [-3, 1],
  warmer_K: [-60, 60],
  lnSeries: [-3, 3],
  lnShunt: [-4, 7],
  lnIdeality: [-0.5, 0.8],
  joint_ohm: [0, 500],
  shade: [0.005, 0.999],
  shade2: [0.005, 0.999],
}

const squares = (off: readonly number[]): number => {
  let sum = 0
  for (const one of off) sum += one * one
  return Number.isFinite(sum) ? sum : Number.POSITIVE_INFINITY
}

/** Least squares of a few unknowns with damping. What nothing depends on stays where it is. */
function solveDamped(columns: readonly number[][], off: readonly number[], damping: number): number[] {
  const normal = columns.map((a, i) =>
    columns.map((b, j) => dot(a, b) * (i === j ? 1 + damping : 1) + (i === j ? NEVER_SINGULAR : 0)),
  )
  const pull = columns.map((column) => dot(column, off))
  return solve(new Matrix(normal), Matrix.columnVector(pull)).to1DArray()
}
const NEVER_SINGULAR = 1e-12

function dot(a: readonly number[], b: readonly number[]): number {
  let sum = 0
  for (let k = 0; k < a.length; k++) sum += a[k]! * b[k]!
  return sum
}

/** How steeply the points fall about one of them, S. */
function slopeAt(points: readonly CurvePoint[], k: number): number {
  const [a, b] = [points[Math.max(0, k - 1)]!, points[Math.min(points.length - 1, k + 1)]!]
  return b[0] > a[0] ? Math.abs((b[1] - a[1]) / (b[0] - a[0])) : 0
}

/** Points at even distances along the curve as it is drawn. */
function alongCurve(sorted: readonly CurvePoint[], { voc_V, isc_A }: CurveFeatures, most: number): CurvePoint[] {
  const usable = sorted.filter(([voltage, current]) => voltage >= 0 && current >= -0.02 * isc_A)
  const ways = [0]
  let lowest = usable[0]![1]
  for (let k = 1; k < usable.length; k++) {
    const fallen = Math.max(0, lowest - usable[k]![1])
    lowest = Math.min(lowest, usable[k]![1])
    ways.push(ways[k - 1]! + (usable[k]![0] - usable[k - 1]![0]) / voc_V + fallen / isc_A)
  }
  const whole = ways.at(-1)!
  const kept: CurvePoint[] = []
  for (let k = 0; k < usable.length; k++)
    if (ways[k]! >= (whole * kept.length) / (most - 1) - 1e-9) kept.push(usable[k]!)
  return kept
}

/**
 * Explains a curve, or says why its points are none.
 *
 * @param onProgress told the share of the work that is done, from 0 to 1.
 */
export function explain(
  question: CurveQuestion,
  onProgress: (share: number) => void = () => {},
): Explained | CurveRefusal {
  const features = featuresOf(question.points)
  if (typeof features === 'string') return features
  const fitting = new Fitting(question, features)
  const candidates = candidatesFor(question, features)
  const tryOne = (candidate: Candidate, from: State, moves: number): Tried => {
    const { state, cost } = fitting.fit(candidate, from, moves)
    return { candidate, state, cost: cost + PRICE * candidate.price }
  }
  const near = candidates.map((candidate, k) => {
    onProgress((0.5 * k) / candidates.length)
    return tryOne(candidate, { ...PLAIN, ...candidate.start }, MOVES.near)
  })
  const hopeful = bestOfEach(near, BEST_OF_KIND)
  const whole = hopeful.map(({ candidate, state }, k) => {
    onProgress(0.5 + (0.5 * k) / hopeful.length)
    return tryOne(candidate, state, MOVES.whole)
  })
  return rankedFrom(bestOfEach(whole, 1), fitting)
}

type Tried = { candidate: Candidate; state: State; cost: number }

/** Of each kind those that fit best: three groups in shade, not two. The best of all first. */
function bestOfEach(tried: readonly Tried[], most: number): Tried[] {
  const known = new Map<CurveCause, number>()
  return [...tried]
    .sort((a, b) => a.cost - b.cost)
    .filter(({ candidate: { id } }) => {
      const count = known.get(id) ?? 0
      known.set(id, count + 1)
      return count < most
    })
}

function rankedFrom(best: readonly Tried[], fitting: Fitting): Explained {
  const least = best[0]!.cost
  const sound = best.find(({ candidate }) => candidate.id === 'sound')!
  const weights = best.map(({ cost }) => Math.exp(-(cost - least) / 2))
  const all = weights.reduce((sum, one) => sum + one)
  const isSound = sound.cost - least < BELIEVED
  const ranked = best.map(
    (one, k): Explanation => ({
      id: one.candidate.id,
      figures: one.candidate.figures(one.state),
      behind_sigma: Math.sqrt(Math.max(0, one.cost - least)),
      probability: weights[k]! / all,
      curve: fitting
        .currentsOf(one.candidate, one.state)
        .map((current, k): CurvePoint => [fitting.points[k]![0], current]),
    }),
  )
  const ahead_sigma = ranked[1]?.behind_sigma ?? Number.POSITIVE_INFINITY
  return { isSound, ranked, ahead_sigma, canTell: ahead_sigma >= TOLD_APART_sigma }
}
