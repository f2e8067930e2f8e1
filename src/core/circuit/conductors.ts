/** Resistance of copper conductors and of a circuit's line and protective conductor together. */

/**
 * Maximum resistance of annealed copper, class 2, at 20 degC, milliohm per metre by cross-section in mm2.
 * Source: IEC 60228, table 2 (from memory).
 */
export const copper_mohmPerM: Readonly<Record<string, number>> = {
  '1': 18.1,
  '1.5': 12.1,
  '2.5': 7.41,
  '4': 4.61,
  '6': 3.08,
  '10': 1.83,
  '16': 1.15,
  '25': 0.727,
  '35': 0.524,
}
export const crossSections_mm2: readonly number[] = Object.keys(copper_mohmPerM)
  .map(Number)
  .sort((a, b) => a - b)

/** What copper gains from 20 degC to its working temperature of 70 degC. Source: handbook section 7. */
export const OPERATING_FACTOR = 1.2

export type CircuitPath = { line_mm2: number; protective_mm2: number; length_m: number }

/** Resistance of one metre, milliohm; null where the table has no such cross-section. */
export const conductor_mohmPerM = (area_mm2: number): number | null => copper_mohmPerM[String(area_mm2)] ?? null

/**
 * R1+R2 of a circuit, ohm, at 20 degC or at working temperature. Null where the table lacks a cross-section.
 * @example r1r2_ohm({ line_mm2: 2.5, protective_mm2: 1.5, length_m: 10 }) // 0.1951
 */
export function r1r2_ohm(path: CircuitPath, atOperatingTemperature = false): number | null {
  const [line, protective] = [conductor_mohmPerM(path.line_mm2), conductor_mohmPerM(path.protective_mm2)]
  if (line === null || protective === null) return null
  const cold = ((line + protective) * path.length_m) / 1000
  return atOperatingTemperature ? cold * OPERATING_FACTOR : cold
}
