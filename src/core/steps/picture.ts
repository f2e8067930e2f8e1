/** Pictures that a step wants beside its working: data only, drawn by the interface. */
import type { Verdict } from '../verdict/verdict'

/** Trips of a residual current device: time against the multiple of its rated current. */
export type TimesPicture = {
  kind: 'times'
  /** At half the rated current the limit is a wait: nothing may happen before it is over. */
  limits: { multiple: number; current_mA: number; least_ms: number | null; most_ms: number | null }[]
  trips: { multiple: number; angle_deg: 0 | 180; time_ms: number; isBound: boolean; verdict: Verdict }[]
}

/** An electrode and its spikes: what was read with the potential spike in each of its places. */
export type SpikesPicture = {
  kind: 'spikes'
  /** Electrode to current spike, m; null where nobody measured it. */
  distance_m: number | null
  /** Places of the potential spike as shares of the way, and what was read there; null where it is not read yet. */
  places: { share: number; read_ohm: number | null }[]
  mean_ohm: number | null
  /** How far readings may lie apart, per cent of the mean. */
  spread_pct: number
}

export type Picture = TimesPicture | SpikesPicture
