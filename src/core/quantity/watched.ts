import { z } from 'zod'

/** Two minutes of a figure a second. */
export const MOST_WATCHED = 120

/** Seconds since it was first seen, and what it showed then, in the slot's unit; what was over range is left out. */
export const watchedSchema = z
  .array(z.tuple([z.number().min(0).max(3600), z.number().min(0).max(1e6)]))
  .min(2)
  .max(MOST_WATCHED)
export type Watched = z.infer<typeof watchedSchema>
