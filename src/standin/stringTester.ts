/** A simulated string tester: resolution, accuracy, ranges; it refuses reversed polarity and voltage over its rating. */
import type { StringData } from '@/core/plant/part'
import type { Instrument, Measurable } from '@/core/record/instrument'
import { chance, scatter, seedOf } from './random'
import { asBuilt, stringAtWork, stringUnder } from './roof'
import type { Pressed } from './shown'
import { skyAt } from './sky'

export type TesterKey = Extract<Measurable, 'dc-polarity' | 'dc-voltage' | 'dc-current'>

/** Presses a key of the tester, connected to a string, at a time. */
export function pressTester(
  instrument: Instrument,
  key: TesterKey,
  partId: string,
  string: StringData,
  skySeed: string,
  at_ms: number,
  { loaded, mended }: { loaded?: boolean; mended?: boolean } = {},
): Pressed {
  const built = asBuilt(partId, string.modulesInSeries, mended)
  const sky = skyAt(skySeed, at_ms)
  const truth = loaded ? stringAtWork(sky, string, built) : stringUnder(sky, string, built)
  const at = new Date(at_ms).toISOString()
  const volts = rangeOf(instrument, 'dc-voltage')
  if (volts && Math.abs(truth.voltage_V) > volts.most) {
    return { state: 'refused', code: 'standin-rating', value: Math.abs(truth.voltage_V), unit: 'V', most: volts.most }
  }
  if (key === 'dc-polarity') {
    const sign = truth.voltage_V < 0 ? -1 : 1
    return { state: 'shown', sample: { quantity: key, value: sign, bound: 'exact', unit: 'one', at } }
  }
  if (truth.voltage_V < 0) return { state: 'refused', code: 'standin-reversed' }
  const range = rangeOf(instrument, key)
  const isVolts = key === 'dc-voltage'
  const value = isVolts ? truth.voltage_V : truth.current_A
  const unit = isVolts ? 'V' : 'A'
  if (!range || value > range.most)
    return { state: 'refused', code: 'standin-rating', value, unit, most: range?.most ?? 0 }
  const bias = Math.max(-0.7, Math.min(0.7, scatter(chance(seedOf(`${instrument.id}:${key}`))) / 3))
  const noise = scatter(chance(seedOf(`${instrument.id}:${key}:${at_ms}`))) / 6
  const shown = value * (1 + ((bias + noise / 3) * range.accuracy.ofReading_pct) / 100)
  const text = shown.toFixed(range.decimals)
  return { state: 'shown', sample: { quantity: key, value: Number(text), bound: 'exact', unit, at, text } }
}

const rangeOf = (instrument: Instrument, measures: Measurable) =>
  instrument.ranges.find((one) => one.measures === measures) ?? null
