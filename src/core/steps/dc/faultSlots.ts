/** What the hunt for an earth fault asks, and what of it was read: two voltages to earth, or two halves of the string. */
import { choiceIn } from '../reading'
import { choiceSlot, numberSlot, type Slot } from '../slot'
import type { Reading } from '../step'
import { SETTINGS } from './insulationAsked'

const byVolts = { slot: 'method', is: ['two-voltages'] }
const byHalves = { slot: 'method', is: ['halves'] }

export const whole = numberSlot('plus-to-minus', 'dc-voltage', 'V', 1, { when: byVolts })
export const plus = numberSlot('plus-volts', 'dc-voltage', 'V', 2, { when: byVolts })
export const minus = numberSlot('minus-volts', 'dc-voltage', 'V', 3, { when: byVolts })
export const openedAfter = numberSlot('opened-after', null, 'one', 1, { when: byHalves })
export const plusHalf = numberSlot('plus-half', 'insulation', 'Mohm', 2, { when: byHalves })
export const minusHalf = numberSlot('minus-half', 'insulation', 'Mohm', 3, { when: byHalves })

/** Input resistance of common voltmeters, Mohm: `input-10` is 10 Mohm. */
const INPUTS = ['input-1', 'input-10', 'input-11', 'input-20'] as const

export const slots: readonly Slot[] = [
  choiceSlot({ id: 'method', options: ['two-voltages', 'halves'], sticky: true, balloon: 1 }),
  choiceSlot({ id: 'set-voltage', options: SETTINGS, sticky: true, stated: true, balloon: 2, when: byHalves }),
  whole,
  plus,
  minus,
  openedAfter,
  plusHalf,
  minusHalf,
  choiceSlot({ id: 'surface', options: ['dry', 'damp', 'wet'], sticky: true, balloon: 2 }),
  choiceSlot({
    id: 'input-resistance',
    options: INPUTS,
    sticky: true,
    stated: true,
    optional: true,
    balloon: 3,
    when: byVolts,
  }),
]

type Slots = Pick<Reading, 'slots'>

export const isByHalves = (reading: Slots): boolean => choiceIn(reading, 'method') === 'halves'

/** Input resistance of the voltmeter, Mohm; null where nobody said it. */
export function inputOf(reading: Slots): number | null {
  const choice = choiceIn(reading, 'input-resistance')
  return choice ? Number(choice.slice(choice.indexOf('-') + 1)) : null
}
