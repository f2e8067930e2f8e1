import { z } from 'zod'
import { moduleDataSchema } from '../pv/moduleData'

/** Ids are UUIDs made by the device (version 7, so they sort by time of making). */
export const idSchema = z.uuid()
/** The short mark of a part that is shown big and written on the cable: letters and figures. */
export const tagSchema = z
  .string()
  .trim()
  .min(1)
  .max(12)
  .regex(/^[\p{L}\p{N}][\p{L}\p{N} .\-/]*$/u, 'a tag is made of letters, figures, dots and dashes')

export const moduleTypeSchema = z.strictObject({
  id: idSchema,
  make: z.string().trim().min(1).max(60),
  name: z.string().trim().min(1).max(60),
  data: moduleDataSchema,
})
export type ModuleType = z.infer<typeof moduleTypeSchema>

export const mountingSchema = z.enum(['open-rack', 'close-roof', 'insulated-back'])

/** Modules in one string: below 1 is no string, above 60 no system voltage of today allows. */
export const modulesInSeriesSchema = z.number().int().min(1).max(60)

const voltage = z.number().positive().max(3000).nullable()
const current = z.number().positive().max(2000).nullable()
/** A device made for a voltage and a current: a switch, a string fuse. */
const ratedSchema = z.strictObject({ ratedVoltage_V: voltage, rating_A: current })

/** The place itself: what holds for the whole installation. */
const site = z.strictObject({
  kind: z.literal('site'),
  tag: tagSchema,
  lowestTemperature_C: z.number().min(-60).max(40),
  highestCellTemperature_C: z.number().min(20).max(110),
})
const array = z.strictObject({
  kind: z.literal('array'),
  tag: tagSchema,
  tilt_deg: z.number().min(0).max(90),
  azimuth_deg: z.number().min(0).lt(360),
  mounting: mountingSchema,
})
/** A rail row, or a frame that is bonded by itself. */
const row = z.strictObject({
  kind: z.literal('row'),
  tag: tagSchema,
  arrayId: idSchema.nullable(),
  /** The bonding conductor from the main earthing terminal, null where it is not known. */
  conductor: z
    .strictObject({
      length_m: z.number().positive().max(2000),
      area_mm2: z.number().min(0.5).max(400),
      joints: z.number().int().min(0).max(200),
    })
    .nullable(),
})
/** Fields that came later are optional: what was once written stays as it was. */
const string = z.strictObject({
  kind: z.literal('string'),
  tag: tagSchema,
  arrayId: idSchema.nullable(),
  modulesInSeries: modulesInSeriesSchema,
  /** A copy: editing the library later changes no verdict. */
  moduleType: moduleTypeSchema,
  combinerId: idSchema.nullable().optional(),
  inverterId: idSchema.nullable().optional(),
  /** Mark of the inverter's tracker input; strings on one input are in parallel. */
  input: z.string().trim().max(8).nullable().optional(),
  fuse: ratedSchema.nullable().optional(),
})
const combiner = z.strictObject({ kind: z.literal('combiner'), tag: tagSchema, inverterId: idSchema.nullable() })
const surgeProtection = z.strictObject({
  kind: z.literal('surge-protection'),
  tag: tagSchema,
  /** Highest continuous DC voltage, V. */
  ratedVoltage_V: voltage,
})
const dcSwitch = z.strictObject({ kind: z.literal('dc-switch'), tag: tagSchema, ...ratedSchema.shape })
const inverter = z.strictObject({
  kind: z.literal('inverter'),
  tag: tagSchema,
  maxInput_V: voltage,
  trackerMin_V: voltage.optional(),
  trackerMax_V: voltage.optional(),
  /** Highest short-circuit current of one tracker input, A. */
  maxShortCircuit_A: current.optional(),
})

export const partDataSchema = z.discriminatedUnion('kind', [
  site,
  array,
  row,
  string,
  combiner,
  surgeProtection,
  dcSwitch,
  inverter,
])
export type PartData = z.infer<typeof partDataSchema>
export type PartKind = PartData['kind']
export type StringData = Extract<PartData, { kind: 'string' }>
export type ArrayData = Extract<PartData, { kind: 'array' }>
export type InverterData = Extract<PartData, { kind: 'inverter' }>
export const partKinds = partDataSchema.options.map((option) => option.shape.kind.value)

/** A part as it stands now: its data, and the entry which last changed it. */
export type Part<Data extends PartData = PartData> = { id: string; data: Data; revision: string; retired: boolean }
export type StringPart = Part<StringData>
