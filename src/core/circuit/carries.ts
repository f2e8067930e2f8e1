/** What a copper cable carries. */

/**
 * Two cores with insulation for 70 degC, clipped to a surface and by themselves, ambient 30 degC, A by cross-section in
 * mm2. In a wall, in a bunch or in the heat it is less; with insulation for 90 degC more.
 * Source: BS 7671 table 4D2A, reference method C (from memory).
 */
const clipped_A: Readonly<Record<string, number>> = {
  '1': 15,
  '1.5': 19.5,
  '2.5': 27,
  '4': 36,
  '6': 46,
  '10': 63,
  '16': 85,
  '25': 112,
  '35': 138,
}

/** Null where the table has no such cross-section. */
export const carriesClipped_A = (area_mm2: number): number | null => clipped_A[String(area_mm2)] ?? null

/** Each leg of a ring must carry so much by itself, behind 30 or 32 A. Source: BS 7671 433.1.204 (from memory). */
export const RING_LEG = { least_A: 20, mostRating_A: 32 } as const
