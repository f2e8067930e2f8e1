/** A figure or a bound as a display shows it: 12.5, ">999", "<0.01". */
import { z } from 'zod'
import { parseReading } from '../core/quantity/parseReading'
import type { ReadValue } from '../core/quantity/readValue'
import { type Span, spanOf } from '../core/quantity/span'

const AS_SHOWN = 'a figure of 0 or more, or a bound as a display shows it: 12.5, ">999", "<0.01"'
const number = z.number(AS_SHOWN).min(0, AS_SHOWN).max(1e9, AS_SHOWN)

/** Written as on a bench, read by the same rules: `>1,234` could be either and is not guessed. */
const text = z.string().transform((written, context) => {
  const parsed = /^[<>]/.test(written.trim()) ? parseReading(written, 'one') : null
  if (parsed?.state === 'read' && parsed.reading.value >= 0) return written
  context.addIssue({
    code: 'custom',
    message:
      parsed?.state === 'ask'
        ? `"${written}" could be a decimal or thousands: write it with a point or without`
        : AS_SHOWN,
  })
  return z.NEVER
})
export const boundSchema = z.union([number, text])

export type Read = Pick<ReadValue, 'value' | 'bound'> & { read: number | string }

/** What was read, as a value and what it proves; `read` is it as it was given. */
export function boundOf(read: number | string): Read {
  if (typeof read === 'number') return { value: read, bound: 'exact', read }
  const parsed = parseReading(read, 'one')
  if (parsed.state !== 'read') throw new Error(`boundOf: expected a bound, got ${read}`)
  return { value: parsed.reading.value, bound: parsed.reading.bound, read }
}

/** The same as a span; the command line knows no instrument. */
export const spanRead = (read: number | string): Span => spanOf(boundOf(read), 0)
