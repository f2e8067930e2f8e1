import { sharedReadings } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Body } from '@/core/record/entry'

/** What a reading is kept as on the other parts that it speaks for, with what each is about. */
export const sharedEntries = (evaluation: Evaluation, one: StepEvaluation, body: Body<'reading'>) =>
  sharedReadings(evaluation, one, body).map((other) => ({
    body: other.body,
    about: { partId: other.part.id, step: one.step.id },
  }))
