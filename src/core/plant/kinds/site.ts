import { z } from 'zod'
import { daySchema, tagSchema, wordsSchema } from '../basics'
import type { PartDescriptor, Sheet } from './descriptor'

export const kindsOfWork = ['new', 'addition', 'alteration', 'periodic'] as const
/** Asked whatever the plant is. */
const every: readonly Sheet[] = ['pv', 'electrical']

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
  /** For whom the work was done, what this record covers, and where it departs from the rules. */
  client: wordsSchema(200),
  extent: wordsSchema(500),
  work: z.enum(kindsOfWork).nullable().optional(),
  departures: wordsSchema(1000),
  /** Who answers for design and construction; whoever inspects and tests signs the record. */
  designer: wordsSchema(200),
  builder: wordsSchema(200),
  installedOn: daySchema,
  nextOn: daySchema,
  /** Whom the customer calls when something is wrong. */
  callWhom: wordsSchema(200),
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
    { id: 'client', label: 'client', on: every },
    { id: 'extent', label: 'extent', on: every },
    { id: 'work', label: 'work', on: every },
    { id: 'departures', label: 'departures', on: every },
    { id: 'designer', label: 'designer', on: every },
    { id: 'builder', label: 'builder', on: every },
    { id: 'installedOn', label: 'installed-on', on: every },
    { id: 'nextOn', label: 'next-on', on: every },
    { id: 'callWhom', label: 'call-whom', on: every },
  ],
  blank: () => bareSite,
}
