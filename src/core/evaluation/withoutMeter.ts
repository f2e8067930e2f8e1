import type { Body } from '../record/entry'
import { isRead } from '../steps/step'
import type { Evaluation, StepEvaluation } from './types'

export type WithoutMeter = { air: Body<'reading'>['air'] | null }

/**
 * Whether a test is read without a light meter today: its sensors were left out, or the last reading of this visit that
 * wanted light had none. With the air as it was said last; null where light is wanted.
 */
export function withoutMeter(evaluation: Evaluation, { step, gates }: StepEvaluation): WithoutMeter | null {
  if (!isRead(step) || !step.asRead) return null
  const visitId = evaluation.facts.visits.at(-1)?.id
  const last = evaluation.steps
    .filter((one) => isRead(one.step) && one.step.asRead)
    .flatMap((one) => one.readings.filter(({ entry, ended }) => !ended && entry.visitId === visitId))
    .reduce<StepEvaluation['readings'][number] | null>((a, b) => (a && a.at > b.at ? a : b), null)
  if (last) return last.entry.body.conditions ? null : { air: last.entry.body.air ?? null }
  return gates.some(({ id, nowVerdict }) => id === SENSORS && nowVerdict === 'left-out') ? { air: null } : null
}

/** The gate that waits for light and cell sensor in the plane. */
const SENSORS = 'sensors-in-plane'
