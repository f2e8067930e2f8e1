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

const [ZERO, NINE, POINT, COMMA] = ['0', '9', '.', ','].map((one) => one.charCodeAt(0)) as [
  number,
  number,
  number,
  number,
]

/** Decimals that the text of a reading shows: `12.30` shows 2, `>999` shows 0. */
export function decimalsAsRead(text: string): number {
  let digits = 0
  for (let at = text.length - 1; at >= 0; at--) {
    const code = text.charCodeAt(at)
    if (code === POINT || code === COMMA) return digits
    digits = code >= ZERO && code <= NINE ? digits + 1 : 0
  }
  return 0
}

/** A read value made from a number, as an instrument of that many decimals shows it. */
export function readValueOf(value: number, unit: Unit, decimals: number): ReadValue {
  const text = value.toFixed(decimals)
  return { text, value: Number(text), bound: 'exact', unit }
}
