/**
 * Voltage factors of crystalline silicon for the lowest expected temperature.
 * Source: IEC 62548 and NEC table 690.7(A), from memory. Rows: lowest temperature of the band in degC, factor.
 */
export const temperatureFactors: readonly { from_C: number; factor: number }[] = [
  { from_C: 20, factor: 1.02 },
  { from_C: 15, factor: 1.04 },
  { from_C: 10, factor: 1.06 },
  { from_C: 5, factor: 1.08 },
  { from_C: 0, factor: 1.1 },
  { from_C: -5, factor: 1.12 },
  { from_C: -10, factor: 1.14 },
  { from_C: -15, factor: 1.16 },
  { from_C: -20, factor: 1.18 },
  { from_C: -25, factor: 1.2 },
  { from_C: -30, factor: 1.21 },
  { from_C: -35, factor: 1.23 },
  { from_C: -40, factor: 1.25 },
]

/**
 * Factor on the rated Voc at a lowest temperature in degC; 1 from 25 degC up; null below the table's last row.
 * @example temperatureFactor(-7) // 1.14
 */
export function temperatureFactor(lowestTemperature_C: number): number | null {
  if (lowestTemperature_C >= 25) return 1
  const whole = Math.floor(lowestTemperature_C)
  return temperatureFactors.find((row) => whole >= row.from_C)?.factor ?? null
}
