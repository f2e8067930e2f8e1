import { z } from 'zod'
import { daySchema, tagSchema, wordsSchema } from '../basics'
import type { PartDescriptor, Sheet } from './descriptor'

export const kindsOfWork = ['new', 'addition', 'alteration', 'periodic'] as const
/** Asked whatever the plant is. */
const every: readonly Sheet[] = ['pv', 'electrical']

const inspected = { field: 'work', is: ['periodic'] } as const
/** What nobody said is new work. */
const built = { field: 'work', is: ['', 'new', 'addition', 'alteration'] } as const

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
  /** Of what stood before: why it is looked at, how old it is, when it was last, with what record, what was changed since. */
  inspectedFor: wordsSchema(200),
  builtAbout: wordsSchema(60),
  lastOn: daySchema,
  lastRecord: wordsSchema(200),
  changedSince: wordsSchema(500),
  /** What is not inspected, with whom that was agreed and why. */
  limitations: wordsSchema(1000),
  /** Whether there is any, and whether the array is bonded to it or kept apart. */
  lightning: wordsSchema(120),
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
    { id: 'designer', label: 'designer', on: every, when: built },
    { id: 'builder', label: 'builder', on: every, when: built },
    { id: 'installedOn', label: 'installed-on', on: every, when: built },
    { id: 'inspectedFor', label: 'inspected-for', on: every, when: inspected },
    { id: 'builtAbout', label: 'built-about', on: every, when: inspected },
    { id: 'lastOn', label: 'last-on', on: every, when: inspected },
    { id: 'lastRecord', label: 'last-record', on: every, when: inspected },
    { id: 'changedSince', label: 'changed-since', on: every, when: inspected },
    { id: 'limitations', label: 'limitations', on: every, when: inspected },
    { id: 'nextOn', label: 'next-on', on: every },
    { id: 'callWhom', label: 'call-whom', on: every },
    { id: 'lightning', label: 'lightning', on: ['pv'] },
  ],
  blank: () => bareSite,
}
