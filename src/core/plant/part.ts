/** The parts of a plant: data of every kind, and a part as it stands now. */
import { z } from 'zod'
import { type Kind, kinds, nameOf } from './kinds'

export { idSchema, type ModuleType, moduleTypeSchema, phasesSchema, tagSchema } from './basics'
export { type ChargePointModel, chargePointModelSchema } from './chargePointModel'
export { mountingSchema } from './kinds/array'
export { serviceKinds, serviceMaterials } from './kinds/buriedService'
export { circuitLayouts } from './kinds/circuit'
export { electrodeTests } from './kinds/electrode'
export { rcdForms } from './kinds/rcd'
export { modulesInSeriesSchema } from './kinds/string'
export { arrangements } from './kinds/supply'

type Schemas<List extends readonly { schema: unknown }[]> = { -readonly [K in keyof List]: List[K]['schema'] }
const schemas = kinds.map((kind) => kind.schema) as unknown as Schemas<typeof kinds>
export const partDataSchema = z.discriminatedUnion('kind', schemas)
export type PartData = z.infer<Kind['schema']>
export type PartKind = PartData['kind']
export type StringData = Extract<PartData, { kind: 'string' }>
export type ArrayData = Extract<PartData, { kind: 'array' }>
export type CircuitData = Extract<PartData, { kind: 'circuit' }>
export type RcdData = Extract<PartData, { kind: 'rcd' }>
export type ChargePointPartData = Extract<PartData, { kind: 'charge-point' }>
export type ElectrodeData = Extract<PartData, { kind: 'electrode' }>
export type ServiceData = Extract<PartData, { kind: 'buried-service' }>
export type InverterData = Extract<PartData, { kind: 'inverter' }>
export const partKinds: readonly PartKind[] = kinds.map(nameOf)

/** Kinds of part beyond the inverter: earth and the AC side. */
export const acKinds: ReadonlySet<PartKind> = new Set(kinds.filter((kind) => kind.side === 'ac').map(nameOf))

/** A part as it stands now: its data, and the entry which last changed it. */
export type Part<Data extends PartData = PartData> = { id: string; data: Data; revision: string; retired: boolean }
export type StringPart = Part<StringData>
