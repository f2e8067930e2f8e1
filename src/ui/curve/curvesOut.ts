/** The curves that count, as they go out: the same figures as they were read. */
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { OutCurve } from '@/core/curve/curveFile'
import { pointsOf } from '@/core/curve/curveValue'
import { weatherOf } from '@/core/pv/conditions'

/** Every string's counting curve of a step, in the order of the plant. */
export const curvesOut = (evaluation: Evaluation, { step }: StepEvaluation): OutCurve[] =>
  evaluation.steps.filter((one) => one.step === step).flatMap((one) => curveOut(one) ?? [])

function curveOut({ counting, part: { data } }: StepEvaluation): OutCurve | null {
  const body = counting?.entry.body
  const value = body?.slots.curve
  if (!body || !value || !('curve' in value) || data.kind !== 'string') return null
  const weather = body.conditions && weatherOf(body.conditions, data.moduleType.data)
  return {
    tag: data.tag,
    points: pointsOf(value.curve),
    irradiance_Wm2: weather?.irradiance_Wm2 ?? null,
    cellTemperature_C: weather?.cell.value_C ?? null,
  }
}
