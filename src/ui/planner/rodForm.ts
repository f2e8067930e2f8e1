/** The fields of the rod planner: what they begin with, and what they come to. */
import '@/words/plant'
import '@/words/planner'
import { type Plan, planFor, type SoilKnown } from '@/core/earth/planner'
import { type Shape, soilOf } from '@/core/earth/rods'
import type { ElectrodeData } from '@/core/plant/part'
import { shapeOf, spacingOf } from '@/core/steps/earth/electrodeWorking'
import { figure, say, type WordKey } from '@/words/say'

const fields = {
  resistivity: { label: 'planner.resistivity', from: 1, to: 100_000 },
  apart: { label: 'planner.apart', from: 0.1, to: 100 },
  read: { label: 'planner.read', from: 0.001, to: 100_000 },
  length: { label: 'plant.rod-length', from: 0.1, to: 100 },
  diameter: { label: 'plant.rod-diameter', from: 3, to: 3000 },
  spacing: { label: 'plant.rod-spacing', from: 0.1, to: 200 },
  depth: { label: 'plant.electrode-depth', from: 0.1, to: 20 },
  target: { label: 'planner.target', from: 0.1, to: 10_000 },
} as const satisfies Record<string, { label: WordKey; from: number; to: number }>
export type RodField = keyof typeof fields
export const labelOf = (field: RodField): string => say(fields[field].label)

export type RodTexts = Record<RodField, string> & { form: Shape['form']; soil: SoilKnown['from'] }

/** Where nothing is known: ordinary soil, a usual rod [D]. */
const USUAL = { resistivity: '100', length: '2.4', diameter: '16', depth: '0.6', discDiameter: '600' }
const text = (value: number | null | undefined, usual: string): string => (value == null ? usual : String(value))

/** What the soil must be for this electrode to read as it does, ohm m; null where that cannot be told. */
export function soilFromReading(data: ElectrodeData, read_ohm: number | null): number | null {
  if (read_ohm === null || read_ohm <= 0 || data.rods === null) return null
  return soilOf(shapeOf(data), data.rods, spacingOf(data), read_ohm)
}

export function startTexts(data: ElectrodeData, read_ohm: number | null, limit_ohm: number | null): RodTexts {
  const soil = soilFromReading(data, read_ohm)
  const form = data.form ?? 'rods'
  return {
    form,
    soil: 'given',
    resistivity: soil === null ? USUAL.resistivity : figure(soil, 0),
    apart: '3',
    read: '',
    length: text(data.length_m, USUAL.length),
    diameter: text(data.diameter_mm, form === 'disc' ? USUAL.discDiameter : USUAL.diameter),
    spacing: String(spacingOf(data)),
    depth: text(data.depth_m, USUAL.depth),
    target: text(limit_ohm, '100'),
  }
}

/** The fields that are asked, by kind and by what is known of the soil. */
export function fieldsAsked({ form, soil }: Pick<RodTexts, 'form' | 'soil'>): RodField[] {
  return [
    ...(soil === 'given' ? (['resistivity'] as const) : (['apart', 'read'] as const)),
    ...(form === 'rods' ? (['length'] as const) : (['depth'] as const)),
    'diameter',
    'spacing',
    'target',
  ]
}

export type Planned = { plan: Plan; target_ohm: number; spacing_m: number; length_m: number | null }

/** The plan, or one sentence on the first field that cannot be read. */
export function readPlan(texts: RodTexts): Planned | { message: string } {
  const values: Partial<Record<RodField, number>> = {}
  for (const field of fieldsAsked(texts)) {
    const typed = texts[field].trim()
    const value = Number(typed.replace(',', '.'))
    const { label, from, to } = fields[field]
    if (typed === '' || !(value >= from && value <= to))
      return { message: say('planner.not-between', { what: say(label), typed, from, to }) }
    values[field] = value
  }
  const { length = null, diameter, depth = null } = values
  const shape: Shape = { form: texts.form, length_m: length, diameter_m: diameter! / 1000, depth_m: depth }
  const soil: SoilKnown =
    texts.soil === 'given'
      ? { from: 'given', resistivity_ohm_m: values.resistivity! }
      : { from: 'wenner', apart_m: values.apart!, read_ohm: values.read! }
  const plan = planFor({ soil, shape, spacing_m: values.spacing!, target_ohm: values.target! })
  if (!plan) return { message: say('planner.rod-thick', { length: length ?? 0, thick: diameter! }) }
  return { plan, target_ohm: values.target!, spacing_m: values.spacing!, length_m: length }
}
