import type { Part } from '../plant/part'
import type { AnyStep } from '../steps/step'
import type { Judgement } from '../verdict/judgement'
import type { Finding, Flag, Verdict } from '../verdict/verdict'
import type { PlantIndex } from '../plant/plantIndex'
import type { Facts } from '../record/facts'
import type { EntryIndex } from './entryIndex'
import type { Counted } from './judge'
import type { LeadNulls } from './leadNulls'
import type { PlantHistory } from './plantHistory'
import type { ReadingEvaluation, Scope } from './types'

/** What a step comes to by its own readings alone. */
export type Own = {
  readonly key: string
  readonly step: AnyStep
  readonly part: Part
  readonly verdict: Verdict
  readonly finding: Finding
  readonly flags: readonly Flag[]
  readonly readings: readonly ReadingEvaluation[]
  readonly computed: Judgement | null
  readonly counting: ReadingEvaluation | null
  readonly repeatAsked: boolean
}

/** What stays the same while one bundle of facts is evaluated. */
export type Run = {
  facts: Facts
  scope: Scope
  plant: PlantIndex
  index: EntryIndex
  history: PlantHistory
  nulls: LeadNulls
  /** The reading that counts of a step that was looked at already; `reader` asks, so that it is asked again when it changes. */
  countedFor(reader: string): Counted
}
