import { z } from 'zod'
import { idSchema } from '../plant/part'
import { type Accuracy, accuracySchema } from '../quantity/uncertainty'

/** What an instrument can measure. */
export const measurableSchema = z.enum([
  'dc-polarity',
  'dc-voltage',
  'dc-current',
  'insulation',
  'continuity',
  'irradiance',
  'module-back-temperature',
  'air-temperature',
  'tilt',
  'azimuth',
  'loop-impedance',
  'fault-current',
  'rcd-time',
  'rcd-current',
  'earth-resistance',
  'distance',
  'ac-voltage',
  'pilot-voltage',
  'pilot-duty',
  'proximity',
  'outlet',
  'dc-residual-current',
  'dc-residual-time',
  'disconnection-time',
  'iv-curve',
])
export type Measurable = z.infer<typeof measurableSchema>

/** What is asked of a kit besides quantities: loops that no detector of direct current trips on, an adapter that plays the car. */
export const abilities = ['dc-safe-loop', 'ev-adapter', 'pulsating-trips', 'smooth-trips'] as const
export type Ability = (typeof abilities)[number]

/** What an instrument is good for in one quantity. */
export const rangeSchema = z.strictObject({
  measures: measurableSchema,
  accuracy: accuracySchema,
  /** Highest value it may be connected to, in the quantity's unit (V, A, W/m2, degC). */
  most: z.number().positive(),
  decimals: z.number().int().min(0).max(4),
})

/** Leads that are nulled together: what was taken off holds for this set and no other. */
export const leadSetSchema = z.strictObject({
  id: z.string().regex(/^[a-z][a-z0-9-]{0,19}$/),
  name: z.string().trim().min(1).max(40),
})

/** Instruments end a test at half the rated current after one of these, ms. */
export const halfWaits_ms = [300, 2000] as const
const halfWaitSchema = z.union([z.literal(halfWaits_ms[0]), z.literal(halfWaits_ms[1])])

/** The switch that joins plus and minus of a string: what it is rated for, V and A of direct current. */
export const joiningSchema = z.strictObject({
  most_V: z.number().positive().max(3000),
  most_A: z.number().positive().max(1000),
})

export const instrumentSchema = z.strictObject({
  id: idSchema,
  tag: z.string().min(1).max(12),
  name: z.string().min(1).max(60),
  serial: z.string().max(40),
  calibrationDue: z.iso.date().nullable(),
  standIn: z.boolean(),
  ranges: z.array(rangeSchema).min(1).max(16),
  /** What it can do besides: left away it is not known to. */
  can: z.array(z.enum(abilities)).max(abilities.length).optional(),
  leadSets: z.array(leadSetSchema).max(8).optional(),
  /** A joining switch in it or with it; left away nobody said that there is one. */
  joining: joiningSchema.optional(),
  /** How long it lets half the rated current flow before it calls that no trip, ms; where nobody said it, as the regime has it. */
  halfWait_ms: halfWaitSchema.optional(),
})
export type Instrument = z.infer<typeof instrumentSchema>

/** What a reading keeps of its instrument, so that editing the kit list later changes no verdict. */
export const instrumentCopySchema = z.strictObject({
  id: idSchema,
  tag: z.string().min(1).max(12),
  name: z.string().min(1).max(60),
  calibrationDue: z.iso.date().nullable(),
  standIn: z.boolean(),
  /** Of the quantity that the reading was taken for. */
  accuracy: accuracySchema.nullable(),
  most: z.number().positive().nullable(),
  /** Of each quantity, where the reading holds several; without it the one above is all that is known. */
  ranges: z.array(rangeSchema).max(16).optional(),
  halfWait_ms: halfWaitSchema.optional(),
})
export type InstrumentCopy = z.infer<typeof instrumentCopySchema>

/**
 * The copy that a reading keeps; null where the instrument does not measure what it was taken for.
 *
 * @param also every quantity that the reading holds: where there are several, each is kept with its own accuracy.
 */
export function copyForReading(
  instrument: Instrument,
  measures: Measurable,
  also: readonly Measurable[] = [],
): InstrumentCopy | null {
  const range = instrument.ranges.find((one) => one.measures === measures)
  if (!range) return null
  const { id, tag, name, calibrationDue, standIn } = instrument
  const times = [measures, ...also].includes('rcd-time')
  const copy = {
    id,
    tag,
    name,
    calibrationDue,
    standIn,
    accuracy: range.accuracy,
    most: range.most,
    ...(times && instrument.halfWait_ms ? { halfWait_ms: instrument.halfWait_ms } : {}),
  }
  if (!also.some((one) => one !== measures)) return copy
  return {
    ...copy,
    ranges: instrument.ranges.filter((one) => one.measures === measures || also.includes(one.measures)),
  }
}

/**
 * What a copy says of one quantity: volts are never held against a range of amperes.
 *
 * @param takenFor the quantity that the reading was taken for: an older copy speaks of that one only.
 */
export function rangeFor(
  copy: InstrumentCopy,
  measures: Measurable,
  takenFor: Measurable | null,
): { accuracy: Accuracy | null; most: number | null } | null {
  if (copy.ranges) return copy.ranges.find((one) => one.measures === measures) ?? null
  return measures === takenFor ? copy : null
}
