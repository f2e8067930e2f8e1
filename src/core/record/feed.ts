/** What an instrument sends through the feed: readings and conditions as JSON. Stand-ins use the same shape. */
import { z } from 'zod'
import { readValueOf, type ReadValue } from '../quantity/readValue'
import type { Unit } from '../quantity/unit'
import { type Instrument, type Measurable, measurableSchema } from './instrument'

/** The unit in which each quantity comes through the feed. */
export const feedUnits: Record<Measurable, Unit> = {
  'dc-polarity': 'one',
  'dc-voltage': 'V',
  'dc-current': 'A',
  insulation: 'Mohm',
  continuity: 'ohm',
  irradiance: 'Wm2',
  'module-back-temperature': 'degC',
  'air-temperature': 'degC',
  tilt: 'deg',
  azimuth: 'deg',
  'loop-impedance': 'ohm',
  'fault-current': 'A',
  'rcd-time': 'ms',
  'rcd-current': 'mA',
  'earth-resistance': 'ohm',
  distance: 'm',
  'ac-voltage': 'V',
  'pilot-voltage': 'V',
  'pilot-duty': 'pct',
  proximity: 'ohm',
  // Live or not: 1 and 0.
  outlet: 'one',
  'dc-residual-current': 'mA',
  'dc-residual-time': 'ms',
  'disconnection-time': 'ms',
  // Points read so far.
  'iv-curve': 'one',
}

/** In which unit a range's most is told: a tracer is made for so many volts. */
export const rangeUnits: Record<Measurable, Unit> = { ...feedUnits, 'iv-curve': 'V' }

/** The next points of a sweep, in the order in which they were read; the last ones say so, and what the instrument knows of it. */
export const sweepSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9-]{1,36}$/),
  points: z
    .array(z.tuple([z.number().min(-3000).max(3000), z.number().min(-1000).max(1000)]))
    .min(1)
    .max(60),
  done: z.boolean(),
  sweep_s: z.number().positive().max(600).optional(),
  endIrradiance_Wm2: z.number().min(0).max(1600).optional(),
})
export type SweepPart = z.infer<typeof sweepSchema>

export const feedSampleSchema = z.strictObject({
  quantity: measurableSchema,
  value: z.number().min(-1e6).max(1e6),
  bound: z.enum(['exact', 'more-than', 'less-than']).default('exact'),
  unit: z.string().min(1).max(8),
  at: z.iso.datetime({ precision: 3 }),
  /** The display's text; made from the instrument's decimals where it is not sent. */
  text: z.string().min(1).max(24).optional(),
  /** Of a curve: its points come in parts. */
  sweep: sweepSchema.optional(),
})
export type FeedSample = z.infer<typeof feedSampleSchema>

export const MOST_SAMPLES_IN_A_POST = 60
export const feedPostSchema = z.strictObject({
  instrument: z.uuid().optional(),
  samples: z.array(feedSampleSchema).min(1).max(MOST_SAMPLES_IN_A_POST),
})

/** A sample as the pages see it. Polarity comes as +1 and −1. */
export type LiveSample = { instrumentId: string; quantity: Measurable; read: ReadValue; at: string; sweep?: SweepPart }

export type SampleRefusal =
  | { code: 'feed-quantity'; quantity: string }
  | { code: 'feed-sweep' }
  | { code: 'feed-unit'; quantity: string; unit: Unit; given: string }

/** A sample as its instrument shows it, or why it cannot be taken. */
export function liveSample(instrument: Instrument, sample: FeedSample): LiveSample | SampleRefusal {
  const range = instrument.ranges.find((one) => one.measures === sample.quantity)
  if (!range) return { code: 'feed-quantity', quantity: sample.quantity }
  const unit = feedUnits[sample.quantity]
  if (sample.unit !== unit) return { code: 'feed-unit', quantity: sample.quantity, unit, given: sample.unit }
  if ((sample.quantity === 'iv-curve') !== (sample.sweep !== undefined)) return { code: 'feed-sweep' }
  // What a person would read off the display: the figure to its decimals, unless the display's own text came along.
  const shown = readValueOf(sample.value, unit, range.decimals)
  const own = sample.text === undefined ? shown : { ...shown, text: sample.text, value: sample.value }
  const read: ReadValue = { ...own, bound: sample.bound }
  const { sweep } = sample
  return { instrumentId: instrument.id, quantity: sample.quantity, read, at: sample.at, ...(sweep ? { sweep } : {}) }
}
