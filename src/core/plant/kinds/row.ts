import { z } from 'zod'
import { area, idSchema, tagSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

/** A rail row, or a frame that is bonded by itself. */
const schema = z.strictObject({
  kind: z.literal('row'),
  tag: tagSchema,
  arrayId: idSchema.nullable(),
  /** The bonding conductor from the main earthing terminal, null where it is not known. */
  conductor: z
    .strictObject({
      length_m: z.number().positive().max(2000),
      area_mm2: area,
      joints: z.number().int().min(0).max(200),
    })
    .nullable(),
})

export const row: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'modules',
  prefix: 'R',
  fields: [
    { id: 'tag', label: 'tag' },
    { id: 'arrayId', label: 'array-of', names: { kind: 'array', else: 'none' } },
    { id: 'conductor.length_m', label: 'conductor-length', wanted: true },
    { id: 'conductor.area_mm2', label: 'conductor-area', wanted: true },
    { id: 'conductor.joints', label: 'joints', usual: 0 },
  ],
  blank: (tag, { arrayId }) => ({ kind: 'row', tag, arrayId, conductor: null }),
}
