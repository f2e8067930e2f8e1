/** What parts of every kind are made of: ids, tags, ratings, the module type. */
import { z } from 'zod'
import { moduleDataSchema } from '../pv/moduleData'

/** Ids are UUIDs made by the device (version 7, so they sort by time of making). */
export const idSchema = z.uuid()
/** The short mark of a part that is shown big and written on the cable: letters and figures. */
export const tagSchema = z
  .string()
  .trim()
  .min(1)
  .max(12)
  .regex(/^[\p{L}\p{N}][\p{L}\p{N} .\-/]*$/u, 'a tag is made of letters, figures, dots and dashes')

export const moduleTypeSchema = z.strictObject({
  id: idSchema,
  make: z.string().trim().min(1).max(60),
  name: z.string().trim().min(1).max(60),
  data: moduleDataSchema,
})
export type ModuleType = z.infer<typeof moduleTypeSchema>

/** Volts and amperes of a plate, null where nobody read it. */
export const voltage = z.number().positive().max(3000).nullable()
export const current = z.number().positive().max(2000).nullable()
/** Cross-section of a conductor, mm2. */
export const area = z.number().min(0.5).max(400)
/** A device made for a voltage and a current: a switch, a string fuse. */
export const ratedSchema = z.strictObject({ ratedVoltage_V: voltage, rating_A: current })
/** A few words of a plate, of a person, of a place: left away where nobody said. */
export const wordsSchema = (longest: number) => z.string().trim().max(longest).optional()
/** A day as 2026-03-07, null or left away where nobody said. */
export const daySchema = z.iso.date().nullable().optional()
export const phasesSchema = z.union([z.literal(1), z.literal(3)])
