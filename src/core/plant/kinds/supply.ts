import { z } from 'zod'
import { area, phasesSchema, tagSchema, wordsSchema } from '../basics'
import type { PartDescriptor, Sheet } from './descriptor'

const on: readonly Sheet[] = ['electrical']

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
  frequency_Hz: z.number().min(16).max(400).nullable().optional(),
  /** The network's own fuse or breaker. */
  fuse: wordsSchema(60),
  fuse_A: z.number().positive().max(5000).nullable().optional(),
  /** What the installation takes at most at one time. */
  demand_A: z.number().positive().max(5000).nullable().optional(),
  mainSwitch: wordsSchema(60),
  mainSwitch_A: z.number().positive().max(5000).nullable().optional(),
  /** Conductor from the means of earthing to the main terminal, and the main bonding conductors. */
  earthing_mm2: area.nullable().optional(),
  bonding_mm2: area.nullable().optional(),
  /** To what bonding conductors go: water, gas, steel, lightning protection. */
  bondedTo: wordsSchema(200),
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
    { id: 'frequency_Hz', label: 'frequency', on },
    { id: 'fuse', label: 'supply-fuse', on },
    { id: 'fuse_A', label: 'supply-fuse-rating', on },
    { id: 'demand_A', label: 'demand', on },
    { id: 'mainSwitch', label: 'main-switch', on },
    { id: 'mainSwitch_A', label: 'main-switch-rating', on },
    { id: 'earthing_mm2', label: 'earthing-area', on },
    { id: 'bonding_mm2', label: 'bonding-area', on },
    { id: 'bondedTo', label: 'bonded-to', on },
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
