import { MOST_WATCHED, type Watched } from '../quantity/watched'
import type { LiveSample } from './feed'

/**
 * An instrument that is watched sends about a figure a second; figures further apart than this are of two presses, ms. It
 * must be less than it takes to move a probe and press again, or the next pair's figure would land on the last one's.
 */
const APART_ms = 1500

const sameInstrument = (a: LiveSample, b: LiveSample): boolean =>
  a.instrumentId === b.instrumentId && a.quantity === b.quantity

/** Whether one figure came of the same press as another, without a gap between them. @param all what was heard, oldest first */
export function isOnePress(all: readonly LiveSample[], first: LiveSample, last: LiveSample): boolean {
  if (!sameInstrument(first, last) || last.at < first.at) return false
  const between = all.filter((one) => sameInstrument(one, last) && one.at > first.at && one.at <= last.at)
  const times = [first, ...between, last].map((one) => Date.parse(one.at))
  return times.slice(1).every((at, k) => at - times[k]! <= APART_ms)
}

/**
 * What an instrument showed on the way to a figure, s and the figure's unit: back from it without a gap, and nothing that
 * belonged to a figure before. Null where nothing but the figure itself was heard.
 * @param after when the figure before was shown, RFC 3339
 */
export function watchedUntil(all: readonly LiveSample[], last: LiveSample, after: string | null): Watched | null {
  const own = all.filter((one) => sameInstrument(one, last) && one.at <= last.at && (after === null || one.at > after))
  let from = own.length - 1
  while (from > 0 && Date.parse(own[from]!.at) - Date.parse(own[from - 1]!.at) <= APART_ms) from--
  const run = own.slice(Math.max(from, own.length - MOST_WATCHED)).filter((one) => one.read.bound === 'exact')
  const start = Date.parse(run[0]?.at ?? last.at)
  const points = run.map((one): [number, number] => [(Date.parse(one.at) - start) / 1000, one.read.value])
  return points.length < 2 ? null : points
}
