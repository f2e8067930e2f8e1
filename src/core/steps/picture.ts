/** Pictures that a step wants beside its working: data only, drawn by the interface. */
import type { CurvePoint } from '../curve/points'
import type { CurveStep } from '../curve/steps'
import type { Unit } from '../quantity/unit'
import type { Verdict } from '../verdict/verdict'

/** Trips of a residual current device: time against the multiple of its rated current. */
export type TimesPicture = {
  kind: 'times'
  /** At half the rated current the limit is a wait: nothing may happen before it is over. */
  limits: { multiple: number; current_mA: number; least_ms: number | null; most_ms: number | null }[]
  trips: TimedMark[]
  /** The same trips at alike parts of the site, by their tags. */
  beside: { tag: string; trips: TimedMark[] }[]
}
export type TimedMark = { multiple: number; angle_deg: 0 | 180; time_ms: number; isBound: boolean; verdict: Verdict }

/** An electrode and its spikes: what was read with the potential spike in each of its places. */
export type SpikesPicture = {
  kind: 'spikes'
  /** Electrode to current spike, m; null where nobody measured it. */
  distance_m: number | null
  /** Places of the potential spike as shares of the way, and what was read there; null where it is not read yet. */
  places: { share: number; read_ohm: number | null }[]
  /** Where a curve is read off, null where readings are averaged. */
  true_share: number | null
  /** Even soil fitted to a curve; empty where there is none. */
  even_soil: { share: number; read_ohm: number }[]
  mean_ohm: number | null
  /** How far readings may lie apart, per cent of the mean. */
  spread_pct: number
}

/** The ground around an electrode from above: the way to the current spike, and what is buried. */
export type GardenPicture = {
  kind: 'garden'
  tag: string
  /** As it was walked, or one that keeps off everything; null where there is none. */
  way: { bearing_deg: number; distance_m: number; shares: number[]; isPlanned: boolean } | null
  services: {
    tag: string
    what: string
    isMetal: boolean
    bearing_deg: number
    away_m: number
    /** It lies so that it takes part of the current. */
    spoils: boolean
  }[]
}

/** Readings of one part over time. */
export type TrendPicture = {
  kind: 'trend'
  unit: Unit
  decimals: number
  limit: number | null
  /** Since the reading before it that was set up alike; null where there is none. */
  change: { percent: number; sinceAt: number; counts: readonly [number, number] | null } | null
  points: {
    /** ms since 1970. */
    at: number
    value: number
    verdict: Verdict
    /** What was noted beside it, as a choice of the step; null where nothing was. */
    note: string | null
    /** How many there were of what is counted beside it: rods; null where nobody said. */
    count: number | null
    /** Set up as the newest one was: only then they are compared. */
    alike: boolean
    counts: boolean
  }[]
}

/** A measured curve over the one that a sound string gives at the same light and warmth. */
export type CurvePicture = {
  kind: 'curve'
  measured: readonly CurvePoint[]
  /** Empty where the module has no single diode to draw. */
  expected: readonly CurvePoint[]
  /** Both carried to standard test conditions. */
  atStc: { measured: readonly CurvePoint[]; expected: readonly CurvePoint[] }
  irradiance_Wm2: number
  cell_C: number
  voc_V: number
  isc_A: number
  vmp_V: number
  imp_A: number
  steps: readonly CurveStep[]
  /** The highest power that is expected, null where nothing is. */
  top: { vmp_V: number; imp_A: number } | null
}

/** Figures of one reading while it was taken. */
export type RisePicture = {
  kind: 'rise'
  unit: Unit
  /** The least that is allowed, null where nothing is. */
  least: number | null
  lines: readonly RiseLine[]
}
export type RiseLine = {
  slot: string
  /** Seconds since it was first seen, and the figure. */
  points: readonly (readonly [number, number])[]
  lowest: number
  highest: number
  last: number
  course: 'rises' | 'falls' | 'stands' | 'wanders'
}

/** Where along a string a fault was found, by each reading. */
export type StringPlacePicture = {
  kind: 'string-place'
  tag: string
  modules: number
  readings: readonly PlaceFound[]
  /** What all that count leave, in modules from the positive end; null where nothing was found, or places are unlike. */
  suspect: { from: number; to: number } | null
  isUnlike: boolean
  /** After which module it is opened next; null where halving has no further to go, or nobody halves. */
  openNext: number | null
}
/** One reading: where it puts the fault, in modules from the positive end; null where it found the string clean. */
export type PlaceFound = {
  from: number | null
  to: number | null
  /** The place itself, where the reading gives one. */
  at: number | null
  surface: string | null
  /** Its say ended by a remedy. */
  ended: boolean
}

export type Picture =
  | StringPlacePicture
  | RisePicture
  | TimesPicture
  | SpikesPicture
  | GardenPicture
  | TrendPicture
  | CurvePicture
