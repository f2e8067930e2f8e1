/** The verdict on the trips of a residual current device: each reading by itself, then what they are together. */
import { judge } from '../verdict/judge'
import { type Figures, type Verdict, worst } from '../verdict/verdict'
import {
  ADDITIONAL_PROTECTION_mA,
  DC_DETECTOR_mA,
  HALF_TOLERANCE_ms,
  type HalfSchool,
  halfSchools,
  type Multiple,
  type Rcd,
  rampShares,
  tripBand,
  type Waveform,
} from './limits'

export const sequenceSchools = ['single', 'three-multiples', 'four-multiples'] as const
export type SequenceSchool = (typeof sequenceSchools)[number]
export const rcdPlaces = ['circuit', 'charge-point'] as const
export type RcdPlace = (typeof rcdPlaces)[number]

export type Time = { value_ms: number; bound: 'exact' | 'more-than' | 'less-than' }
/** One trip: a time at a multiple, or the current at which a ramp ended. */
export type Trip = { angle_deg: 0 | 180 | null; waveform: Waveform } & (
  | { kind: 'time'; multiple: Multiple; time: Time }
  | { kind: 'ramp'; current_mA: number }
)

export type RcdRules = { sequence: SequenceSchool; half: HalfSchool; place: RcdPlace }
export type RcdFinding = { code: string; figures: Figures; verdict: Verdict; trip: number | null }
export type RcdJudged = { verdict: Verdict; findings: RcdFinding[]; recorded: Time | null }

type One = { verdict: Verdict; code: string; figures: Figures }

/** One trip by itself. */
export function judgeTrip(rcd: Rcd, trip: Trip, rules: Pick<RcdRules, 'half' | 'place'>): One {
  if (trip.kind === 'ramp') return judgeRamp(rcd, trip.current_mA, trip.waveform, rules.place)
  if (!rampShares(rcd.type, trip.waveform)) return notForType(trip.waveform)
  return trip.multiple === 0.5 ? judgeHalf(trip.time, rules.half) : judgeTime(rcd, trip.multiple, trip.time)
}

const notForType = (waveform: Waveform): One => ({
  verdict: 'not-yet',
  code: 'waveform-not-for-type',
  figures: { waveform },
})

/** No trip is asked for: a time that was read to its end is a trip, unless it is as long as the school waits. */
function judgeHalf({ value_ms, bound }: Time, school: HalfSchool): One {
  const wait_ms = halfSchools[school]
  const figures = { time_ms: value_ms, wait_ms }
  if (value_ms >= wait_ms - HALF_TOLERANCE_ms && bound !== 'less-than')
    return { verdict: 'within', code: 'half-no-trip', figures }
  if (bound === 'more-than') return { verdict: 'not-yet', code: 'half-too-short', figures }
  return { verdict: 'outside', code: 'half-tripped', figures }
}

function judgeTime(rcd: Rcd, multiple: Exclude<Multiple, 0.5>, time: Time): One {
  const { least_ms, most_ms } = tripBand(rcd, multiple)
  const figures = { time_ms: time.value_ms, most_ms, multiple, ...(least_ms === null ? {} : { least_ms }) }
  const band = { low: least_ms, high: most_ms, closeLow: null, closeHigh: null }
  const { verdict, where } = judge({ value: time.value_ms, bound: time.bound }, band, 0)
  const code = where === 'below' ? 'too-fast' : where === 'above' ? 'too-slow' : `time-${verdict}`
  return { verdict, code, figures }
}

/** A ramp that trips below its lower bound is outside too: too sensitive, a standing leakage, or another device. */
function judgeRamp(rcd: Rcd, current_mA: number, waveform: Waveform, place: RcdPlace): One {
  const detector = place === 'charge-point' && waveform === 'dc' && rcd.type !== 'B'
  const shares = rampShares(rcd.type, waveform)
  if (!detector && !shares) return notForType(waveform)
  const least_mA = detector ? DC_DETECTOR_mA.least : shares!.least * rcd.rated_mA
  const most_mA = detector ? DC_DETECTOR_mA.most : shares!.most * rcd.rated_mA
  const figures = { current_mA, least_mA, most_mA }
  const band = { low: least_mA, high: most_mA, closeLow: null, closeHigh: null }
  const { verdict, where } = judge({ value: current_mA, bound: 'exact' }, band, 0)
  if (where === 'below' && place === 'charge-point' && waveform === 'pulsating')
    return { verdict: 'not-yet', code: 'detector-tripped-first', figures }
  const code = where === 'below' ? 'ramp-too-sensitive' : where === 'above' ? 'ramp-too-high' : `ramp-${verdict}`
  return { verdict, code, figures }
}

/**
 * All trips of a device. What the school asks for and nobody read is named; without a single trip at or up to the
 * rated current nothing is proved, whatever half of it did.
 */
export function judgeRcd(rcd: Rcd, trips: readonly Trip[], rules: RcdRules): RcdJudged {
  const findings: RcdFinding[] = trips.map((trip, k) => ({ ...judgeTrip(rcd, trip, rules), trip: k }))
  const wanting = wantingTrips(rcd, trips, rules.sequence)
  findings.push(
    ...wanting.map((figures) => ({ code: 'trip-wanting', figures, verdict: 'not-yet' as const, trip: null })),
  )
  const read = findings.filter((one) => one.trip !== null)
  const proves = read.some((one) => {
    const trip = trips[one.trip!]!
    return (trip.kind === 'ramp' || trip.multiple !== 0.5) && one.verdict !== 'not-yet'
  })
  const found = worst(read.map((one) => one.verdict))
  const verdict = !proves && found !== 'outside' ? 'not-yet' : found
  return { verdict, findings, recorded: recordedTime(rcd, trips, rules.sequence) }
}

/** The trips that a school asks for, as multiple and half-wave; `angle_deg` is null where either will do. */
export function askedTrips(rcd: Rcd, school: SequenceSchool): { multiple: Multiple; angle_deg: 0 | 180 | null }[] {
  if (school === 'single') return [{ multiple: 1, angle_deg: null }]
  const twice: Multiple[] = school === 'four-multiples' ? [2] : []
  const five: Multiple[] = rcd.rated_mA <= ADDITIONAL_PROTECTION_mA ? [5] : []
  return [0.5 as const, 1 as const, ...twice, ...five].flatMap((multiple) => [
    { multiple, angle_deg: 0 as const },
    { multiple, angle_deg: 180 as const },
  ])
}

function wantingTrips(rcd: Rcd, trips: readonly Trip[], school: SequenceSchool): Figures[] {
  return askedTrips(rcd, school)
    .filter(
      (asked) =>
        !trips.some(
          (trip) =>
            trip.kind === 'time' &&
            trip.multiple === asked.multiple &&
            (asked.angle_deg === null || trip.angle_deg === asked.angle_deg),
        ),
    )
    .map(({ multiple, angle_deg }) => ({ multiple, ...(angle_deg === null ? {} : { angle_deg }) }))
}

/** The multiple of which the longest time goes on the schedule. */
export const recordedMultiple = (rcd: Rcd, school: SequenceSchool): 1 | 5 =>
  school !== 'single' && rcd.rated_mA <= ADDITIONAL_PROTECTION_mA ? 5 : 1

/** The longest time at the multiple that goes on the schedule: five times the rated current, or once. */
function recordedTime(rcd: Rcd, trips: readonly Trip[], school: SequenceSchool): Time | null {
  const order: Multiple[] = recordedMultiple(rcd, school) === 1 ? [1, 5, 2] : [5, 1, 2]
  for (const multiple of order) {
    const times = trips.flatMap((trip) => (trip.kind === 'time' && trip.multiple === multiple ? [trip.time] : []))
    if (times.length > 0) return times.reduce((most, one) => (one.value_ms >= most.value_ms ? one : most))
  }
  return null
}
