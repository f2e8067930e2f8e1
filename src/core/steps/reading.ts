/** What a reading holds, as the judgement takes it: figures with the uncertainty of the instrument, answers, spans. */
import type { CurveValue } from '../curve/curveValue'
import { type ReadValue, readValueOf } from '../quantity/readValue'
import { type Span, spanOf, standingFor } from '../quantity/span'
import { readingUncertainty } from '../quantity/uncertainty'
import { type Air, readAir, UNREAD_AIR } from '../pv/workedBack'
import type { Unit } from '../quantity/unit'
import { rangeFor } from '../record/instrument'
import type { RuleData } from '../verdict/judgement'
import type { NumberSlot, Slot } from './slot'
import type { Reading, StepContext } from './step'

type Slots = Pick<Reading, 'slots'>

export function numberIn(reading: Slots, slot: string): ReadValue | null {
  const value = reading.slots[slot]
  return value && 'text' in value ? value : null
}

export function curveIn(reading: Slots, slot: string): CurveValue | null {
  const value = reading.slots[slot]
  return value && 'curve' in value ? value.curve : null
}

export function choiceIn(reading: Slots, slot: string): string | null {
  const value = reading.slots[slot]
  return value && 'choice' in value ? value.choice : null
}

/** What the instrument of a reading measured: its first figure, by the order of the slots. */
export function measuredIn(slots: readonly Slot[], reading: Slots) {
  return slots.find((slot) => slot.measures !== null && !slot.optional && slot.id in reading.slots)?.measures ?? null
}

/** A figure that was read, with its text and with what it is known to be. */
export type Figure = { slot: NumberSlot; read: ReadValue; span: Span }

/** The instrument's own uncertainty of a figure, by the quantity that it is. */
export function whiskerOf(
  reading: Pick<Reading, 'slots' | 'instrument'>,
  slots: readonly Slot[],
  slot: Slot,
  read: ReadValue,
): number {
  const { instrument } = reading
  const range = instrument && slot.measures ? rangeFor(instrument, slot.measures, measuredIn(slots, reading)) : null
  return readingUncertainty(read, range?.accuracy ?? null)
}

type From = Pick<StepContext, 'reading' | 'slots'>

export function figureOf({ reading, slots }: From, slot: NumberSlot): Figure | null {
  const read = numberIn(reading, slot.id)
  return read && { slot, read, span: spanOf(read, whiskerOf(reading, slots, slot, read)) }
}

/** The figures of several slots that were read, in their order. */
export function figuresOf(from: From, slots: readonly NumberSlot[]): Figure[] {
  let figures: Figure[] | null = null
  for (const slot of slots) {
    const figure = figureOf(from, slot)
    if (!figure) continue
    // Most have one figure: a list of one is made as that.
    if (figures) figures.push(figure)
    else figures = [figure]
  }
  return figures ?? []
}

/** From the lowest up; alike ones stay in their order. Of a handful, each is put before those that are more. */
export function rising(figures: Figure[]): Figure[] {
  for (let k = 1; k < figures.length; k++) {
    const one = figures[k]!
    let at = k
    for (; at > 0 && figures[at - 1]!.read.value > one.read.value; at--) figures[at] = figures[at - 1]!
    figures[at] = one
  }
  return figures
}

/** The highest figure of those read, whichever line it was: a bound counts by what it may be. */
export const highestOf = (figures: readonly Figure[]): Figure | null =>
  figures.reduce<Figure | null>((most, one) => (most === null || one.span.most > most.span.most ? one : most), null)

export const lowestOf = (figures: readonly Figure[]): Figure | null =>
  figures.reduce<Figure | null>(
    (least, one) => (least === null || one.span.least < least.span.least ? one : least),
    null,
  )

/** Figures of another step's reading. */
export const figuresIn = (reading: Reading, slots: readonly NumberSlot[]): Figure[] =>
  figuresOf({ reading, slots }, slots)

/** A figure that was worked out, as an instrument of so many decimals would show it. */
export const workedOut = (value: number, unit: Unit, decimals: number): ReadValue => readValueOf(value, unit, decimals)

/** A span as the rule shows it. */
export function measuredOf(span: Span, text: string): NonNullable<RuleData['measured']> {
  const bound = span.bound === 'between' ? 'less-than' : span.bound
  return { value: standingFor({ ...span, bound }), bound, whisker: span.whisker, text }
}

/** A reading as far as it can be compared without a light meter. */
export type ReadWithoutLight = Pick<Reading, 'slots' | 'conditions' | 'instrument' | 'air'>

/** What is known of the air at a reading. */
export function airOf({ air }: Pick<Reading, 'air'>): Air {
  return air?.read.bound === 'exact' ? readAir(air.read.value) : UNREAD_AIR
}
