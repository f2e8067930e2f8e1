/** The shift that a day is planned for, in the time of the site. */
import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone'
import utc from 'dayjs/plugin/utc'
import type { Span } from '@/core/evaluation/dayPlan'
import { clockTime, dayOf } from '../shell/time'

dayjs.extend(utc)
dayjs.extend(timezone)

const QUARTER_ms = 15 * 60_000
export const BEGINS = '08:00'
export const ENDS = '17:00'
/** Whoever looks later than this plans for tomorrow. */
const TOO_LATE = '16:00'

export type ShiftForm = { day: string; from: string; to: string }

/** Today from now on; before work begins from its beginning, and in the evening tomorrow. */
export function shiftAt(now: number, timeZone: string): ShiftForm {
  const clock = clockTime(now, timeZone)
  const today = dayOf(now, timeZone)
  if (clock < BEGINS) return { day: today, from: BEGINS, to: ENDS }
  if (clock >= TOO_LATE) return { day: dayjs(today).add(1, 'day').format('YYYY-MM-DD'), from: BEGINS, to: ENDS }
  return { day: today, from: clockTime(Math.ceil(now / QUARTER_ms) * QUARTER_ms, timeZone), to: ENDS }
}

/** Today from now on, as long as there is work in it; any other day from its beginning. */
export function shiftOn(day: string, now: number, timeZone: string): ShiftForm {
  const first = shiftAt(now, timeZone)
  return first.day === day ? first : { day, from: BEGINS, to: ENDS }
}

/** A time of a day at the site, ms since 1970. @param clock as 08:15. */
export const timeAt = (day: string, clock: string, timeZone: string): number =>
  dayjs.tz(`${day} ${clock}`, timeZone).valueOf()

/** From midnight to midnight at the site. */
export const wholeDay = (day: string, timeZone: string): Span => ({
  from: timeAt(day, '00:00', timeZone),
  to: timeAt(dayjs(day).add(1, 'day').format('YYYY-MM-DD'), '00:00', timeZone),
})
