import { z } from 'zod'
import { tagSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

/** The place itself: what holds for the whole installation. */
const schema = z.strictObject({
  kind: z.literal('site'),
  tag: tagSchema,
  /** The lowest air temperature expected, and the highest of a cell; null where nobody said. */
  lowestTemperature_C: z.number().min(-60).max(40).nullable(),
  highestCellTemperature_C: z.number().min(20).max(110).nullable(),
  /** Where on earth, north and east positive: the day's light is worked out from it. */
  latitude_deg: z.number().min(-90).max(90).nullable().optional(),
  longitude_deg: z.number().min(-180).max(180).nullable().optional(),
})

/** A site of which nobody said how cold it gets: no verdict comes of a winter that was only assumed. */
export const bareSite = {
  kind: 'site',
  tag: 'Site',
  lowestTemperature_C: null,
  highestCellTemperature_C: null,
} as const

/** A mild winter and cells on a hot roof: offered, and never taken for granted [D]. */
export const MILD_SITE = { lowestTemperature_C: -10, highestCellTemperature_C: 70 } as const

export const site: PartDescriptor<typeof schema> = {
  schema,
  side: 'site',
  station: null,
  prefix: null,
  fields: [
    { id: 'lowestTemperature_C', label: 'lowest', wanted: true },
    { id: 'highestCellTemperature_C', label: 'hottest', wanted: true },
    { id: 'latitude_deg', label: 'latitude' },
    { id: 'longitude_deg', label: 'longitude' },
  ],
  blank: () => bareSite,
}
