import { z } from 'zod'
import { phasesSchema, tagSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

export const supplySources = ['mains', 'generator', 'battery'] as const
export const arrangements = ['TN-C-S', 'TN-S', 'TT'] as const
/** The supply at the origin: how it is earthed, and what its network declares. */
const schema = z.strictObject({
  kind: z.literal('supply'),
  tag: tagSchema,
  /** The public network, or a source of one's own behind its own earthing; left away it is the network. */
  source: z.enum(supplySources).optional(),
  arrangement: z.enum(arrangements),
  phases: phasesSchema,
  /** Line to earth. */
  nominal_V: z.number().min(50).max(690),
  declaredZe_ohm: z.number().positive().max(1e4).nullable(),
  faultLevel_kA: z.number().positive().max(200).nullable(),
})

export const supply: PartDescriptor<typeof schema> = {
  schema,
  side: 'ac',
  station: 'supply',
  prefix: 'S',
  fields: [
    { id: 'tag', label: 'tag' },
    { id: 'source', label: 'supply-source', usual: 'mains' },
    { id: 'arrangement', label: 'arrangement' },
    { id: 'phases', label: 'phases' },
    { id: 'nominal_V', label: 'nominal' },
    { id: 'declaredZe_ohm', label: 'declared-ze' },
    { id: 'faultLevel_kA', label: 'fault-level' },
  ],
  blank: (tag) => ({
    kind: 'supply',
    tag,
    arrangement: 'TN-C-S',
    phases: 1,
    nominal_V: 230,
    declaredZe_ohm: null,
    faultLevel_kA: null,
  }),
}
