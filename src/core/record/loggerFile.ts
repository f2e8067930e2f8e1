/** The record of a condition logger as a table, joined to readings by its clock. */
import { DateTime } from 'luxon'
import Papa from 'papaparse'
import { readValueOf } from '../quantity/readValue'
import { refuseConditions } from '../pv/conditions'
import type { Mounting } from '../pv/cellTemperature'
import type { Conditions, Entry } from './entry'
import { correctedTime } from './order'

export const MOST_LOGGER_ROWS = 100_000

/** One line of the record: its clock's time in ms, light, and one temperature. */
export type LoggerRow = { at: number; irradiance: string; warmth: string }
export type LoggerRecord = { rows: LoggerRow[]; way: 'back' | 'air'; skipped: number }
export type LoggerRead =
  | LoggerRecord
  | { refused: 'logger-empty' | 'logger-columns' | 'logger-too-many' | 'logger-times' }

const heads = {
  time: ['time', 'timestamp', 'datetime', 'date', 'zeit'],
  irradiance: ['irradiance', 'irradiation', 'g', 'gpoa', 'poa', 'wm2'],
  back: ['moduletemperature', 'moduleback', 'back', 'tmod', 'tmodule', 'module'],
  air: ['airtemperature', 'ambient', 'air', 'tair', 'tamb'],
} as const

/**
 * Reads a logger's table: time, irradiance in W/m2, and the temperature of a module's back or of the air in degC, in any
 * order, with commas, semicolons or tabs. Times without a zone are the site's own.
 *
 * @param zone IANA zone of the site.
 */
export function readLogger(text: string, zone: string): LoggerRead {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    preview: MOST_LOGGER_ROWS + 2,
    delimitersToGuess: [';', ',', '\t'],
  })
  const [names, ...lines] = parsed.data
  if (!names || lines.length === 0) return { refused: 'logger-empty' }
  if (lines.length > MOST_LOGGER_ROWS) return { refused: 'logger-too-many' }
  const column = (of: keyof typeof heads): number =>
    names.findIndex((name) => (heads[of] as readonly string[]).includes(plain(name)))
  const [time, light, back, air] = [column('time'), column('irradiance'), column('back'), column('air')]
  const warmth = back >= 0 ? back : air
  if (time < 0 || light < 0 || warmth < 0) return { refused: 'logger-columns' }
  const rows: LoggerRow[] = []
  const timeOf = timesIn(zone)
  for (const line of lines) {
    const at = timeOf(line[time] ?? '')
    const [irradiance, temperature] = [figureOf(line[light]), figureOf(line[warmth])]
    if (at !== null && irradiance !== null && temperature !== null) rows.push({ at, irradiance, warmth: temperature })
  }
  if (rows.length === 0) return { refused: 'logger-times' }
  rows.sort((a, b) => a.at - b.at)
  return { rows, way: back >= 0 ? 'back' : 'air', skipped: lines.length - rows.length }
}

/** A head without its unit, spaces and capitals. */
const plain = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[([].*$/, '')
    .replace(/[^a-z0-9]/g, '')

const WITH_ZONE = /^\d{4}-\d\d-\d\d[T ]\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:\d\d)$/
const OF_SITE = /^(\d{4}-\d\d-\d\d)[T ](\d\d):([0-5]\d)(?::([0-5]\d(?:\.\d+)?))?$/
const DAY_FIRST = /^(\d\d)([./])(\d\d)\2(\d{4}) /

/**
 * Reads the times of a record. Looking up a zone's hour is slow, and lines of one hour stand together: each hour is looked
 * up once, and what follows within it is counted on, but where clocks are changed in that hour.
 */
function timesIn(zone: string): (text: string) => number | null {
  const hours = new Map<string, number | null>()
  const hourAt = (hour: string): number | null => {
    const known = hours.get(hour)
    if (known !== undefined) return known
    const found = DateTime.fromISO(hour, { zone })
    const isEven = `${hour}:00`.endsWith(found.toFormat('HH:mm')) && found.offset === found.plus({ minutes: 59 }).offset
    const at = found.isValid && isEven ? found.toMillis() : null
    hours.set(hour, at)
    return at
  }
  return (text) => {
    const typed = text.trim().replace(DAY_FIRST, '$4-$3-$1 ')
    if (WITH_ZONE.test(typed)) {
      const at = Date.parse(typed.replace(' ', 'T'))
      return Number.isNaN(at) ? null : at
    }
    const parts = OF_SITE.exec(typed)
    const hour = parts && hourAt(`${parts[1]}T${parts[2]}`)
    if (parts && hour !== null) return Math.round(hour + Number(parts[3]) * 60_000 + Number(parts[4] ?? 0) * 1000)
    const iso = DateTime.fromISO(typed.replace(' ', 'T'), { zone })
    return iso.isValid ? iso.toMillis() : null
  }
}

/** A figure as the logger wrote it, its decimal comma as a point; null where it is none. */
function figureOf(text: string | undefined): string | null {
  const typed = (text ?? '').trim().replace(',', '.')
  return /^-?\d+(\.\d+)?$/.test(typed) && typed.length <= 24 ? typed : null
}

/** The row nearest to a time, null where none lies within reach. */
function nearest(rows: readonly LoggerRow[], at: number, reach_ms: number): LoggerRow | null {
  let [low, high] = [0, rows.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (rows[middle]!.at < at) low = middle + 1
    else high = middle
  }
  const around = [rows[low - 1], rows[low]].filter((row) => row !== undefined)
  const best = around.sort((a, b) => Math.abs(a.at - at) - Math.abs(b.at - at))[0]
  return best && Math.abs(best.at - at) <= reach_ms ? best : null
}

export type Joined = { entryId: string; conditions: Conditions }

/**
 * Light and warmth of each reading from the record, by time.
 *
 * @param ahead_s by how much the logger's clock is ahead of the true time, s.
 * @param reach_s how far a row may be from its reading, s.
 */
export function joinLogger(
  record: LoggerRecord,
  readings: readonly Entry<'reading'>[],
  options: { ahead_s: number; reach_s: number; mounting: Mounting },
): Joined[] {
  const joined: Joined[] = []
  for (const entry of readings) {
    const row = nearest(record.rows, correctedTime(entry) + options.ahead_s * 1000, options.reach_s * 1000)
    const conditions = row && conditionsOf(record, row, entry, options)
    if (conditions && refuseConditions(conditions) === null) joined.push({ entryId: entry.id, conditions })
  }
  return joined
}

function conditionsOf(
  record: LoggerRecord,
  row: LoggerRow,
  entry: Entry<'reading'>,
  { ahead_s, mounting }: { ahead_s: number; mounting: Mounting },
): Conditions {
  const decimals = (text: string): number => text.split('.')[1]?.length ?? 0
  const read = readValueOf(Number(row.warmth), 'degC', decimals(row.warmth))
  return {
    irradiance: { read: readValueOf(Number(row.irradiance), 'Wm2', decimals(row.irradiance)), instrument: null },
    cell:
      record.way === 'back'
        ? { way: 'back', read, mounting, instrument: null }
        : { way: 'air', read, instrument: null },
    // In the device's own time, as all conditions are: the reading's offset is taken off again.
    at: new Date(row.at - ahead_s * 1000 - entry.clockOffset_ms).toISOString(),
    how: 'file',
  }
}

export type ClockGuess = { ahead_s: number; why: 'light-agrees' | 'covers' | 'none' }

const HOURS = [0, 1, -1, 2, -2]
const HOUR_s = 3600
/** How closely light must agree before a clock is believed to be off by hours, W/m2, and how much closer than now. */
const AGREES_Wm2 = 40
const CLEARLY = 0.5

/**
 * Whether the logger's clock is off by whole hours, as a forgotten summer time makes it: told by readings which carry
 * light of their own, else by which hour lets the record cover the readings at all.
 */
export function guessClock(record: LoggerRecord, readings: readonly Entry<'reading'>[], reach_s: number): ClockGuess {
  const rows = record.rows
  const at = (entry: Entry<'reading'>, ahead_s: number): LoggerRow | null =>
    nearest(rows, correctedTime(entry) + ahead_s * 1000, reach_s * 1000)
  const own = readings.filter((entry) => entry.body.conditions?.irradiance.read.bound === 'exact')
  const scores = HOURS.map((hours) => {
    const ahead_s = hours * HOUR_s
    const gaps = own.flatMap((entry) => {
      const row = at(entry, ahead_s)
      return row ? [Math.abs(Number(row.irradiance) - entry.body.conditions!.irradiance.read.value)] : []
    })
    const covered = readings.filter((entry) => at(entry, ahead_s) !== null).length
    const gap = gaps.length > 0 ? gaps.sort((a, b) => a - b)[gaps.length >> 1]! : null
    return { ahead_s, gap, covered }
  })
  const [now] = scores
  const agreeing = scores.filter((one) => one.gap !== null).sort((a, b) => a.gap! - b.gap!)[0]
  if (agreeing && agreeing.gap! <= AGREES_Wm2) {
    const clear = agreeing === now || now!.gap === null || agreeing.gap! < CLEARLY * now!.gap
    if (clear) return { ahead_s: agreeing.ahead_s, why: 'light-agrees' }
  }
  const covering = [...scores].sort((a, b) => b.covered - a.covered)[0]!
  if (covering.covered > 0) return { ahead_s: now!.covered > 0 ? 0 : covering.ahead_s, why: 'covers' }
  return { ahead_s: 0, why: 'none' }
}
