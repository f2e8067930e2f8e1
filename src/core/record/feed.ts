/** What an instrument sends through the feed: readings and conditions as JSON. Stand-ins use the same shape. */
import { z } from 'zod'
import { refuseAsShown } from '../quantity/asShown'
import { readValueOf, type ReadValue } from '../quantity/readValue'
import { conversionFactor, type Unit, unitFromSpelling } from '../quantity/unit'
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

/** Conductors between which one of several figures of a press stands; `PE-earth` is metalwork against the ground. */
export const PAIRS = ['L-N', 'L-PE', 'N-PE', 'L1-N', 'L1-PE', 'L2-N', 'L2-PE', 'L3-N', 'L3-PE', 'PE-earth'] as const

/** Quantities that stand between two conductors. */
const PAIRED: ReadonlySet<Measurable> = new Set(['ac-voltage', 'loop-impedance', 'fault-current', 'insulation'])

export const feedSampleSchema = z.strictObject({
  quantity: measurableSchema,
  value: z.number().min(-1e6).max(1e6),
  bound: z.enum(['exact', 'more-than', 'less-than']).default('exact'),
  /** As people write it; a unit of the same quantity is converted. */
  unit: z.string().trim().min(1).max(12),
  /** RFC 3339, with `Z` or an offset. */
  at: z.iso.datetime({ offset: true }),
  /** The display's text; made from the instrument's decimals where it is not sent. */
  text: z.string().min(1).max(24).optional(),
  /** Between which conductors, where one press gives several figures of a quantity. */
  pair: z.enum(PAIRS).optional(),
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
export type LiveSample = {
  instrumentId: string
  quantity: Measurable
  read: ReadValue
  /** By the instrument's own clock, RFC 3339. */
  at: string
  /** When it was heard, by the office's clock; a page's own stand-ins are heard at once. */
  receivedAt?: string
  pair?: string
  sweep?: SweepPart
}

/** Figures of one quantity that stand beside each other: by quantity, and by conductors where those are told. */
export type ShownKey = Measurable | `${Measurable} ${string}`
export const shownKey = ({ quantity, pair }: Pick<LiveSample, 'quantity' | 'pair'>): ShownKey =>
  pair === undefined ? quantity : `${quantity} ${pair}`

export type SampleRefusal =
  | { code: 'feed-quantity'; quantity: string }
  | { code: 'feed-sweep' }
  | { code: 'feed-pair'; quantity: string }
  | { code: 'feed-unit'; quantity: string; unit: Unit; given: string }
  | { code: 'feed-text'; text: string; value: number }

/** A sample as its instrument shows it, or why it cannot be taken. */
export function liveSample(instrument: Instrument, sample: FeedSample): LiveSample | SampleRefusal {
  const range = instrument.ranges.find((one) => one.measures === sample.quantity)
  if (!range) return { code: 'feed-quantity', quantity: sample.quantity }
  const unit = feedUnits[sample.quantity]
  const factor = factorFrom(sample.unit, unit)
  if (factor === null) return { code: 'feed-unit', quantity: sample.quantity, unit, given: sample.unit }
  if ((sample.quantity === 'iv-curve') !== (sample.sweep !== undefined)) return { code: 'feed-sweep' }
  if (sample.pair !== undefined && !PAIRED.has(sample.quantity)) return { code: 'feed-pair', quantity: sample.quantity }
  const read = readOf(sample, unit, factor, range.decimals)
  if (!read) return { code: 'feed-text', text: sample.text ?? '', value: sample.value }
  const { sweep, pair } = sample
  const at = new Date(sample.at).toISOString()
  return {
    instrumentId: instrument.id,
    quantity: sample.quantity,
    read,
    at,
    ...(pair === undefined ? {} : { pair }),
    ...(sweep ? { sweep } : {}),
  }
}

/** What turns a value in a unit as it was written into one in the unit wanted; null where they measure different things. */
function factorFrom(written: string, unit: Unit): number | null {
  if (written === unit) return 1
  const given = unitFromSpelling(written)
  return given ? conversionFactor(given, unit) : null
}

const SIGNS = { exact: '', 'more-than': '>', 'less-than': '<' } as const

/**
 * What a person would read off the display: the figure to its decimals, unless the display's own text came along. Null
 * where that text says something else than the figure beside it.
 */
function readOf(
  { value, bound, text, unit: written }: FeedSample,
  unit: Unit,
  factor: number,
  decimals: number,
): ReadValue | null {
  if (text === undefined) {
    const shown = readValueOf(value * factor, unit, decimals)
    return { ...shown, text: SIGNS[bound] + shown.text, bound }
  }
  // A display that shows a figure alone shows it in the unit that was sent.
  const said = [text, `${text} ${written}`].map((own) => ({ text: own, value: value * factor, bound, unit }))
  return said.find((read) => refuseAsShown(read, unit) === null) ?? null
}
