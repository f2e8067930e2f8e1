import { MOST_WATCHED, type Watched } from '../quantity/watched'
import type { LiveSample } from './feed'

/** Figures further apart than this are of two presses, ms. */
const APART_ms = 5000

/**
 * What an instrument showed on the way to a figure, s and the figure's unit: back from it without a gap, and nothing that
 * belonged to a figure before. Null where nothing but the figure itself was heard.
 * @param after when the figure before was shown, RFC 3339
 */
export function watchedUntil(all: readonly LiveSample[], last: LiveSample, after: string | null): Watched | null {
  const own = all.filter(
    (one) =>
      one.instrumentId === last.instrumentId &&
      one.quantity === last.quantity &&
      one.at <= last.at &&
      (after === null || one.at > after),
  )
  let from = own.length - 1
  while (from > 0 && Date.parse(own[from]!.at) - Date.parse(own[from - 1]!.at) <= APART_ms) from--
  const run = own.slice(Math.max(from, own.length - MOST_WATCHED)).filter((one) => one.read.bound === 'exact')
  const start = Date.parse(run[0]?.at ?? last.at)
  const points = run.map((one): [number, number] => [(Date.parse(one.at) - start) / 1000, one.read.value])
  return points.length < 2 ? null : points
}
