import { z } from 'zod'
import { idSchema, tagSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

export const serviceKinds = ['water', 'gas', 'power', 'telecom', 'drain'] as const
export const serviceMaterials = ['metal', 'plastic'] as const
/** What runs in the ground near an electrode, as a straight line: its nearest point tells where it lies. */
const schema = z.strictObject({
  kind: z.literal('buried-service'),
  tag: tagSchema,
  what: z.enum(serviceKinds),
  /** Metal takes part of the current of an electrode test. */
  material: z.enum(serviceMaterials),
  /** From the electrode to the nearest point of the line, clockwise from north. */
  bearing_deg: z.number().min(0).lt(360),
  away_m: z.number().min(0).max(200),
  /** The electrode it was measured from, null where there is only one. */
  electrodeId: idSchema.nullable(),
})

export const buriedService: PartDescriptor<typeof schema> = {
  schema,
  side: 'ac',
  station: null,
  prefix: 'P',
  fields: [
    { id: 'tag', label: 'tag', prints: true },
    { id: 'what', label: 'service-what', prints: true },
    { id: 'material', label: 'service-material', prints: true },
    { id: 'bearing_deg', label: 'service-bearing', prints: true },
    { id: 'away_m', label: 'service-away', prints: true },
    { id: 'electrodeId', label: 'service-from', names: { kind: 'electrode', else: 'only' } },
  ],
  blank: (tag) => ({
    kind: 'buried-service',
    tag,
    what: 'water',
    material: 'metal',
    bearing_deg: 0,
    away_m: 5,
    electrodeId: null,
  }),
}
