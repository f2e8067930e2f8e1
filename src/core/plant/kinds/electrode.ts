import { z } from 'zod'
import { electrodeForms } from '../../earth/rods'
import { tagSchema, wordsSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

export const electrodeTests = ['spikes', 'loop'] as const
const schema = z.strictObject({
  kind: z.literal('electrode'),
  tag: tagSchema,
  /** What it is made of; left away it is rods. */
  form: z.enum(electrodeForms).optional(),
  /** How it is tested: by spikes before anything is energised, or by the loop, live, with Ze; left away by spikes. */
  testedBy: z.enum(electrodeTests).optional(),
  /** How many, of whichever form. */
  rods: z.number().int().min(1).max(20).nullable(),
  /** Of a rod, of a tape, of the reinforcement in a foundation. */
  length_m: z.number().positive().max(100).nullable(),
  /** Thickness of a rod or tape, width of a plate. */
  diameter_mm: z.number().min(3).max(3000).nullable(),
  spacing_m: z.number().positive().max(200).nullable(),
  /** Of whatever lies, or of a rod's head. */
  depth_m: z.number().positive().max(20).nullable().optional(),
  /** Where it is, so that somebody finds it again. */
  place: wordsSchema(80),
  /** What a contract or a country asks of it, ohm: held besides what its devices need. */
  target_ohm: z.number().positive().max(10_000).nullable().optional(),
})

export const electrode: PartDescriptor<typeof schema> = {
  schema,
  side: 'ac',
  station: 'electrode',
  prefix: 'E',
  fields: [
    { id: 'tag', label: 'tag', prints: true },
    { id: 'form', label: 'electrode-form', usual: 'rods', prints: true },
    { id: 'testedBy', label: 'electrode-tested', usual: 'spikes' },
    { id: 'rods', label: 'rods', wanted: true, prints: true },
    { id: 'length_m', label: 'rod-length', prints: true },
    { id: 'diameter_mm', label: 'rod-diameter', prints: true },
    { id: 'spacing_m', label: 'rod-spacing', prints: true },
    { id: 'depth_m', label: 'electrode-depth', prints: true },
    { id: 'place', label: 'electrode-place', on: ['electrical'], prints: true },
    { id: 'target_ohm', label: 'electrode-target', prints: true },
  ],
  blank: (tag) => ({
    kind: 'electrode',
    tag,
    form: 'rods',
    rods: 1,
    length_m: null,
    diameter_mm: null,
    spacing_m: null,
  }),
}
