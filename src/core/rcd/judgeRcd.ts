/** The verdict on the trips of a residual current device: each reading by itself, then what they are together. */
import type { Span } from '../quantity/span'
import { type Band, type Compared, compare } from '../verdict/compare'
import { type Decided, type Figures, gravest } from '../verdict/verdict'
import {
  ADDITIONAL_PROTECTION_mA,
  DC_DETECTOR_mA,
  HALF_TOLERANCE_ms,
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

/** One trip: how long it took at a multiple, or the current at which a ramp ended. */
export type Trip = { angle_deg: 0 | 180 | null; waveform: Waveform } & (
  | { kind: 'time'; multiple: Multiple; time: Span }
  | { kind: 'ramp'; current: Span }
)

/** `halfWait_ms`: how long half the rated current has to flow without a trip. */
export type RcdRules = { sequence: SequenceSchool; halfWait_ms: number; place: RcdPlace }
export type OneTrip = {
  verdict: Decided
  code: string
  figures: Figures
  band: Band | null
  closeBy: Compared['closeBy']
}
export type RcdFinding = { code: string; figures: Figures; verdict: Decided; trip: number | null }
export type RcdJudged = { verdict: Decided; findings: RcdFinding[]; recorded: Span | null }

/** The figure that a span stands for: its known end. */
const known = ({ least, most, bound }: Span): number => (bound === 'less-than' ? most : least)

/** One trip by itself. */
export function judgeTrip(rcd: Rcd, trip: Trip, rules: Pick<RcdRules, 'halfWait_ms' | 'place'>): OneTrip {
  if (trip.kind === 'ramp') return judgeRamp(rcd, trip.current, trip.waveform, rules.place)
  if (!rampShares(rcd.type, trip.waveform)) return notForType(trip.waveform)
  return trip.multiple === 0.5 ? judgeHalf(trip.time, rules.halfWait_ms) : judgeTime(rcd, trip.multiple, trip.time)
}

const bandless = { band: null, closeBy: null } as const

const notForType = (waveform: Waveform): OneTrip => ({
  verdict: 'not-yet',
  code: 'waveform-not-for-type',
  figures: { waveform },
  ...bandless,
})

/** No trip is asked for: a time that was read to its end is a trip, however long it took. */
function judgeHalf(time: Span, wait_ms: number): OneTrip {
  const figures = { time_ms: known(time), wait_ms }
  if (time.bound !== 'more-than') return { verdict: 'outside', code: 'half-tripped', figures, ...bandless }
  const isLongEnough = time.least >= wait_ms - HALF_TOLERANCE_ms
  return isLongEnough
    ? { verdict: 'within', code: 'half-no-trip', figures, ...bandless }
    : { verdict: 'not-yet', code: 'half-too-short', figures, ...bandless }
}

function judgeTime(rcd: Rcd, multiple: Exclude<Multiple, 0.5>, time: Span): OneTrip {
  const { least_ms, most_ms } = tripBand(rcd, multiple)
  const figures = { time_ms: known(time), most_ms, multiple, ...(least_ms === null ? {} : { least_ms }) }
  const band = { low: least_ms, high: most_ms, closeLow: null, closeHigh: null }
  const { verdict, where, closeBy } = compare(time, band)
  const code = where === 'below' ? 'too-fast' : where === 'above' ? 'too-slow' : `time-${verdict}`
  return { verdict, code, figures, band, closeBy }
}

/** A ramp that trips below its lower bound is outside too: too sensitive, a standing leakage, or another device. */
function judgeRamp(rcd: Rcd, current: Span, waveform: Waveform, place: RcdPlace): OneTrip {
  const detector = place === 'charge-point' && waveform === 'dc' && rcd.type !== 'B'
  const shares = rampShares(rcd.type, waveform)
  if (!detector && !shares) return notForType(waveform)
  const least_mA = detector ? DC_DETECTOR_mA.least : shares!.least * rcd.rated_mA
  const most_mA = detector ? DC_DETECTOR_mA.most : shares!.most * rcd.rated_mA
  const figures = { current_mA: known(current), least_mA, most_mA }
  // A detector that trips at 3 mA trips where it must not.
  const band: Band = { low: least_mA, high: most_mA, closeLow: null, closeHigh: null, lowIsOutside: detector }
  const { verdict, where, closeBy } = compare(current, band)
  if (where === 'below' && place === 'charge-point' && waveform === 'pulsating')
    return { verdict: 'not-yet', code: 'detector-tripped-first', figures, band, closeBy: null }
  const code = where === 'below' ? 'ramp-too-sensitive' : where === 'above' ? 'ramp-too-high' : `ramp-${verdict}`
  return { verdict, code, figures, band, closeBy }
}

/** What is asked for and what was read of it: a trip that decided nothing has not been read. */
export function judgeRcd(rcd: Rcd, trips: readonly Trip[], rules: RcdRules): RcdJudged {
  const findings: RcdFinding[] = trips.map((trip, k) => {
    const { verdict, code, figures } = judgeTrip(rcd, trip, rules)
    return { verdict, code, figures, trip: k }
  })
  for (const figures of wantingTrips(rcd, trips, rules.sequence))
    findings.push({ code: 'trip-wanting', figures, verdict: 'not-yet', trip: null })
  return {
    verdict: gravest(findings.map((one) => one.verdict)),
    findings,
    recorded: recordedTime(rcd, trips, rules.sequence),
  }
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
            // An alternating current is asked for; another waveform is read besides it and never for it.
            trip.waveform === 'ac' &&
            trip.multiple === asked.multiple &&
            (asked.angle_deg === null || trip.angle_deg === asked.angle_deg),
        ),
    )
    .map(({ multiple, angle_deg }) => ({ multiple, ...(angle_deg === null ? {} : { angle_deg }) }))
}

/** The multiple of which the longest time goes on the schedule. */
export const recordedMultiple = (rcd: Rcd, school: SequenceSchool): 1 | 5 =>
  school !== 'single' && rcd.rated_mA <= ADDITIONAL_PROTECTION_mA ? 5 : 1

/** The longest time at the multiple that goes on the schedule; one that ran past the display is longer than its figure. */
function recordedTime(rcd: Rcd, trips: readonly Trip[], school: SequenceSchool): Span | null {
  const order: Multiple[] = recordedMultiple(rcd, school) === 1 ? [1, 5, 2] : [5, 1, 2]
  for (const multiple of order) {
    const times = trips.flatMap((trip) => (trip.kind === 'time' && trip.multiple === multiple ? [trip.time] : []))
    if (times.length > 0) return times.reduce((most, one) => (one.most > most.most ? one : most))
  }
  return null
}
