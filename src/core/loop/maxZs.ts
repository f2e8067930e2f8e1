/**
 * Highest earth fault loop impedance that a protective device allows.
 * Source: BS 7671:2018 411.4.4, tables 41.2 to 41.4; IEC 60364-6 annex D for the two thirds (from memory).
 */

export const breakerTypes = ['B', 'C', 'D'] as const
export const deviceTypes = [...breakerTypes, 'gG'] as const
export type DeviceType = (typeof deviceTypes)[number]

/** Current that opens a breaker at once, in multiples of its rating. Source: IEC 60898-1 (from memory). */
const instantaneous: Readonly<Record<(typeof breakerTypes)[number], number>> = { B: 5, C: 10, D: 20 }

/** BS 88-2 gG fuses, 0.4 s, at 230 V and a factor of 0.95: rating in A to ohm. Source: BS 7671 table 41.2. */
const fuse_ohm: Readonly<Record<string, number>> = {
  '6': 7.8,
  '10': 4.65,
  '16': 2.43,
  '20': 1.68,
  '25': 1.29,
  '32': 0.99,
}
export const fuseRatings_A: readonly number[] = Object.keys(fuse_ohm).map(Number)

export const NOMINAL_V = 230
/** Lowest voltage of the supply in use, over its nominal one: Cmin. */
export const CMIN = 0.95

export type Supply = { nominal_V: number; voltageFactor: number }

/**
 * Highest Zs, ohm; null where the table has no fuse of that rating.
 * @example maxZs_ohm('B', 32) // 1.365625
 */
export function maxZs_ohm(
  device: DeviceType,
  rating_A: number,
  { nominal_V, voltageFactor }: Supply = { nominal_V: NOMINAL_V, voltageFactor: CMIN },
): number | null {
  if (device !== 'gG') return (voltageFactor * nominal_V) / (instantaneous[device] * rating_A)
  const row = fuse_ohm[String(rating_A)]
  return row === undefined ? null : (row * voltageFactor * nominal_V) / (CMIN * NOMINAL_V)
}

/** Current that opens the device in time, A: where a reading is short of the limit, it is short of this. */
export function operatingCurrent_A(device: DeviceType, rating_A: number): number | null {
  const limit = maxZs_ohm(device, rating_A)
  return limit === null ? null : (CMIN * NOMINAL_V) / limit
}
