/** A comparison that somebody makes: what is sent, and whether it can be. */
import { z } from 'zod'
import { type SourceId, sources } from './sources'

export const comparisonMadeSchema = z
  .strictObject({
    source: z
      .string()
      .refine((id): id is SourceId => id in sources && sources[id as SourceId].standing === 'published'),
    edition: z.string().trim().min(2).max(60),
    agrees: z.boolean(),
    note: z.string().trim().max(300),
  })
  // What differs is said: a mark without a word helps nobody.
  .refine(({ agrees, note }) => agrees || note.length >= 3, { path: ['note'] })
export type ComparisonMade = z.infer<typeof comparisonMadeSchema>
