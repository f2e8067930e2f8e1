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
/** The same in 5 s, for circuits that feed a board. Source: BS 7671 table 41.4 (from memory). */
const slowFuse_ohm: Readonly<Record<string, number>> = {
  '6': 12,
  '10': 6.8,
  '16': 4,
  '20': 2.8,
  '25': 2.2,
  '32': 1.7,
  '40': 1.3,
  '50': 0.99,
  '63': 0.78,
  '80': 0.55,
  '100': 0.42,
}

export const circuitRoles = ['final', 'distribution'] as const
export type CircuitRole = (typeof circuitRoles)[number]

/**
 * In how long a fault must be disconnected at 120 to 230 V, s. Source: BS 7671 411.3.2.2 to 411.3.2.4 and table 41.1
 * (from memory).
 */
export function disconnection_s(role: CircuitRole, isTt: boolean): 0.2 | 0.4 | 1 | 5 {
  if (role === 'final') return isTt ? 0.2 : 0.4
  return isTt ? 1 : 5
}

export const NOMINAL_V = 230
/** Lowest voltage of the supply in use, over its nominal one: Cmin. */
export const CMIN = 0.95

export type Supply = { nominal_V: number; voltageFactor: number; role?: CircuitRole }

/**
 * Highest Zs, ohm; null where the table has no fuse of that rating. A breaker opens at once or not in time at all; a
 * fuse of a circuit that feeds a board may take 5 s.
 * @example maxZs_ohm('B', 32) // 1.365625
 */
export function maxZs_ohm(
  device: DeviceType,
  rating_A: number,
  { nominal_V, voltageFactor, role = 'final' }: Supply = { nominal_V: NOMINAL_V, voltageFactor: CMIN },
): number | null {
  if (device !== 'gG') return (voltageFactor * nominal_V) / (instantaneous[device] * rating_A)
  const row = (role === 'final' ? fuse_ohm : slowFuse_ohm)[String(rating_A)]
  return row === undefined ? null : (row * voltageFactor * nominal_V) / (CMIN * NOMINAL_V)
}
