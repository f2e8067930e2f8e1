import type { Measurable } from '../record/instrument'
import { type AnyStep, slotsOf } from './step'

/** What an instrument of the kit is needed for, null where a person looks. */
export function measuredBy(step: AnyStep): Measurable | null {
  const measured = slotsOf(step).filter((slot) => slot.measures !== null)
  return (measured.find((slot) => !slot.optional) ?? measured[0])?.measures ?? null
}
