import { z } from 'zod'
import { tagSchema, wordsSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

export const mountingSchema = z.enum(['open-rack', 'close-roof', 'insulated-back'])
/** Metalwork of an array: all of it on one earth, rail rows that are apart from each other, or not earthed at all. */
export const framesOf = ['bonded', 'apart', 'unearthed'] as const
const schema = z.strictObject({
  kind: z.literal('array'),
  tag: tagSchema,
  tilt_deg: z.number().min(0).max(90),
  azimuth_deg: z.number().min(0).lt(360),
  mounting: mountingSchema,
  /** Left away its frames and rails are on one earth. */
  frames: z.enum(framesOf).optional(),
  /** Test category of IEC 62446-1: 2 asks for a curve of each string. Left away it is 1. */
  category: z.union([z.literal(1), z.literal(2)]).optional(),
  /** The cables of its strings and the one that gathers them: size and kind. */
  stringCable: wordsSchema(60),
  mainCable: wordsSchema(60),
})

export const array: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'modules',
  prefix: 'A',
  fields: [
    { id: 'tag', label: 'name' },
    { id: 'tilt_deg', label: 'tilt' },
    { id: 'azimuth_deg', label: 'azimuth' },
    { id: 'mounting', label: 'mounting' },
    { id: 'frames', label: 'frames', usual: 'bonded' },
    { id: 'category', label: 'category', usual: 1 },
    { id: 'stringCable', label: 'string-cable', on: ['pv'] },
    { id: 'mainCable', label: 'main-cable', on: ['pv'] },
  ],
  blank: (tag) => ({ kind: 'array', tag, tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' }),
}
