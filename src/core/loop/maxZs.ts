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
  '40': 0.75,
  '50': 0.57,
  '63': 0.44,
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

/** What decides how long a fault may last. */
export type Disconnection = {
  role: CircuitRole
  /** Socket-outlets, or fixed equipment only; null where nobody said, and then it may have sockets. */
  sockets: boolean | null
  rating_A: number | null
  isTt: boolean
  /** Line to earth, V AC. */
  nominal_V: number
}

/** Final circuits up to these ratings have the short times: with sockets, and with fixed equipment only. */
const SHORT_UP_TO_A = { sockets: 63, fixed: 32 } as const
/** Times of short circuits by the voltage to earth, s: TN, then TT. Source: BS 7671 table 41.1 (from memory). */
const shortTimes = [
  { upTo_V: 120, tn_s: 0.8, tt_s: 0.3 },
  { upTo_V: 230, tn_s: 0.4, tt_s: 0.2 },
  { upTo_V: 400, tn_s: 0.2, tt_s: 0.07 },
  { upTo_V: Number.POSITIVE_INFINITY, tn_s: 0.1, tt_s: 0.04 },
] as const
const LONG_s = { tn: 5, tt: 1 } as const

/**
 * In how long a fault must be disconnected, s. Source: BS 7671 411.3.2.2 to 411.3.2.4 and table 41.1 (from memory).
 * @example disconnection_s({ role: 'final', sockets: null, rating_A: 32, isTt: false, nominal_V: 230 }) // 0.4
 */
export function disconnection_s({ role, sockets, rating_A, isTt, nominal_V }: Disconnection): number {
  const short_A = sockets === false ? SHORT_UP_TO_A.fixed : SHORT_UP_TO_A.sockets
  if (role === 'distribution' || (rating_A !== null && rating_A > short_A)) return isTt ? LONG_s.tt : LONG_s.tn
  const row = shortTimes.find((one) => nominal_V <= one.upTo_V)!
  return isTt ? row.tt_s : row.tn_s
}

export const NOMINAL_V = 230
/** Lowest voltage of the supply in use, over its nominal one: Cmin. */
export const CMIN = 0.95

export type Supply = { nominal_V: number; voltageFactor: number; within_s?: number }
const FINAL_s = 0.4

/**
 * Highest Zs, ohm; null where no table tells it. A breaker opens at once or not in time at all; a fuse has a table for
 * 0.4 s and one for 5 s, and none for the times of TT.
 * @example maxZs_ohm('B', 32) // 1.365625
 */
export function maxZs_ohm(
  device: DeviceType,
  rating_A: number,
  { nominal_V, voltageFactor, within_s = FINAL_s }: Supply = { nominal_V: NOMINAL_V, voltageFactor: CMIN },
): number | null {
  if (device !== 'gG') return (voltageFactor * nominal_V) / (instantaneous[device] * rating_A)
  const table = within_s === FINAL_s ? fuse_ohm : within_s === LONG_s.tn ? slowFuse_ohm : null
  const row = table?.[String(rating_A)]
  return row === undefined ? null : (row * voltageFactor * nominal_V) / (CMIN * NOMINAL_V)
}
