/** What the bench is given, and what it may ask of the screen around it. */
import type { ReactNode } from 'react'
import type { WithoutMeter } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Body, Conditions } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { Measurable } from '@/core/record/instrument'
import type { Judgement } from '@/core/verdict/judgement'
import type { Heard, Latest } from '../live/liveFeed'
import type { DraftShelf } from './heldDrafts'

/** What an instrument is pressed for: the slot, and how the test was set up. */
export type PressSetting = {
  step: string
  slot: string
  choices: Readonly<Record<string, string>>
  /** Figures of the set-up that were typed already: how far a spike stands. */
  figures?: Readonly<Record<string, number>>
}

/** What is being taken, for what stands beside the bench: nothing where a kept reading is shown. */
export type Look = { body: Body<'reading'> | null; judgement: Judgement | null }

export type BenchActions = {
  keep(body: Body<'reading'>): Promise<boolean>
  next(): void
  /** Nothing is left behind this one: what follows is the record. */
  isLast?: boolean
  back(): void
  leaveOut(): void
  override(gate: string): void
  confirmPlant(): void
  typeConditions(): void
  /** Opens the screen on which people are led through it. */
  guide(): void
  /** Opens the test that nulls leads; null where none is asked. */
  nullLeads: (() => void) | null
  press(instrumentId: string, measures: Measurable, setting: PressSetting): Promise<string | null>
  noteThen(keep: (note: string) => void): void
  /** The automatic sequence of a tester that has one. */
  sequence(): void
  mend(): void
  /** What a periodic inspection found here: whether all of it has its class, and the way to it. Null where nothing was. */
  found: { isClassed: boolean; look(): void } | null
  /** Curves of a file, each kept on its string. */
  keepCurves(bodies: readonly { partId: string; body: Body<'reading'> }[]): Promise<boolean>
  /** A few words beside the step. */
  remark(text: string): void
}

export type BenchProps = {
  facts: Facts
  evaluation: Evaluation
  one: StepEvaluation
  stepNumber: string
  canWrite: boolean
  conditions: Conditions | null
  /** Where there is no light meter today: what is known of the air. Null where light is wanted. */
  without: WithoutMeter | null
  latest: Latest
  /** What is watched while it is read, of the last few minutes. */
  watched: readonly Heard[]
  /** When this step was opened, by the office's clock, ms since 1970. */
  opened: number
  instrumentId: string | null
  setInstrument(id: string): void
  actions: BenchActions
  drafts: DraftShelf
  onLook(look: Look): void
  side: ReactNode
  /** The choice between this test and all alike parts, where they can be compared. */
  views?: ReactNode
  /** What was asked back about this test, with the way to answer. */
  asked?: ReactNode
  /** How grave it is what a periodic inspection found here. */
  found?: ReactNode
  /** The button that asks back, beside the title. */
  askBack?: ReactNode
}
