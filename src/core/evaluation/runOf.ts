import type { Part } from '../plant/part'
import type { AnyReadStep, AnyStep } from '../steps/step'
import type { Judgement } from '../verdict/judgement'
import type { Finding, Flag, Verdict } from '../verdict/verdict'
import type { PlantIndex } from '../plant/plantIndex'
import type { Facts } from '../record/facts'
import type { EntryIndex } from './entryIndex'
import type { Counted } from './judge'
import type { LeadNulls } from './leadNulls'
import type { PlantHistory } from './plantHistory'
import type { Together } from './together'
import { stepKey } from './stepKey'
import type { ReadingEvaluation, Scope } from './types'

/** What a step comes to by its own readings alone. */
export class Own {
  private named: string | null = null

  constructor(
    readonly step: AnyStep,
    readonly part: Part,
    readonly verdict: Verdict,
    /** What is said of it, null where its judgement says it, or that there is none. */
    readonly said: Finding | null,
    readonly flags: readonly Flag[],
    readonly readings: readonly ReadingEvaluation[],
    readonly counting: ReadingEvaluation | null,
  ) {}

  /** What it comes to without a reading, where it follows from the plant. */
  get computed(): Judgement | null {
    return null
  }

  /** Put together only where somebody calls it by its name. */
  get key(): string {
    this.named ??= stepKey(this.step.id, this.part.id)
    return this.named
  }

  /** Whether a remedy ended the say of the last reading. */
  get repeatAsked(): boolean {
    return this.counting === null && this.readings.at(-1)?.ended?.by === 'remedy'
  }
}

/** Whose readings are judged, and how it asks for those of others. */
export type Judging = { step: AnyReadStep; part: Part; counted: Counted }

/** A step on a part that took in a reading of another. */
export type Reader = { readonly step: AnyStep; readonly part: Part }
/** All of them; one may stand there twice. */
export type Readers = Reader[]

/** What of the facts a judgement may take in by itself. */
export type Given = Pick<Facts, 'instruments' | 'regime'>

/** What stays the same while one bundle of facts is evaluated. */
export type Run = {
  given: Given
  scope: Scope
  plant: PlantIndex
  index: EntryIndex
  history: PlantHistory
  /** When the plant was last changed, ms. */
  changedAt: number
  nulls: LeadNulls
  /** What readings without light are compared with; null where there are none. */
  together: Together | null
  /** The reading that counts of a step that was looked at already; a step asks for a part, so that it is asked again when it changes. */
  countedFor(reader: AnyStep, of: Part): Counted
}

/** The sentence of a step by its own readings; where a remedy ended the say of the last, why. */
export function findingOf({ said, computed, counting, readings, repeatAsked, part }: Own): Finding {
  const judgement = computed ?? counting?.judgement
  if (said) return said
  if (judgement) return judgement.finding
  const { tag } = part.data
  return repeatAsked
    ? { code: 'repeat-after-remedy', figures: { tag, reason: readings.at(-1)!.ended!.reason } }
    : { code: 'not-yet.no-reading', figures: { tag } }
}
