/** Light and warmth of a visit, at the moments in which something was read under them. */
import { weatherOf } from '../pv/conditions'
import { wantsConditions } from '../steps/step'
import type { Decided } from '../verdict/verdict'
import type { Evaluation, ReadingEvaluation, StepEvaluation } from './types'

export type SunPoint = {
  /** ms since 1970. */
  at: number
  irradiance_Wm2: number
  cell_C: number
  step: string
  tag: string
  /** The plane it was read in, null where nobody said which. */
  arrayId: string | null
  verdict: Decided
  /** Of the test and part that is looked at. */
  isOwn: boolean
}

/** Readings of the same visit as the newest of a test, in their order; none where the test asks for no light. */
export function sunOf(evaluation: Evaluation, one: StepEvaluation): SunPoint[] {
  if (!wantsConditions(one.step, one.part)) return []
  const visitId = one.readings.at(-1)?.entry.visitId ?? evaluation.facts.visits.at(-1)?.id
  return pointsIn(evaluation, one).filter((point) => point.visitId === visitId)
}

/** All light that was read from one time to another, in its order. */
export const lightBetween = (evaluation: Evaluation, from: number, to: number): SunPoint[] =>
  pointsIn(evaluation, null).filter(({ at }) => at >= from && at < to)

function pointsIn(evaluation: Evaluation, own: StepEvaluation | null): (SunPoint & { visitId: string })[] {
  return evaluation.steps
    .flatMap((one) =>
      one.readings
        .filter(({ ended }) => ended?.by !== 'void')
        .flatMap((reading) => {
          const point = pointOf(evaluation, one, reading, one === own)
          return point ? [{ ...point, visitId: reading.entry.visitId }] : []
        }),
    )
    .sort((a, b) => a.at - b.at)
}

function pointOf(
  { plant }: Evaluation,
  { step, part }: StepEvaluation,
  reading: ReadingEvaluation,
  isOwn: boolean,
): SunPoint | null {
  const { conditions } = reading.entry.body
  if (!conditions || part.data.kind !== 'string') return null
  const weather = weatherOf(conditions, part.data.moduleType.data)
  return (
    weather && {
      at: Date.parse(conditions.at),
      irradiance_Wm2: weather.irradiance_Wm2,
      cell_C: weather.cell.value_C,
      step: step.id,
      tag: part.data.tag,
      arrayId: plant.arrayOf(part)?.id ?? null,
      verdict: reading.verdict,
      isOwn,
    }
  )
}
