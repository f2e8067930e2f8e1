/** What is lost along a circuit under its current. */
import { conductor_mohmPerM, type Metal, OPERATING_FACTOR } from './conductors'

export type DropPath = {
  line_mm2: number
  length_m: number
  phases: 1 | 3
  layout: 'radial' | 'ring'
  metal?: Metal | undefined
}

/** Both ways in one phase, one way in three that carry alike; a ring feeds its farthest point from both sides. */
const WAYS = { 1: 2, 3: 1 } as const
/** Two halves of a ring side by side: a quarter of its whole length. */
const RING_SHARE = 1 / 4

/** Below it the coil of the loop, 0.08 milliohm per metre, is no small part any more. */
const LEAST_mohmPerM = 0.5

/**
 * Volts lost against the volts between line and neutral, with the conductor at its working temperature; what its coil
 * adds is left away, under 2 % while the conductor itself has half a milliohm per metre. Null where it has less, and where the
 * table has no such cross-section.
 * Source: BS 7671 appendix 4, 6 (from memory).
 * @example dropAlong_V({ line_mm2: 2.5, length_m: 20, phases: 1, layout: 'radial' }, 16) // 5.69
 */
export function dropAlong_V({ line_mm2, length_m, phases, layout, metal }: DropPath, current_A: number): number | null {
  const each = conductor_mohmPerM(line_mm2, metal)
  if (each === null || each < LEAST_mohmPerM) return null
  const share = layout === 'ring' ? RING_SHARE : 1
  return (each * OPERATING_FACTOR * WAYS[phases] * length_m * share * current_A) / 1000
}
