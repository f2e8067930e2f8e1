import { z } from 'zod'
import { ratedSchema, tagSchema, wordsSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

const schema = z.strictObject({
  kind: z.literal('dc-switch'),
  tag: tagSchema,
  ...ratedSchema.shape,
  place: wordsSchema(60),
})

export const dcSwitch: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'dc-switch',
  prefix: 'DC',
  fields: [
    { id: 'tag', label: 'tag', prints: true },
    { id: 'ratedVoltage_V', label: 'switch-voltage', wanted: true, prints: true },
    { id: 'rating_A', label: 'switch-rating', wanted: true, prints: true },
    { id: 'place', label: 'switch-place', on: ['pv'], prints: true },
  ],
  blank: (tag) => ({ kind: 'dc-switch', tag, ratedVoltage_V: null, rating_A: null }),
}
