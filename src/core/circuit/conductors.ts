/** Resistance of conductors of copper and aluminium, and of a circuit's line and protective conductor together. */

export const metals = ['copper', 'aluminium'] as const
export type Metal = (typeof metals)[number]

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
  '50': 0.387,
  '70': 0.268,
  '95': 0.193,
  '120': 0.153,
  '150': 0.124,
  '185': 0.0991,
  '240': 0.0754,
  '300': 0.0601,
}
/** The same of aluminium, which no circuit has thinner. Source: IEC 60228, table 2 (from memory). */
const aluminium_mohmPerM: Readonly<Record<string, number>> = {
  '10': 3.08,
  '16': 1.91,
  '25': 1.2,
  '35': 0.868,
  '50': 0.641,
  '70': 0.443,
  '95': 0.32,
  '120': 0.253,
  '150': 0.206,
  '185': 0.164,
  '240': 0.125,
  '300': 0.1,
}
const byArea = (table: Readonly<Record<string, number>>): ReadonlyMap<number, number> =>
  new Map(Object.entries(table).map(([area_mm2, mohmPerM]) => [Number(area_mm2), mohmPerM]))
const tables = { copper: byArea(copper_mohmPerM), aluminium: byArea(aluminium_mohmPerM) } as const
export const crossSections_mm2: readonly number[] = Object.keys(copper_mohmPerM)
  .map(Number)
  .sort((a, b) => a - b)

/** What copper gains from 20 degC to its working temperature of 70 degC, and aluminium as well. Source: handbook section 7. */
export const OPERATING_FACTOR = 1.2

/** Of copper where nothing else is said. */
export type CircuitPath = { line_mm2: number; protective_mm2: number; length_m: number; metal?: Metal | undefined }

/** Resistance of one metre, milliohm; null where the table has no such cross-section. */
export const conductor_mohmPerM = (area_mm2: number, metal: Metal = 'copper'): number | null =>
  tables[metal].get(area_mm2) ?? null

/**
 * R1+R2 of a circuit, ohm, at 20 degC or at working temperature. Null where the table lacks a cross-section.
 * @example r1r2_ohm({ line_mm2: 2.5, protective_mm2: 1.5, length_m: 10 }) // 0.1951
 */
export function r1r2_ohm(path: CircuitPath, atOperatingTemperature = false): number | null {
  const line = conductor_mohmPerM(path.line_mm2, path.metal)
  const protective = conductor_mohmPerM(path.protective_mm2, path.metal)
  if (line === null || protective === null) return null
  const cold = ((line + protective) * path.length_m) / 1000
  return atOperatingTemperature ? cold * OPERATING_FACTOR : cold
}
