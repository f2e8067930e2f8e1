import { z } from 'zod'
import { current, idSchema, moduleTypeSchema, ratedSchema, tagSchema, voltage } from '../basics'
import type { PartDescriptor } from './descriptor'

/** Modules in one string: below 1 is no string, above 60 no system voltage of today allows. */
export const modulesInSeriesSchema = z.number().int().min(1).max(60)

/** What sits between every module and its string, with the figures that its maker gives; null where there is nothing. */
const electronicsSchema = z.strictObject({
  acts: z.enum(['shuts-off', 'converts']).nullable(),
  /** What each module still gives while it is held back, V. */
  held_V: z.number().positive().max(100).nullable(),
  /** What a string of converters never passes, V and A. */
  most_V: voltage,
  most_A: current,
  /** The highest voltage of an insulation test that it bears, V. */
  insulation_V: voltage,
})
const withElectronics = { field: 'electronics.acts', is: ['shuts-off', 'converts'] }
const withConverters = { field: 'electronics.acts', is: ['converts'] }

/** Fields that came later are optional: what was once written stays as it was. */
const schema = z.strictObject({
  kind: z.literal('string'),
  tag: tagSchema,
  arrayId: idSchema.nullable(),
  modulesInSeries: modulesInSeriesSchema,
  /** A copy: editing the library later changes no verdict. */
  moduleType: moduleTypeSchema,
  combinerId: idSchema.nullable().optional(),
  inverterId: idSchema.nullable().optional(),
  /** The switch it goes through; left away it is the only one there is. */
  switchId: idSchema.nullable().optional(),
  /** Mark of the inverter's tracker input; strings on one input are in parallel. */
  input: z.string().trim().max(8).nullable().optional(),
  fuse: ratedSchema.nullable().optional(),
  /** What its own cable carries as it is laid: where it is hot, and beside others, A. */
  cable_A: z.number().positive().max(1000).nullable().optional(),
  electronics: electronicsSchema.nullable().optional(),
})

export const string: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'strings',
  prefix: null,
  fields: [
    { id: 'tag', label: 'tag' },
    { id: 'modulesInSeries', label: 'modules' },
    { id: 'moduleType', label: 'type', library: 'module' },
    { id: 'arrayId', label: 'array-of', names: { kind: 'array', else: 'none' } },
    { id: 'combinerId', label: 'combiner-of', names: { kind: 'combiner', else: 'none' } },
    { id: 'inverterId', label: 'inverter-of', names: { kind: 'inverter', else: 'only' } },
    { id: 'switchId', label: 'switch-of', names: { kind: 'dc-switch', else: 'only' } },
    { id: 'input', label: 'input' },
    { id: 'cable_A', label: 'cable-carries' },
    { id: 'fuse.rating_A', label: 'fuse-rating' },
    { id: 'fuse.ratedVoltage_V', label: 'fuse-voltage' },
    { id: 'electronics.acts', label: 'module-electronics' },
    { id: 'electronics.held_V', label: 'electronics-held', when: withElectronics },
    { id: 'electronics.most_V', label: 'electronics-most-volts', when: withConverters },
    { id: 'electronics.most_A', label: 'electronics-most-amperes', when: withConverters },
    { id: 'electronics.insulation_V', label: 'electronics-insulation', when: withElectronics },
  ],
  blank: () => {
    throw new Error('blank: expected a string to be made of a module type')
  },
}
