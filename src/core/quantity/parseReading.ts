import type { ReadValue } from './readValue'
import { conversionFactor, type Unit, unitFromSpelling } from './unit'

export type ParsedReading =
  | { state: 'read'; reading: ReadValue }
  | { state: 'ask'; code: 'thousand-or-decimal'; choices: [ReadValue, ReadValue] }
  | { state: 'refused'; code: RefusedReading; text: string }

export type RefusedReading =
  | 'empty'
  | 'not-a-number'
  | 'two-decimal-signs'
  | 'unit-unknown'
  | 'unit-of-another-quantity'
  | 'too-long'

const shape = /^([<>])?\s*([-−+])?\s*([\d.,]+)\s*(\S.*)?$/

/**
 * Reads what a person typed into a slot whose unit is `unit`.
 *
 * Decimal comma and decimal point both count. `1,234` could be either and is asked about, never guessed.
 * `>999` and `<0.01` become bounds. A unit of the same quantity may follow and is converted; the text is kept.
 *
 * @example parseReading('369,6', 'V') // read: 369.6 V, text "369,6"
 * @example parseReading('>999', 'Mohm') // read: bound more-than 999
 * @example parseReading('1,234', 'V') // ask: 1.234 or 1234
 */
export function parseReading(typed: string, unit: Unit): ParsedReading {
  const text = typed.trim()
  const refuse = (code: RefusedReading): ParsedReading => ({ state: 'refused', code, text })
  if (text === '') return refuse('empty')
  if (text.length > 24) return refuse('too-long')
  const parts = shape.exec(text)
  if (!parts) return refuse('not-a-number')
  const [, sign, minus, figures, suffix] = parts

  let factor = 1
  if (suffix !== undefined) {
    const given = unitFromSpelling(suffix)
    if (!given) return refuse(/^[\d.,<>+-]/.test(suffix) ? 'not-a-number' : 'unit-unknown')
    const converted = conversionFactor(given, unit)
    if (converted === null) return refuse('unit-of-another-quantity')
    factor = converted
  }

  const read = (plain: string): ReadValue => ({
    text,
    value: Number(plain) * (minus === '-' || minus === '−' ? -1 : 1) * factor,
    bound: sign === '>' ? 'more-than' : sign === '<' ? 'less-than' : 'exact',
    unit,
  })
  const plain = plainFigures(figures!)
  if (plain.kind === 'bad') return refuse(plain.code)
  if (plain.kind === 'ask') {
    return { state: 'ask', code: 'thousand-or-decimal', choices: [read(plain.decimal), read(plain.thousand)] }
  }
  return { state: 'read', reading: read(plain.figures) }
}

type PlainFigures =
  | { kind: 'plain'; figures: string }
  | { kind: 'ask'; decimal: string; thousand: string }
  | { kind: 'bad'; code: RefusedReading }

function plainFigures(figures: string): PlainFigures {
  if (!/\d/.test(figures)) return { kind: 'bad', code: 'not-a-number' }
  const commas = figures.split(',').length - 1
  const points = figures.split('.').length - 1
  if (commas === 0 && points <= 1) return { kind: 'plain', figures }
  if (commas === 1 && points === 0) {
    const [whole, rest] = figures.split(',') as [string, string]
    const couldBeThousand = rest.length === 3 && /^[1-9]\d{0,2}$/.test(whole)
    if (couldBeThousand) return { kind: 'ask', decimal: `${whole}.${rest}`, thousand: `${whole}${rest}` }
    return { kind: 'plain', figures: `${whole || '0'}.${rest}` }
  }
  const last = figures.lastIndexOf(',') > figures.lastIndexOf('.') ? ',' : '.'
  const grouping = last === ',' ? '.' : ','
  const grouped = new RegExp(`^\\d{1,3}(\\${grouping}\\d{3})+(\\${last}\\d+)?$`)
  if (!grouped.test(figures)) return { kind: 'bad', code: 'two-decimal-signs' }
  return { kind: 'plain', figures: figures.split(grouping).join('').replace(last, '.') }
}
