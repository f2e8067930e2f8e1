import { spoken } from '@/words/language'

/** A day such as 2026-03-07 as it is written everywhere in print. */
export const dayWords = (day: string): string =>
  new Intl.DateTimeFormat(spoken().locale, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  }).format(new Date(`${day}T00:00:00Z`))

/** The day of an instant at a place, as 2026-03-07. */
export const dayIn = (at_ms: number, timeZone: string): string =>
  new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' }).format(at_ms)
