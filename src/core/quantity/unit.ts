/**
 * The units in which the trade reads and writes. A unit belongs to one dimension and carries the factor to that
 * dimension's base unit, so a reading typed in another unit of the same dimension can be taken over exactly.
 */
export const units = {
  V: { dimension: 'voltage', factor: 1 },
  mV: { dimension: 'voltage', factor: 1e-3 },
  kV: { dimension: 'voltage', factor: 1e3 },
  A: { dimension: 'current', factor: 1 },
  mA: { dimension: 'current', factor: 1e-3 },
  ohm: { dimension: 'resistance', factor: 1 },
  kohm: { dimension: 'resistance', factor: 1e3 },
  Mohm: { dimension: 'resistance', factor: 1e6 },
  Gohm: { dimension: 'resistance', factor: 1e9 },
  W: { dimension: 'power', factor: 1 },
  kW: { dimension: 'power', factor: 1e3 },
  Wm2: { dimension: 'irradiance', factor: 1 },
  degC: { dimension: 'temperature', factor: 1 },
  K: { dimension: 'temperature-difference', factor: 1 },
  ms: { dimension: 'time', factor: 1e-3 },
  s: { dimension: 'time', factor: 1 },
  deg: { dimension: 'angle', factor: 1 },
  m: { dimension: 'length', factor: 1 },
  mm2: { dimension: 'area', factor: 1 },
  pct: { dimension: 'ratio', factor: 1e-2 },
  one: { dimension: 'ratio', factor: 1 },
} as const

export type Unit = keyof typeof units

/** How each unit is written for people, and the spellings that a person may type for it. */
export const unitSpellings: Record<Unit, { written: string; typed: readonly string[] }> = {
  V: { written: 'V', typed: ['v', 'volt', 'volts'] },
  mV: { written: 'mV', typed: ['mv'] },
  kV: { written: 'kV', typed: ['kv'] },
  A: { written: 'A', typed: ['a', 'amp', 'amps'] },
  mA: { written: 'mA', typed: ['ma'] },
  ohm: { written: 'Ω', typed: ['ohm', 'ohms', 'Ω', 'Ω', 'r'] },
  kohm: { written: 'kΩ', typed: ['kohm', 'kΩ', 'kΩ'] },
  Mohm: { written: 'MΩ', typed: ['Mohm', 'MΩ', 'MΩ', 'megohm'] },
  Gohm: { written: 'GΩ', typed: ['Gohm', 'GΩ', 'GΩ'] },
  W: { written: 'W', typed: ['w', 'watt', 'watts'] },
  kW: { written: 'kW', typed: ['kw'] },
  Wm2: { written: 'W/m²', typed: ['w/m2', 'w/m²', 'wm2'] },
  degC: { written: '°C', typed: ['°c', 'c', 'degc'] },
  K: { written: 'K', typed: ['k'] },
  ms: { written: 'ms', typed: ['ms'] },
  s: { written: 's', typed: ['s'] },
  deg: { written: '°', typed: ['°', 'deg'] },
  m: { written: 'm', typed: ['m'] },
  mm2: { written: 'mm²', typed: ['mm2', 'mm²'] },
  pct: { written: '%', typed: ['%'] },
  one: { written: '', typed: [] },
}

/** Factor that turns a value in `from` into a value in `to`; null where the two do not measure the same thing. */
export function conversionFactor(from: Unit, to: Unit): number | null {
  const a = units[from]
  const b = units[to]
  return a.dimension === b.dimension ? a.factor / b.factor : null
}

/**
 * The unit that a typed spelling means, or null. Case tells milli from mega only in ohms (`mohm` is not taken:
 * it could be either).
 */
export function unitFromSpelling(spelling: string): Unit | null {
  const exact = (Object.keys(unitSpellings) as Unit[]).find(
    (unit) => unitSpellings[unit].written === spelling || unitSpellings[unit].typed.includes(spelling),
  )
  if (exact) return exact
  const lower = spelling.toLowerCase()
  if (lower === 'mohm' || lower === 'mω') return null
  return (
    (Object.keys(unitSpellings) as Unit[]).find((unit) =>
      unitSpellings[unit].typed.some((typed) => typed.toLowerCase() === lower),
    ) ?? null
  )
}
