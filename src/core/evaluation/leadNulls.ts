import type { Entry } from '../record/entry'
import type { AnyReadStep } from '../steps/step'
import { isDone } from '../verdict/verdict'
import type { ReadingEvaluation } from './types'

/** The lead set that a reading was taken with, null where it names none. */
function leadSetOf(step: AnyReadStep, { body }: Entry<'reading'>): string | null {
  const slot = leadSlotOf(step)
  const value = slot ? body.slots[slot] : undefined
  return value && 'choice' in value ? value.choice : null
}
const leadSlots = new WeakMap<AnyReadStep, { id: string | null }>()
/** The slot in which a step says with which leads. */
function leadSlotOf(step: AnyReadStep): string | null {
  const known = leadSlots.get(step)
  if (known) return known.id
  const id = step.slots.find((one) => one.kind === 'lead-set')?.id ?? null
  leadSlots.set(step, { id })
  return id
}

type Nulled = { at: number; set: string }
const NONE: readonly Nulled[] = []

/** A null is kept by the tester that it was made on; of a reading that names none by nobody knows which. */
const testerOf = ({ body }: Entry<'reading'>): string => body.instrument?.id ?? ''

/**
 * Which lead set was nulled when, by visit and tester: a null belongs to its set, ends with its visit, and the next one on
 * the same tester takes its place. What was nulled was so then, whatever a remedy asks for since: only a void takes it back.
 */
export class LeadNulls {
  /** By visit, then by tester. */
  private readonly nulled: Map<string, Map<string, readonly Nulled[]>>

  constructor(before?: LeadNulls) {
    this.nulled = new Map([...(before?.nulled ?? [])].map(([visitId, ofVisit]) => [visitId, new Map(ofVisit)]))
  }

  /** Takes the nulls of a step that nulls leads: what showed too much with its clips joined nulled nothing. */
  take(step: AnyReadStep, readings: readonly ReadingEvaluation[]): void {
    for (const { entry, at, verdict, ended } of readings) {
      const set = leadSetOf(step, entry)
      if (!set || ended?.by === 'void' || !isDone(verdict)) continue
      const ofVisit = this.nulled.get(entry.visitId) ?? new Map<string, readonly Nulled[]>()
      const tester = testerOf(entry)
      this.nulled.set(entry.visitId, ofVisit.set(tester, [...(ofVisit.get(tester) ?? []), { at, set }]))
    }
  }

  /** Whether the leads of a reading were the last to be nulled before it, in its own visit and on its own tester. */
  before(step: AnyReadStep, entry: Entry<'reading'>, at: number): boolean {
    const set = leadSetOf(step, entry)
    let last: Nulled | null = null
    for (const one of this.nulled.get(entry.visitId)?.get(testerOf(entry)) ?? NONE)
      if (one.at <= at && (last === null || one.at >= last.at)) last = one
    return set !== null && last?.set === set
  }
}
