import { z } from 'zod'
import { ratedSchema, tagSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

const schema = z.strictObject({ kind: z.literal('dc-switch'), tag: tagSchema, ...ratedSchema.shape })

export const dcSwitch: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'dc-switch',
  prefix: 'DC',
  fields: [
    { id: 'tag', label: 'tag' },
    { id: 'ratedVoltage_V', label: 'switch-voltage', wanted: true },
    { id: 'rating_A', label: 'switch-rating', wanted: true },
  ],
  blank: (tag) => ({ kind: 'dc-switch', tag, ratedVoltage_V: null, rating_A: null }),
}
