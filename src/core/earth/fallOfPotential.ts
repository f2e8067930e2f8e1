/**
 * Fall of potential in even soil: what the tester reads with the potential spike at a share of the way to the current
 * spike. Used to say how far a reading at another place is from the truth. Source: Tagg 1964; IEEE 81 (from memory).
 */

/** Where a hemisphere in even soil reads true: (sqrt(5) - 1)/2 of the way. */
export const TRUE_SHARE = (Math.sqrt(5) - 1) / 2

/**
 * Read over true resistance of a hemisphere of radius r, the current spike `distance_m` off, the potential spike at
 * `share` of the way.
 *
 * @throws Error where a spike would stand inside the electrode.
 * @example readOverTrue(0.5, 30, TRUE_SHARE) // 1
 */
export function readOverTrue(radius_m: number, distance_m: number, share: number): number {
  const potential_m = share * distance_m
  if (potential_m <= radius_m || distance_m <= potential_m)
    throw new Error('readOverTrue: expected the potential spike between electrode and current spike')
  // Potential differences of two point sources in a half space, over that of the hemisphere to far earth.
  return 1 - radius_m * (1 / potential_m + 1 / distance_m - 1 / (distance_m - potential_m))
}

/** The share of the way at which each school puts the potential spike. */
export const probeSchools = { 'sixty-two': 0.62, halfway: 0.5 } as const
export type ProbeSchool = keyof typeof probeSchools
/** How far the spike is moved for the two further readings: a tenth of the way; six metres in the halfway school. */
export function probePlaces(school: ProbeSchool, distance_m: number): [number, number, number] {
  const middle = probeSchools[school] * distance_m
  const moved = school === 'halfway' ? Math.min(6, distance_m / 4) : distance_m / 10
  return [middle, middle - moved, middle + moved]
}

/** A reading with the potential spike at a share of the way. */
export type CurvePoint = { share: number; read_ohm: number }

/**
 * What is read at a share of the way, between the two places next to it; null where none lies on one side.
 * @example readAt([{ share: 0.6, read_ohm: 20 }, { share: 0.7, read_ohm: 21 }], 0.618) // 20.18
 */
export function readAt(points: readonly CurvePoint[], share: number): number | null {
  const sorted = [...points].sort((a, b) => a.share - b.share)
  const before = sorted.findLast((one) => one.share <= share)
  const after = sorted.find((one) => one.share >= share)
  if (!before || !after) return null
  if (before === after) return before.read_ohm
  const part = (share - before.share) / (after.share - before.share)
  return before.read_ohm + part * (after.read_ohm - before.read_ohm)
}

export type EvenSoil = {
  /** What the electrode has in even soil that fits the readings best, ohm. */
  resistance_ohm: number
  /** Its reach (radius of the hemisphere that acts alike) over the way to the current spike. */
  reach: number
  /** Greatest difference of a reading from the fitted line, per cent of the resistance. */
  off_pct: number
}

/** How the reading bends with the place: the terms of `readOverTrue` with the way as unit. */
const bend = (share: number): number => 1 / share + 1 - 1 / (1 - share)

/** What even soil would give at a share of the way. */
export const evenSoilAt = ({ resistance_ohm, reach }: EvenSoil, share: number): number =>
  resistance_ohm * (1 - reach * bend(share))

/**
 * Even soil fitted to a curve by least squares: R (1 - reach bend(share)), linear in R and R reach.
 * @throws Error with fewer than three places, which any line fits.
 */
export function fitEvenSoil(points: readonly CurvePoint[]): EvenSoil {
  if (points.length < 3) throw new Error(`fitEvenSoil: expected three places or more, got ${points.length}`)
  const count = points.length
  const meanBend = points.reduce((sum, one) => sum + bend(one.share), 0) / count
  const meanRead = points.reduce((sum, one) => sum + one.read_ohm, 0) / count
  const spread = points.reduce((sum, one) => sum + (bend(one.share) - meanBend) ** 2, 0)
  const both = points.reduce((sum, one) => sum + (bend(one.share) - meanBend) * (one.read_ohm - meanRead), 0)
  const slope = both / spread
  const resistance_ohm = meanRead - slope * meanBend
  const soil = { resistance_ohm, reach: -slope / resistance_ohm, off_pct: 0 }
  const off = Math.max(...points.map((one) => Math.abs(one.read_ohm - evenSoilAt(soil, one.share))))
  return { ...soil, off_pct: (100 * off) / Math.abs(resistance_ohm) }
}
