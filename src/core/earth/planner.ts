/** How many rods or discs a soil needs for a target: the planning sheet. Sources: BS 7430, Dwight 1936 (from memory). */
import { planOf, type PlannedRod, type Shape, singleResistance_ohm, wennerResistivity_ohm_m } from './rods'

export type SoilKnown =
  | { from: 'given'; resistivity_ohm_m: number }
  /** Four spikes in line, equally apart. */
  | { from: 'wenner'; apart_m: number; read_ohm: number }

export type PlanAsk = { soil: SoilKnown; shape: Shape; spacing_m: number; target_ohm: number }
export type Plan = {
  resistivity_ohm_m: number
  rows: (PlannedRod & {
    /** One rod as long as all of them together; null for discs. */
    asOneDeep_ohm: number | null
  })[]
  /** The first number that meets the target, null where ten do not. */
  needed: number | null
  /** Whether one long rod would meet it with less than those needed side by side. */
  deepNeeded: number | null
}

/** The soil's resistivity, ohm m, from whatever is known of it. */
export const soilResistivity_ohm_m = (soil: SoilKnown): number =>
  soil.from === 'given' ? soil.resistivity_ohm_m : wennerResistivity_ohm_m(soil.apart_m, soil.read_ohm)

/** What one, two, ... ten would have, and which number meets the target; null where the shape is not known. */
export function planFor({ soil, shape, spacing_m, target_ohm }: PlanAsk): Plan | null {
  const resistivity_ohm_m = soilResistivity_ohm_m(soil)
  const plan = planOf(shape, resistivity_ohm_m, spacing_m)
  if (!plan) return null
  const rows = plan.map((row) => ({ ...row, asOneDeep_ohm: deepRod_ohm(shape, resistivity_ohm_m, row.count) }))
  const first = (meets: (row: (typeof rows)[number]) => boolean): number | null => rows.find(meets)?.count ?? null
  return {
    resistivity_ohm_m,
    rows,
    needed: first((row) => row.combined_ohm <= target_ohm),
    deepNeeded: first((row) => row.asOneDeep_ohm !== null && row.asOneDeep_ohm <= target_ohm),
  }
}

function deepRod_ohm(shape: Shape, resistivity_ohm_m: number, count: number): number | null {
  if (shape.form !== 'rods' || shape.length_m === null) return null
  return singleResistance_ohm({ ...shape, length_m: count * shape.length_m }, resistivity_ohm_m)
}
