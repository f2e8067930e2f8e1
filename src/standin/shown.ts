/** What an instrument shows of a value, or why it refuses. */
import { type FeedSample, feedUnits } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import { chance, scatter, seedOf } from './random'

export type Pressed =
  | { state: 'shown'; sample: FeedSample }
  /** Several one after another: a sweep in its parts, or a figure that is watched. The last one counts. */
  | { state: 'swept'; samples: FeedSample[] }
  | { state: 'refused'; code: 'standin-reversed' | 'standin-not-here' }
  | { state: 'refused'; code: 'standin-tripped'; rcd: string }
  | { state: 'refused'; code: 'standin-rating'; value: number; unit: 'V' | 'A'; most: number }

/** A figure with what the same press gives besides, as far as the instrument shows it. */
export function withBesides(instrument: Instrument, own: Pressed, besides: readonly Besides[], at_ms: number): Pressed {
  if (own.state !== 'shown') return own
  const others = besides.flatMap(([key, pair, value]) => {
    const shown = shownOn(instrument, key, value, at_ms, pair)
    return shown.state === 'shown' ? [shown.sample] : []
  })
  return others.length === 0 ? own : { state: 'swept', samples: [...others, own.sample] }
}
/** Quantity, conductors and value of a figure that comes with another one. */
export type Besides = readonly [Measurable, NonNullable<FeedSample['pair']>, number]

/** Shows a value as the instrument does: over its range as a bound. */
export function shownOn(
  instrument: Instrument,
  key: Measurable,
  value: number,
  at_ms: number,
  pair?: FeedSample['pair'],
): Pressed {
  const range = instrument.ranges.find((one) => one.measures === key)
  const unit = feedUnits[key]
  if (!range) return { state: 'refused', code: 'standin-not-here' }
  const noise = scatter(chance(seedOf(`${instrument.id}:${key}${pair ?? ''}:${at_ms}`))) / 3
  const read = value * (1 + (noise * range.accuracy.ofReading_pct) / 300)
  const over = read > range.most
  const text = over ? `>${range.most}` : read.toFixed(range.decimals)
  const at = new Date(at_ms).toISOString()
  const bound = over ? 'more-than' : 'exact'
  const sample: FeedSample = { quantity: key, value: over ? range.most : Number(text), bound, unit, at, text }
  return { state: 'shown', sample: pair === undefined ? sample : { ...sample, pair } }
}
