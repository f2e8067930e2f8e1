/** Rods in soil: what one has, what several in line have together, and how many reach a target. */

/**
 * Factor of n rods in line for their mutual influence, n from 1. Source: BS 7430:2011 table 2 (from memory).
 */
const lambda = [0, 1.0, 1.66, 2.15, 2.54, 2.87, 3.15, 3.39, 3.61, 3.81] as const
export const MOST_RODS = lambda.length

export type Rod = { resistivity_ohm_m: number; length_m: number; diameter_m: number }

/**
 * Resistance to earth of a single vertical rod, ohm. Source: Dwight 1936; BS 7430 (from memory).
 * @throws Error where the rod is shorter than half its diameter: no rod at all.
 * @example rodResistance_ohm({ resistivity_ohm_m: 100, length_m: 3, diameter_m: 0.016 }) // 33.5
 */
export function rodResistance_ohm({ resistivity_ohm_m, length_m, diameter_m }: Rod): number {
  const shape = Math.log((8 * length_m) / diameter_m) - 1
  if (!(shape > 0)) throw new Error(`rodResistance_ohm: expected a rod longer than thick, got ${length_m} m`)
  return (resistivity_ohm_m / (2 * Math.PI * length_m)) * shape
}

/**
 * Resistance to earth of a disc or a round plate lying flat, both faces in the soil, ohm: rho/(8 r) deep down, twice
 * that at the surface, between them by the potential which its image above the ground has on its axis.
 * Source: Dwight 1936, whose first terms it has; BS 7430 (from memory).
 *
 * @throws Error where it is no disc.
 * @example discResistance_ohm(100, 0.6, 1) // 45.6: 100/(8 * 0.3), and a tenth for the image
 */
export function discResistance_ohm(resistivity_ohm_m: number, diameter_m: number, depth_m: number): number {
  if (!(diameter_m > 0 && depth_m > 0)) throw new Error('discResistance_ohm: expected a diameter and a depth')
  const radius_m = diameter_m / 2
  const image = Math.atan2(radius_m, 2 * depth_m) / (Math.PI / 2)
  return (resistivity_ohm_m / (8 * radius_m)) * (1 + image)
}

/**
 * Resistance of n equal electrodes in line, ohm: R (1 + lambda a)/n with a = rho/(2 pi R s). Source: BS 7430 (from
 * memory).
 * @throws Error for a count that the table of lambda does not have.
 */
export function inLine_ohm(single_ohm: number, resistivity_ohm_m: number, count: number, spacing_m: number): number {
  const factor = lambda[count - 1]
  if (factor === undefined) throw new Error(`inLine_ohm: expected 1 to ${MOST_RODS} rods, got ${count}`)
  const nearness = resistivity_ohm_m / (2 * Math.PI * single_ohm * spacing_m)
  return (single_ohm * (1 + factor * nearness)) / count
}

/** Resistance of n equal rods in line, ohm. */
export const rodsInLine_ohm = (rod: Rod, count: number, spacing_m: number): number =>
  inLine_ohm(rodResistance_ohm(rod), rod.resistivity_ohm_m, count, spacing_m)

/** How many rods in line reach a target; null where ten do not. */
export function rodsNeeded(rod: Rod, spacing_m: number, target_ohm: number): number | null {
  for (let count = 1; count <= MOST_RODS; count++) if (rodsInLine_ohm(rod, count, spacing_m) <= target_ohm) return count
  return null
}

/** What an electrode is made of; `disc` is a plate of whatever outline. */
export const electrodeForms = ['rods', 'disc', 'tape', 'foundation', 'mesh'] as const
export type ElectrodeForm = (typeof electrodeForms)[number]

/** What is known of an electrode's shape, as the plant has it. */
export type Shape = {
  form: ElectrodeForm
  length_m: number | null
  diameter_m: number | null
  depth_m: number | null
}

/** Where nobody said how deep a disc lies, m [D]. */
const USUAL_DEPTH_m = 0.6

/** What one of a shape has in soil of so much, ohm; null where its measures are not known, or no rule is given for it. */
export function singleResistance_ohm(shape: Shape, resistivity_ohm_m: number): number | null {
  const { form, length_m, diameter_m } = shape
  if (diameter_m === null) return null
  if (form === 'disc') return discResistance_ohm(resistivity_ohm_m, diameter_m, shape.depth_m ?? USUAL_DEPTH_m)
  return form !== 'rods' || length_m === null || 8 * length_m <= Math.E * diameter_m
    ? null
    : rodResistance_ohm({ resistivity_ohm_m, length_m, diameter_m })
}

export type PlannedRod = { count: number; combined_ohm: number; brings_ohm: number }

/** What each further one would bring, from the first to ten in line; null where the shape is not known. */
export function planOf(shape: Shape, resistivity_ohm_m: number, spacing_m: number): PlannedRod[] | null {
  const single = singleResistance_ohm(shape, resistivity_ohm_m)
  if (single === null) return null
  let before = Number.POSITIVE_INFINITY
  return Array.from({ length: MOST_RODS }, (_, k) => {
    const combined_ohm = inLine_ohm(single, resistivity_ohm_m, k + 1, spacing_m)
    const brings_ohm = Number.isFinite(before) ? before - combined_ohm : 0
    before = combined_ohm
    return { count: k + 1, combined_ohm, brings_ohm }
  })
}

/** Resistivity of the soil in which so many of a shape read so much, ohm m; null where the shape is not known. */
export function soilOf(shape: Shape, count: number, spacing_m: number, read_ohm: number): number | null {
  const plan = count <= MOST_RODS ? planOf(shape, 1, spacing_m) : null
  return plan ? read_ohm / plan[count - 1]!.combined_ohm : null
}

/** Resistivity of soil by four spikes in line, equally apart (Wenner), ohm m. */
export const wennerResistivity_ohm_m = (apart_m: number, read_ohm: number): number => 2 * Math.PI * apart_m * read_ohm

/**
 * Whether several rods read less than equal rods far apart could: better soil, more depth or a hidden path.
 * @example tooGood(8.1, 27, 3) // true: 27/3 is 9
 */
export const tooGood = (read_ohm: number, single_ohm: number, count: number): boolean =>
  count > 1 && read_ohm < single_ohm / count
