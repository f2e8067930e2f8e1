import { z } from 'zod'
import { tagSchema, voltage } from '../basics'
import type { PartDescriptor } from './descriptor'

const schema = z.strictObject({
  kind: z.literal('surge-protection'),
  tag: tagSchema,
  /** Highest continuous DC voltage, V. */
  ratedVoltage_V: voltage,
})

export const surgeProtection: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'dc-switch',
  prefix: 'SPD',
  fields: [
    { id: 'tag', label: 'tag' },
    { id: 'ratedVoltage_V', label: 'surge-voltage', wanted: true },
  ],
  blank: (tag) => ({ kind: 'surge-protection', tag, ratedVoltage_V: null }),
}
