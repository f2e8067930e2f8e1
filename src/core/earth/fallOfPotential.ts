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
