import { z } from 'zod'
import { tagSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

/** The place itself: what holds for the whole installation. */
const schema = z.strictObject({
  kind: z.literal('site'),
  tag: tagSchema,
  lowestTemperature_C: z.number().min(-60).max(40),
  highestCellTemperature_C: z.number().min(20).max(110),
})

/** A mild winter and cells on a hot roof: where nobody said otherwise [D]. */
export const usualSite = { kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 } as const

export const site: PartDescriptor<typeof schema> = {
  schema,
  side: 'site',
  station: null,
  prefix: null,
  fields: [
    { id: 'lowestTemperature_C', label: 'lowest' },
    { id: 'highestCellTemperature_C', label: 'hottest' },
  ],
  blank: () => usualSite,
}
