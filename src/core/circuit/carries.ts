/** What a cable carries. */
import type { Metal } from './conductors'

/** How a cable lies: in a wall, in conduit, clipped, in the ground, in free air. Source: IEC 60364-5-52 table A.52.3 (from memory). */
export const referenceMethods = ['A', 'B', 'C', 'D', 'E', 'F', 'G'] as const
export type ReferenceMethod = (typeof referenceMethods)[number]

/**
 * Two cores with insulation for 70 degC, by themselves, A by cross-section in mm2: how they lie makes what they carry. In a
 * bunch or in the heat it is less; with insulation for 90 degC more.
 * Sources: BS 7671 table 4D2A, methods A, B, C and E, ambient 30 degC; IEC 60364-5-52 table B.52.2 for D, ground 20 degC
 * (from memory).
 */
const areas_mm2 = [1, 1.5, 2.5, 4, 6, 10, 16, 25, 35]
const carried_A = {
  A: [11, 14, 18.5, 25, 32, 43, 57, 75, 92],
  B: [13, 16.5, 23, 30, 38, 52, 69, 90, 111],
  C: [15, 19.5, 27, 36, 46, 63, 85, 112, 138],
  D: [null, 22, 29, 37, 46, 60, 78, 99, 119],
  E: [17, 22, 30, 40, 51, 70, 94, 119, 148],
} as const
/** In free air cables of one core carry no less than one of two. */
const TABLE_OF: Readonly<Record<ReferenceMethod, keyof typeof carried_A>> = {
  A: 'A',
  B: 'B',
  C: 'C',
  D: 'D',
  E: 'E',
  F: 'E',
  G: 'E',
}

/** A cable of aluminium carries so much of what one of copper does. Source: IEC 60364-5-52 tables B.52.2 and B.52.4 (from memory). */
const ALUMINIUM_SHARE = 0.78

export type Cable = { line_mm2: number; method?: ReferenceMethod | null | undefined; metal?: Metal | undefined }

/** What a cable carries by the table; clipped to a surface where nobody said how it lies. Null where no table has it. */
export function carries_A({ line_mm2, method, metal = 'copper' }: Cable): number | null {
  const copper_A = carried_A[TABLE_OF[method ?? 'C']][areas_mm2.indexOf(line_mm2)] ?? null
  return copper_A === null || metal === 'copper' ? copper_A : Math.floor(copper_A * ALUMINIUM_SHARE)
}

/** Each leg of a ring must carry so much by itself, behind 30 or 32 A. Source: BS 7671 433.1.204 (from memory). */
export const RING_LEG = { least_A: 20, mostRating_A: 32 } as const
