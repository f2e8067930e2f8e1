/**
 * What a residual current device does at which current.
 * Source: IEC 61008-1:2010 table 1 and 9.9; BS 7671:2018 643.7 and 643.8; BS 4293 (all from memory).
 */

export const rcdTypes = ['AC', 'A', 'F', 'B'] as const
export type RcdType = (typeof rcdTypes)[number]
export const rcdKinds = ['general', 'selective'] as const
export type RcdKind = (typeof rcdKinds)[number]
/** Product standards that differ in their times: today's, and the older one with 200 ms. */
export const rcdStandards = ['iec-61008', 'bs-4293'] as const
export type RcdStandard = (typeof rcdStandards)[number]
export const waveforms = ['ac', 'pulsating', 'dc'] as const
export type Waveform = (typeof waveforms)[number]

export const multiples = [0.5, 1, 2, 5] as const
export type Multiple = (typeof multiples)[number]

export type Rcd = { type: RcdType; kind: RcdKind; rated_mA: number; standard: RcdStandard }

/** Shortest and longest time to trip, ms; `least_ms` is null where there is none. */
export type TripBand = { least_ms: number | null; most_ms: number }

const general: Readonly<Record<Exclude<Multiple, 0.5>, TripBand>> = {
  1: { least_ms: null, most_ms: 300 },
  2: { least_ms: null, most_ms: 150 },
  5: { least_ms: null, most_ms: 40 },
}
const selective: typeof general = {
  1: { least_ms: 130, most_ms: 500 },
  2: { least_ms: 60, most_ms: 200 },
  5: { least_ms: 50, most_ms: 150 },
}
const OLDER_AT_RATED_ms = 200

/**
 * The band of times in which a device opens at a multiple of its rated current.
 * @example tripBand({ type: 'A', kind: 'general', rated_mA: 30, standard: 'iec-61008' }, 5) // up to 40 ms
 */
export function tripBand(rcd: Rcd, multiple: Exclude<Multiple, 0.5>): TripBand {
  if (rcd.kind === 'selective') return selective[multiple]
  if (multiple === 1 && rcd.standard === 'bs-4293') return { least_ms: null, most_ms: OLDER_AT_RATED_ms }
  return general[multiple]
}

/** How long half the rated current flows without a trip, ms, by school: where the instrument's own wait is not known. */
export const halfSchools = { 'two-seconds': 2000, 'three-hundred': 300 } as const
export type HalfSchool = keyof typeof halfSchools
/** A display of one digit less counts: an instrument which runs two seconds shows `>1999`. */
export const HALF_TOLERANCE_ms = 1

/** Between which shares of its rated current a device trips on a slow ramp. Null where its type need not see it. */
export function rampShares(type: RcdType, waveform: Waveform): { least: number; most: number } | null {
  if (waveform === 'ac') return { least: 0.5, most: 1 }
  if (waveform === 'pulsating') return type === 'AC' ? null : { least: 0.35, most: 1.4 }
  return type === 'B' ? { least: 0.5, most: 2 } : null
}

/** The detector of smooth direct current of a charge point trips in this band, mA. Source: IEC 62955 (from memory). */
export const DC_DETECTOR_mA = { least: 3, most: 6 } as const

/** Additional protection is asked of devices up to this rated current, mA; they are read at five times as well. */
export const ADDITIONAL_PROTECTION_mA = 30
/** Where 0.25 A may stand for five times the rated current, mA. */
const FIXED_FIVE_mA = 250
export const fiveSchools = ['five-times', 'quarter-amp'] as const
export type FiveSchool = (typeof fiveSchools)[number]

/** A sound device may hold at its rated current of another shape: it is timed at this times that. Source: IEC 61008-1, IEC 62423 (from memory). */
const PULSATING_FACTOR = 1.4
const SMALL_PULSATING_FACTOR = 2
const SMALL_mA = 10
const SMOOTH_FACTOR = 2

/** How much more of a waveform flows than of the alternating current that a multiple names. */
export function waveformFactor({ rated_mA }: Pick<Rcd, 'rated_mA'>, waveform: Waveform): number {
  if (waveform === 'ac') return 1
  if (waveform === 'dc') return SMOOTH_FACTOR
  return rated_mA <= SMALL_mA ? SMALL_PULSATING_FACTOR : PULSATING_FACTOR
}

/**
 * The current that flows in a timed trip, mA. Half the rated current is no trip and flows as it is. Source: IEC 61008-1
 * table 1, note (from memory).
 * @example tripCurrent_mA({ rated_mA: 30 }, 5, 'quarter-amp') // 250
 * @example tripCurrent_mA({ rated_mA: 30 }, 1, 'five-times', 'pulsating') // 42
 */
export function tripCurrent_mA(
  rcd: Pick<Rcd, 'rated_mA'>,
  multiple: Multiple,
  school: FiveSchool,
  waveform: Waveform = 'ac',
): number {
  const isFixed = multiple === 5 && school === 'quarter-amp' && rcd.rated_mA <= ADDITIONAL_PROTECTION_mA
  const alternating = isFixed ? FIXED_FIVE_mA : multiple * rcd.rated_mA
  return multiple === 0.5 ? alternating : alternating * waveformFactor(rcd, waveform)
}
