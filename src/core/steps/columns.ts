/** Headings of the schedule: which figures of a test stand in one cell, and which of them is shown there. */
import type { Figure } from './reading'
import type { Column, Slot } from './slot'
import type { AnyReadStep } from './step'

/** A slot's own heading, else its test's: where the highest stands for the reading it is the worst there too. */
export const columnOf = (step: AnyReadStep, slot: Slot): Column =>
  slot.column ?? { id: step.id, worst: step.stands === 'highest' ? 'highest' : 'lowest' }

/** Whether a figure is worse than another of the same heading: a bound counts by what it may be. */
export const isWorse = ({ worst }: Column, a: Figure['span'], b: Figure['span']): boolean =>
  worst === 'highest' ? a.most > b.most || (a.most === b.most && a.least > b.least) : a.least < b.least
