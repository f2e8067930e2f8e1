import { z } from 'zod'
import { tagSchema, voltage, wordsSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

export const surgeTypes = ['spd-1', 'spd-1-2', 'spd-2'] as const
const schema = z.strictObject({
  kind: z.literal('surge-protection'),
  tag: tagSchema,
  /** Highest continuous DC voltage, V. */
  ratedVoltage_V: voltage,
  /** What it is made to take: lightning itself (1), what is left of it (2), both. */
  type: z.enum(surgeTypes).nullable().optional(),
  place: wordsSchema(60),
})

export const surgeProtection: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'dc-switch',
  prefix: 'SPD',
  fields: [
    { id: 'tag', label: 'tag', prints: true },
    { id: 'ratedVoltage_V', label: 'surge-voltage', wanted: true, prints: true },
    { id: 'type', label: 'surge-type', on: ['pv'], prints: true },
    { id: 'place', label: 'switch-place', on: ['pv'], prints: true },
  ],
  blank: (tag) => ({ kind: 'surge-protection', tag, ratedVoltage_V: null }),
}
