import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Entry } from '../record/entry'
import type { SignatureState } from '../record/signature'
import type { AnyStep, Judgement } from '../steps/step'
import type { Finding, Flag, Verdict } from '../verdict/verdict'

export type ReadingEvaluation = {
  entry: Entry<'reading'>
  /** Corrected device time, ms since 1970. */
  at: number
  judgement: Judgement
  verdict: Verdict
  flags: Flag[]
  /** Why it no longer counts, null while it may. */
  ended: { by: 'void' | 'remedy'; reason: string; personId: string } | null
}

export type GateState = {
  id: string
  hard: boolean
  met: boolean
  /** Key of the step evaluation that it waits for, and that one's verdict now. */
  waitsFor: string | null
  nowVerdict: Verdict | null
  overridden: { reason: string; personId: string } | null
  figures: Readonly<Record<string, number | string>>
}

export type Sisters = { count: number; median: number; deviation_pct: number; allowed_pct: number; lightMoved: boolean }

export type StepEvaluation = {
  key: string
  step: AnyStep
  part: Part
  verdict: Verdict
  finding: Finding
  flags: Flag[]
  gates: GateState[]
  readings: ReadingEvaluation[]
  /** The verdict of a step that follows from the plant alone. */
  computed: Judgement | null
  /** The reading which counts. */
  counting: ReadingEvaluation | null
  sisters: Sisters | null
  leftOut: { reason: string; personId: string; at: number } | null
  /** True where a remedy asks for it to be done again and nobody has yet. */
  repeatAsked: boolean
  /** True where nothing is left to do: within, close, or left out with a reason. */
  done: boolean
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

export type Evaluation = {
  parts: Map<string, Part>
  plant: PlantIndex
  steps: StepEvaluation[]
  byKey: Map<string, StepEvaluation>
  stations: StationState[]
  progress: { done: number; total: number; worst: Verdict }
  /** Key of the first step, in working order, which is neither done nor held back. */
  next: string | null
  snags: Snag[]
  photos: Photo[]
  signatures: SignatureState[]
  /** Entries made after the last seal: they wait for the next issue. */
  sinceSeal: number
  /** Instruments of the kit whose calibration has run out at `now`. */
  outOfDate: string[]
}

export const stepKey = (step: string, partId: string): string => `${step}:${partId}`
