import { z } from 'zod'
import { idSchema } from '../plant/part'
import { accuracySchema } from '../quantity/uncertainty'

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
])
export type Measurable = z.infer<typeof measurableSchema>

const rangeSchema = z.strictObject({
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

export const instrumentSchema = z.strictObject({
  id: idSchema,
  tag: z.string().min(1).max(12),
  name: z.string().min(1).max(60),
  serial: z.string().max(40),
  calibrationDue: z.iso.date().nullable(),
  standIn: z.boolean(),
  ranges: z.array(rangeSchema).min(1).max(12),
  leadSets: z.array(leadSetSchema).max(8).optional(),
})
export type Instrument = z.infer<typeof instrumentSchema>

/** What a reading keeps of its instrument, so that editing the kit list later changes no verdict. */
export const instrumentCopySchema = z.strictObject({
  id: idSchema,
  tag: z.string().min(1).max(12),
  name: z.string().min(1).max(60),
  calibrationDue: z.iso.date().nullable(),
  standIn: z.boolean(),
  accuracy: accuracySchema.nullable(),
  most: z.number().positive().nullable(),
})
export type InstrumentCopy = z.infer<typeof instrumentCopySchema>

/** The copy that a reading of one quantity keeps; null where the instrument does not measure it. */
export function copyForReading(instrument: Instrument, measures: Measurable): InstrumentCopy | null {
  const range = instrument.ranges.find((one) => one.measures === measures)
  if (!range) return null
  const { id, tag, name, calibrationDue, standIn } = instrument
  return { id, tag, name, calibrationDue, standIn, accuracy: range.accuracy, most: range.most }
}
