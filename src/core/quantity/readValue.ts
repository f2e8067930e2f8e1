import { z } from 'zod'
import { type Unit, units } from './unit'

/**
 * A value as it was read from an instrument: the text stays beside the number, because 12.30 is not 12.3, and a
 * display over its range (`>999`) is a bound and not a number.
 */
export const readValueSchema = z.strictObject({
  text: z.string().min(1).max(24),
  value: z.number(),
  bound: z.enum(['exact', 'more-than', 'less-than']),
  unit: z.enum(Object.keys(units) as [Unit, ...Unit[]]),
})

export type ReadValue = z.infer<typeof readValueSchema>

const isDigit = (text: string, at: number): boolean => text[at]! >= '0' && text[at]! <= '9'

/** Decimals that the text of a reading shows: `12.30` shows 2, `>999` shows 0. */
export function decimalsAsRead(text: string): number {
  const at = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','))
  if (at < 0) return 0
  let end = at + 1
  while (end < text.length && isDigit(text, end)) end++
  return end - at - 1
}

/** A read value made from a number, as an instrument of that many decimals shows it. */
export function readValueOf(value: number, unit: Unit, decimals: number): ReadValue {
  const text = value.toFixed(decimals)
  return { text, value: Number(text), bound: 'exact', unit }
}
