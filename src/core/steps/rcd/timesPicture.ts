/** The timed trips of a device as a picture: time against current, with its limits. */
import { standingFor } from '../../quantity/span'
import { judgeTrip, type RcdRules } from '../../rcd/judgeRcd'
import {
  type FiveSchool,
  type Multiple,
  multiples,
  type Rcd,
  tripBand,
  tripCurrent_mA,
  type Waveform,
} from '../../rcd/limits'
import type { TimedMark, TimesPicture } from '../picture'
import type { ReadTrip } from './tripRuling'

export type TimedDevice = {
  rcd: Rcd
  rules: Pick<RcdRules, 'halfWait_ms' | 'place'>
  five: FiveSchool
  waveform: Waveform
  /** What the school asks for: it has its lane before anything is read. */
  asked: readonly Multiple[]
}

/** The trips that took a time, each by its own verdict. */
export const timedMarks = (
  { rcd, rules }: Pick<TimedDevice, 'rcd' | 'rules'>,
  read: readonly ReadTrip[],
): TimedMark[] =>
  read.flatMap(({ trip }) =>
    trip.kind === 'time'
      ? [
          {
            multiple: trip.multiple,
            angle_deg: trip.angle_deg ?? 0,
            time_ms: standingFor(trip.time),
            isBound: trip.time.bound !== 'exact',
            verdict: judgeTrip(rcd, trip, rules).verdict,
          },
        ]
      : [],
  )

export function timesPicture(
  device: TimedDevice,
  read: readonly ReadTrip[],
  beside: TimesPicture['beside'] = [],
): TimesPicture {
  const { rcd, rules, five, waveform, asked } = device
  const trips = timedMarks(device, read)
  const told = new Set<number>([...asked, ...trips.map((one) => one.multiple)])
  return {
    kind: 'times',
    limits: multiples
      .filter((multiple) => told.has(multiple))
      .map((multiple) => ({
        multiple,
        current_mA: tripCurrent_mA(rcd, multiple, five, waveform),
        ...(multiple === 0.5 ? { least_ms: rules.halfWait_ms, most_ms: null } : tripBand(rcd, multiple)),
      })),
    trips,
    beside: beside.map(({ tag, trips: others }) => ({ tag, trips: others.filter((one) => told.has(one.multiple)) })),
  }
}
