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
 * Resistance of n equal rods in line, ohm: R (1 + lambda a)/n with a = rho/(2 pi R s). Source: BS 7430 (from memory).
 * @throws Error for a count that the table of lambda does not have.
 */
export function rodsInLine_ohm(rod: Rod, count: number, spacing_m: number): number {
  const factor = lambda[count - 1]
  if (factor === undefined) throw new Error(`rodsInLine_ohm: expected 1 to ${MOST_RODS} rods, got ${count}`)
  const single = rodResistance_ohm(rod)
  const nearness = rod.resistivity_ohm_m / (2 * Math.PI * single * spacing_m)
  return (single * (1 + factor * nearness)) / count
}

/** How many rods in line reach a target; null where ten do not. */
export function rodsNeeded(rod: Rod, spacing_m: number, target_ohm: number): number | null {
  for (let count = 1; count <= MOST_RODS; count++) if (rodsInLine_ohm(rod, count, spacing_m) <= target_ohm) return count
  return null
}

/**
 * Resistivity of the soil in which so many rods in line read so much, ohm m: the formula of rods in line, turned round.
 * @example soilFrom({ length_m: 3, diameter_m: 0.016 }, 1, 3, 33.493) // 100
 */
export function soilFrom(
  size: Omit<Rod, 'resistivity_ohm_m'>,
  count: number,
  spacing_m: number,
  read_ohm: number,
): number {
  // Every resistance grows with the soil's, so one ohm metre tells them all.
  return read_ohm / rodsInLine_ohm({ ...size, resistivity_ohm_m: 1 }, count, spacing_m)
}

/** What each further rod would bring: the resistance with 1, 2, ... rods. */
export const planOfRods = (rod: Rod, spacing_m: number): { count: number; combined_ohm: number }[] =>
  Array.from({ length: MOST_RODS }, (_, k) => ({ count: k + 1, combined_ohm: rodsInLine_ohm(rod, k + 1, spacing_m) }))

/** Resistivity of soil by four spikes in line, equally apart (Wenner), ohm m. */
export const wennerResistivity_ohm_m = (apart_m: number, read_ohm: number): number => 2 * Math.PI * apart_m * read_ohm

/**
 * Whether several rods read less than equal rods far apart could: better soil, more depth or a hidden path.
 * @example tooGood(6.4, 20, 3) // true: 20/3 is 6.67
 */
export const tooGood = (read_ohm: number, single_ohm: number, count: number): boolean =>
  count > 1 && read_ohm < single_ohm / count
