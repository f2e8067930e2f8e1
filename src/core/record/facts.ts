import { z } from 'zod'
import { idSchema } from '../plant/part'
import { regimeSchema } from '../regime/regime'
import { letterheadSchema } from './company'
import { entrySchema } from './entry'
import { instrumentSchema } from './instrument'

const instant = z.iso.datetime({ precision: 3 })

export const jobSchema = z.strictObject({
  id: idSchema,
  number: z.string().trim().min(1).max(20),
  name: z.string().trim().min(1).max(80),
  place: z.string().trim().max(160),
  timeZone: z.string().min(1).max(60),
  company: z.string().max(120),
  /** As the company had it when the facts were read; a seal keeps it so. */
  letterhead: letterheadSchema.optional(),
})
export type Job = z.infer<typeof jobSchema>

export const visitSchema = z.strictObject({ id: idSchema, startsAt: instant, title: z.string().max(80) })
export type Visit = z.infer<typeof visitSchema>

export const personSchema = z.strictObject({ id: idSchema, name: z.string().min(1).max(80) })
export type Person = z.infer<typeof personSchema>

/** What a job knows of each of its seals: enough to say what is covered and what waits for the next issue. */
export const sealSummarySchema = z.strictObject({
  issue: z.string().min(1).max(4),
  at: instant,
  hash: z.string().length(64),
  entryIds: z.array(idSchema),
})
export type SealSummary = z.infer<typeof sealSummarySchema>

export const comparisonSchema = z.strictObject({
  source: z.string().max(60),
  edition: z.string().trim().min(2).max(60),
  by: z.string().max(80),
  at: instant,
  agrees: z.boolean(),
  note: z.string().trim().max(300),
})

/** Everything that is known of a job; all that is shown or printed is computed from it. */
export const factsSchema = z.strictObject({
  job: jobSchema,
  visits: z.array(visitSchema).min(1),
  entries: z.array(entrySchema),
  instruments: z.array(instrumentSchema),
  people: z.array(personSchema),
  regime: regimeSchema,
  seals: z.array(sealSummarySchema),
  /** Sources that the company held against their documents, as it was when the facts were read. */
  compared: z.array(comparisonSchema).optional(),
})
export type Facts = Omit<z.infer<typeof factsSchema>, 'entries'> & { entries: import('./entry').Entry[] }
