/** A figure or a bound as a display shows it: 12.5, ">999", "<0.01". */
import { z } from 'zod'

export const boundSchema = z.union([
  z.number().min(0, 'a reading is not negative').max(1e9),
  z.string().regex(/^[<>]\s*\d+([.,]\d+)?$/, 'a bound is written ">999" or "<0.01"'),
])

export type Read = { value: number; bound: 'exact' | 'more-than' | 'less-than'; read: number | string }

/** What was read, as a value and what it proves; `read` is it as it was given. */
export function boundOf(read: number | string): Read {
  if (typeof read === 'number') return { value: read, bound: 'exact', read }
  const bound = read.startsWith('>') ? 'more-than' : 'less-than'
  return { value: Number(read.slice(1).trim().replace(',', '.')), bound, read }
}
