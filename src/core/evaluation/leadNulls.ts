import type { Entry } from '../record/entry'
import type { AnyReadStep } from '../steps/step'
import { isDone } from '../verdict/verdict'
import type { ReadingEvaluation } from './types'

/** The lead set that a reading was taken with, null where it names none. */
function leadSetOf(step: AnyReadStep, { body }: Entry<'reading'>): string | null {
  const slot = step.slots.find((one) => one.kind === 'lead-set')
  const value = slot ? body.slots[slot.id] : undefined
  return value && 'choice' in value ? value.choice : null
}

/**
 * When each lead set was nulled, by visit: a null belongs to its set and ends with its visit. What was nulled was so then,
 * whatever a remedy asks for since: only a void takes it back.
 */
export class LeadNulls {
  private readonly times: Map<string, number[]>

  constructor(before?: LeadNulls) {
    this.times = new Map(before?.times)
  }

  /** Takes the nulls of a step that nulls leads: what showed too much with its clips joined nulled nothing. */
  take(step: AnyReadStep, readings: readonly ReadingEvaluation[]): void {
    for (const { entry, at, verdict, ended } of readings) {
      const set = leadSetOf(step, entry)
      if (!set || ended?.by === 'void' || !isDone(verdict)) continue
      const key = `${entry.visitId} ${set}`
      this.times.set(key, [...(this.times.get(key) ?? []), at])
    }
  }

  /** Whether the leads of a reading were nulled before it, in its own visit. */
  before(step: AnyReadStep, entry: Entry<'reading'>, at: number): boolean {
    const set = leadSetOf(step, entry)
    return set !== null && (this.times.get(`${entry.visitId} ${set}`) ?? []).some((nulled) => nulled <= at)
  }
}
