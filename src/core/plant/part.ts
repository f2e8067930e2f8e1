import { z } from 'zod'
import { circuitRoles, deviceTypes } from '../loop/maxZs'
import { moduleDataSchema } from '../pv/moduleData'
import { rcdKinds, rcdStandards, rcdTypes } from '../rcd/limits'

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
  /** The switch it goes through; left away it is the only one there is. */
  switchId: idSchema.nullable().optional(),
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
  /** The circuit that it feeds; nothing is switched on before that one was proved. */
  circuitId: idSchema.nullable().optional(),
})

/** The supply at the origin: how it is earthed, and what its network declares. */
export const arrangements = ['TN-C-S', 'TN-S', 'TT'] as const
export const phasesSchema = z.union([z.literal(1), z.literal(3)])
const supply = z.strictObject({
  kind: z.literal('supply'),
  tag: tagSchema,
  arrangement: z.enum(arrangements),
  phases: phasesSchema,
  /** Line to earth. */
  nominal_V: z.number().min(50).max(690),
  declaredZe_ohm: z.number().positive().max(1e4).nullable(),
  faultLevel_kA: z.number().positive().max(200).nullable(),
})
const board = z.strictObject({
  kind: z.literal('board'),
  tag: tagSchema,
  name: z.string().trim().max(60),
  /** The board that feeds it, null at the origin. */
  boardId: idSchema.nullable(),
  /** The supply of a board at the origin, where there are several; left away it is the only one. */
  supplyId: idSchema.nullable().optional(),
  /** How many come in; null or left away where it is the supply's own. */
  phases: phasesSchema.nullable().optional(),
})
export const rcdForms = ['rccb', 'rcbo'] as const
const rcd = z.strictObject({
  kind: z.literal('rcd'),
  tag: tagSchema,
  boardId: idSchema.nullable(),
  /** The device above it in series, null where there is none. */
  upstreamId: idSchema.nullable(),
  /** By itself, or in one device with the breaker of a circuit; left away it is by itself. */
  form: z.enum(rcdForms).optional(),
  type: z.enum(rcdTypes),
  delay: z.enum(rcdKinds),
  rated_mA: z.number().positive().max(10_000),
  standard: z.enum(rcdStandards),
})
export const circuitLayouts = ['radial', 'ring'] as const
const area = z.number().min(0.5).max(400).nullable()
const circuit = z.strictObject({
  kind: z.literal('circuit'),
  tag: tagSchema,
  /** What it feeds. */
  feeds: z.string().trim().max(60),
  /** A circuit that feeds a board may be disconnected later; left away it is a final one. */
  role: z.enum(circuitRoles).optional(),
  /** Socket-outlets, or fixed equipment only: their times differ above 32 A; left away it may have sockets. */
  sockets: z.boolean().nullable().optional(),
  /** A ring has both ends at the board, and its whole length is entered; left away it is radial. */
  layout: z.enum(circuitLayouts).optional(),
  boardId: idSchema.nullable(),
  rcdId: idSchema.nullable(),
  phases: phasesSchema,
  /** The device against overcurrent; without one a loop is a reading and no verdict. */
  device: z.enum(deviceTypes).nullable(),
  rating_A: z.number().positive().max(2000).nullable(),
  breaking_kA: z.number().positive().max(200).nullable(),
  line_mm2: area,
  protective_mm2: area,
  length_m: z.number().positive().max(5000).nullable(),
})
export const electrodeTests = ['spikes', 'loop'] as const
export const electrodeForms = ['rods', 'disc'] as const
const electrode = z.strictObject({
  kind: z.literal('electrode'),
  tag: tagSchema,
  /** Rods driven in, or discs and plates laid; left away it is rods. */
  form: z.enum(electrodeForms).optional(),
  /** How it is tested: by spikes before anything is energised, or by the loop, live, with Ze; left away by spikes. */
  testedBy: z.enum(electrodeTests).optional(),
  /** How many, of whichever form. */
  rods: z.number().int().min(1).max(20).nullable(),
  length_m: z.number().positive().max(100).nullable(),
  diameter_mm: z.number().min(3).max(3000).nullable(),
  spacing_m: z.number().positive().max(200).nullable(),
  /** Of a disc, or of a rod's head. */
  depth_m: z.number().positive().max(20).nullable().optional(),
})
/** What runs in the ground near an electrode, as a straight line: its nearest point tells where it lies. */
export const serviceKinds = ['water', 'gas', 'power', 'telecom', 'drain'] as const
export const serviceMaterials = ['metal', 'plastic'] as const
const buriedService = z.strictObject({
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

export const partDataSchema = z.discriminatedUnion('kind', [
  site,
  array,
  row,
  string,
  combiner,
  surgeProtection,
  dcSwitch,
  inverter,
  supply,
  board,
  rcd,
  circuit,
  electrode,
  buriedService,
])
export type PartData = z.infer<typeof partDataSchema>
export type PartKind = PartData['kind']
export type StringData = Extract<PartData, { kind: 'string' }>
export type ArrayData = Extract<PartData, { kind: 'array' }>
export type CircuitData = Extract<PartData, { kind: 'circuit' }>
export type RcdData = Extract<PartData, { kind: 'rcd' }>
export type ElectrodeData = Extract<PartData, { kind: 'electrode' }>
export type ServiceData = Extract<PartData, { kind: 'buried-service' }>
export type InverterData = Extract<PartData, { kind: 'inverter' }>
export const partKinds = partDataSchema.options.map((option) => option.shape.kind.value)

/** Kinds of part beyond the inverter: earth and the AC side. */
export const acKinds: ReadonlySet<PartKind> = new Set([
  'supply',
  'board',
  'rcd',
  'circuit',
  'electrode',
  'buried-service',
])

/** A part as it stands now: its data, and the entry which last changed it. */
export type Part<Data extends PartData = PartData> = { id: string; data: Data; revision: string; retired: boolean }
export type StringPart = Part<StringData>
