import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Entry } from '../record/entry'
import type { Facts } from '../record/facts'
import type { SignatureState } from '../record/signature'
import type { AnyStep } from '../steps/step'
import type { Judgement } from '../verdict/judgement'
import type { Decided, Finding, Flag, Verdict } from '../verdict/verdict'
import type { ByKey } from '../plant/onParts'
import type { Question } from './questions'
import type { SisterGroups } from './sisters'
import type { StateId, States } from './states'

export type ReadingEvaluation = {
  readonly entry: Entry<'reading'>
  /** Corrected device time, ms since 1970. */
  readonly at: number
  readonly judgement: Judgement
  readonly verdict: Decided
  /** Made comparable with its sisters', null where it is not. */
  readonly comparable: number | null
  readonly flags: readonly Flag[]
  /** What of the plant its judgement asked, where the plant was changed after it; undefined where nobody noted it. */
  readonly asked?: readonly string[] | undefined
  /** Why it no longer counts, null while it may. */
  readonly ended: { by: 'void' | 'remedy'; reason: string; personId: string } | null
}

export type GateState = {
  id: string
  hard: boolean
  met: boolean
  /** Why it is shut: not met, or its subject is missing or one of several. Null where it is met. */
  why: 'unmet' | 'missing' | 'ambiguous' | null
  /** The sentence of what it waits for. */
  finding: Finding
  /** Key of the step that opens it, and that one's verdict now. */
  waitsFor: string | null
  nowVerdict: Verdict | null
  /** The state it asks for, null where it waits for a step. */
  state: StateId | null
  overridden: { reason: string; personId: string } | null
}

export type Sisters = { count: number; median: number; deviation_pct: number; allowed_pct: number; lightMoved: boolean }

export type StepEvaluation = {
  readonly key: string
  readonly step: AnyStep
  readonly part: Part
  readonly verdict: Verdict
  readonly finding: Finding
  readonly flags: readonly Flag[]
  /** How each gate stands now, for what would be read next. */
  readonly gates: readonly GateState[]
  /** The first gate that is shut, null where none is. */
  readonly shut: GateState | null
  /** Every reading there is, those of earlier visits too. */
  readonly readings: readonly ReadingEvaluation[]
  /** The verdict of a step that follows from the plant alone. */
  readonly computed: Judgement | null
  /** The reading which counts. */
  readonly counting: ReadingEvaluation | null
  /** What it comes to: computed, or by the reading that counts. */
  readonly judgement: Judgement | null
  readonly leftOut: { reason: string; personId: string; at: number } | null
  /** True where a remedy asks for it to be done again and nobody has yet. */
  readonly repeatAsked: boolean
  /** True where nothing is left to do: within, close, or left out with a reason. */
  readonly done: boolean
}

/**
 * A failed step, what was done about it, and the re-test: one story. Written down by a person, or opened by a reading
 * that is outside; then `entryId` is that reading and its finding speaks.
 */
export type Snag = {
  entryId: string
  step: string | null
  partId: string | null
  text: string | null
  finding: Finding | null
  personId: string
  at: number
  remedy: { text: string; at: number; personId: string; repeat: readonly string[] } | null
  /** Open until it is mended, mended until the step is within again, then closed. */
  state: 'open' | 'mended' | 'closed'
}

/** A picture that belongs to a step, or to the job. */
export type Photo = {
  entryId: string
  attachment: string
  step: string | null
  partId: string | null
  caption: string
  takenAt: string | null
  at: number
  personId: string
}

/** A station of the line; `verdict` is null where the plant has it and no test of its own exists. */
export type StationState = { station: string; verdict: Verdict | null; done: number; total: number }

/** What counts: readings of one visit, or of the last visit in which each test was read. */
export type Scope = { visitId?: string }

export type Evaluation = {
  facts: Facts
  scope: Scope
  parts: ReadonlyMap<string, Part>
  plant: PlantIndex
  steps: readonly StepEvaluation[]
  byKey: ByKey<StepEvaluation>
  stations: StationState[]
  progress: { done: number; total: number; worst: Verdict }
  /** Key of the first step, in working order, which is neither done nor held back. */
  next: string | null
  states: States
  sisters: SisterGroups
  snags: Snag[]
  questions: Question[]
  photos: Photo[]
  signatures: SignatureState[]
  /** Entries made after the last seal: they wait for the next issue. */
  sinceSeal: number
  /** Instruments of the kit whose calibration has run out at `now`. */
  outOfDate: string[]
}

export { stepKey } from './stepKey'
