/** What a bonding conductor should read from the main earthing terminal to a rail row. */

/** Resistivity of copper at 20 degC, ohm mm2/m: IEC 60228 and IEC 60287 (from memory). */
export const COPPER_ohm_mm2_per_m = 0.01724

/**
 * Resistance of a copper conductor with its joints, ohm.
 * @example continuityExpected({ length_m: 20, area_mm2: 6, joints: 2 }, 0.05) // 0.1575
 */
export function continuityExpected(
  path: { length_m: number; area_mm2: number; joints: number },
  joint_ohm: number,
): number {
  return (COPPER_ohm_mm2_per_m * path.length_m) / path.area_mm2 + path.joints * joint_ohm
}
