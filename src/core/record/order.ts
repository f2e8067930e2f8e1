import type { Entry } from './entry'

type Timed = Pick<Entry, 'id' | 'deviceTime' | 'clockOffset_ms'>

/** Reading a time from its text is the dearest part of ordering; an entry never changes, so it is read once. */
const times = new WeakMap<object, number>()

/** Device time corrected by the offset measured at last contact, ms since 1970. */
export function correctedTime(entry: Pick<Entry, 'deviceTime' | 'clockOffset_ms'>): number {
  let time = times.get(entry)
  if (time === undefined) {
    time = Date.parse(entry.deviceTime) + entry.clockOffset_ms
    times.set(entry, time)
  }
  return time
}

/** The order of entries: corrected device time, then id. Merging never asks. */
export function inOrder<T extends Timed>(entries: readonly T[]): T[] {
  const before = (a: T, b: T): number => correctedTime(a) - correctedTime(b) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
  return isInOrder(entries) ? [...entries] : [...entries].sort(before)
}

/** Mostly they come in order: then each time is looked up once. */
function isInOrder(entries: readonly Timed[]): boolean {
  let [lastAt, lastId] = [Number.NEGATIVE_INFINITY, '']
  for (const entry of entries) {
    const at = correctedTime(entry)
    if (at < lastAt || (at === lastAt && entry.id < lastId)) return false
    lastAt = at
    lastId = entry.id
  }
  return true
}
