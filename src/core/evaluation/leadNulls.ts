import type { Entry } from '../record/entry'
import type { AnyStep, Slot } from '../steps/step'
import type { StepEvaluation } from './types'

/** The lead set that a reading was taken with, null where it names none. */
function leadSetOf(step: AnyStep, { body }: Entry<'reading'>): string | null {
  const slot = (step.slots as readonly Slot[]).find((one) => one.kind === 'choice' && one.from === 'lead-sets')
  const value = slot ? body.slots[slot.id] : undefined
  return value && 'choice' in value ? value.choice : null
}

/** When each lead set was nulled, by visit: a null belongs to its set and ends with its visit. */
export class LeadNulls {
  private readonly times = new Map<string, number[]>()

  /** Takes the nulls of a step that nulls leads: what showed too much with its clips joined nulled nothing. */
  take({ step, readings }: StepEvaluation): void {
    for (const { entry, at, verdict, ended } of readings) {
      const set = leadSetOf(step, entry)
      if (!set || ended || verdict !== 'within') continue
      const key = `${entry.visitId} ${set}`
      this.times.set(key, [...(this.times.get(key) ?? []), at])
    }
  }

  /** Whether the leads of a reading were nulled before it, in its own visit. */
  before(step: AnyStep, entry: Entry<'reading'>, at: number): boolean {
    const set = leadSetOf(step, entry)
    return set !== null && (this.times.get(`${entry.visitId} ${set}`) ?? []).some((nulled) => nulled <= at)
  }
}
