import { parseReading } from './parseReading'
import type { ReadValue } from './readValue'
import type { Unit } from './unit'

/** Two ways of reading one text differ by no more than this share of it: arithmetic on a unit's factor. */
const SAME = 1e-9

export type ReadRefusal = 'unit-of-slot' | 'text-and-value'

/**
 * Whether a value is what its text says, in the unit that is wanted here: what is judged must be what is printed.
 *
 * @returns why it cannot stand, null where it can.
 * @example refuseAsShown({ text: '<12.0', value: 400, bound: 'exact', unit: 'V' }, 'V') // 'text-and-value'
 * @example refuseAsShown({ text: '742', value: 742, bound: 'exact', unit: 'V' }, 'Wm2') // 'unit-of-slot'
 */
export function refuseAsShown(read: ReadValue, unit: Unit): ReadRefusal | null {
  if (read.unit !== unit) return 'unit-of-slot'
  const parsed = parseReading(read.text, unit)
  const readings = parsed.state === 'read' ? [parsed.reading] : parsed.state === 'ask' ? parsed.choices : []
  return readings.some((one) => one.bound === read.bound && isSame(one.value, read.value)) ? null : 'text-and-value'
}

const isSame = (a: number, b: number): boolean => Math.abs(a - b) <= SAME * Math.max(Math.abs(a), Math.abs(b))
