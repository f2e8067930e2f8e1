import { z } from 'zod'
import { idSchema, tagSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

const schema = z.strictObject({ kind: z.literal('combiner'), tag: tagSchema, inverterId: idSchema.nullable() })

export const combiner: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'strings',
  prefix: 'C',
  fields: [
    { id: 'tag', label: 'tag' },
    { id: 'inverterId', label: 'inverter-of', names: { kind: 'inverter', else: 'only' } },
  ],
  blank: (tag) => ({ kind: 'combiner', tag, inverterId: null }),
}
