import { z } from 'zod'
import { decimalsAsRead, type ReadValue } from './readValue'

/** Accuracy as data sheets of instruments state it: per cent of the reading plus a number of last digits. */
export const accuracySchema = z.strictObject({
  ofReading_pct: z.number().min(0).max(50),
  digits: z.number().int().min(0).max(100),
})

export type Accuracy = z.infer<typeof accuracySchema>

/** What the last digit is worth, by the decimals shown. */
const lastDigits: readonly number[] = Array.from({ length: 8 }, (_, decimals) => 10 ** -decimals)

/**
 * Uncertainty of a reading (k = 2), in the reading's own unit: per cent of reading plus digits of the last place
 * shown. With no accuracy known, half a last digit: all that the text itself proves.
 *
 * @example readingUncertainty({ text: '369.6', value: 369.6, bound: 'exact', unit: 'V' }, { ofReading_pct: 0.5, digits: 2 }) // 2.048
 */
export function readingUncertainty(reading: ReadValue, accuracy: Accuracy | null): number {
  if (reading.bound !== 'exact') return 0
  const decimals = decimalsAsRead(reading.text)
  const lastDigit = lastDigits[decimals] ?? 10 ** -decimals
  if (!accuracy) return lastDigit / 2
  return (accuracy.ofReading_pct / 100) * Math.abs(reading.value) + accuracy.digits * lastDigit
}

/** Root of the sum of squares: combines uncertainties which do not depend on each other. */
export function combineUncertainties(parts: readonly number[]): number {
  return Math.hypot(...parts)
}
