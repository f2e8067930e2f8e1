import { spoken } from '@/words/language'

/** Times as people read them, 24 h, in the site's own zone. */
const clocks = new Map<string, Intl.DateTimeFormat>()

function format(key: string, options: Intl.DateTimeFormatOptions, timeZone: string): Intl.DateTimeFormat {
  const { locale } = spoken()
  const name = `${key}|${timeZone}|${locale}`
  let found = clocks.get(name)
  if (!found) {
    found = new Intl.DateTimeFormat(locale, { ...options, timeZone })
    clocks.set(name, found)
  }
  return found
}

export const clockTime = (at: string | number, timeZone: string): string =>
  format('clock', { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }, timeZone).format(new Date(at))

export const dayName = (at: string | number, timeZone: string): string =>
  format('day', { weekday: 'long', day: 'numeric', month: 'long' }, timeZone).format(new Date(at))

export const shortDay = (at: string | number, timeZone: string): string =>
  format('short', { day: 'numeric', month: 'short' }, timeZone).format(new Date(at))

/** A day that may lie in another year. */
export const yearDay = (at: string | number, timeZone: string): string =>
  format('year', { day: 'numeric', month: 'short', year: 'numeric' }, timeZone).format(new Date(at))

export const fullDay = (at: string | number, timeZone: string): string =>
  format('full', { day: 'numeric', month: 'long', year: 'numeric' }, timeZone).format(new Date(at))

/** When something was: today by the clock, any other day by its date too, or months look like one morning. */
export const moment = (at: string | number, timeZone: string, now: number): string =>
  dayOf(at, timeZone) === dayOf(now, timeZone)
    ? clockTime(at, timeZone)
    : `${yearDay(at, timeZone)}, ${clockTime(at, timeZone)}`

/** The day at a place, as 2026-03-07. */
export const dayOf = (at: string | number, timeZone: string): string => {
  const parts = format('iso', { year: 'numeric', month: '2-digit', day: '2-digit' }, timeZone).formatToParts(
    new Date(at),
  )
  const part = (type: string): string => parts.find((one) => one.type === type)?.value ?? ''
  return `${part('year')}-${part('month')}-${part('day')}`
}
