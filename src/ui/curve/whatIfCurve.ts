/** The curve that a string would give with something wrong with it, at the light and warmth of a sweep. */
import { contextOfStep } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { CurvePoint } from '@/core/curve/points'
import { groupOf, GROUPS_PER_MODULE, USUAL_BYPASS } from '@/core/curve/reference'
import { Sweep } from '@/core/curve/stringCurve'
import { atConditions } from '@/core/pv/deSoto'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '@/core/pv/constants'
import { weatherOf } from '@/core/pv/conditions'
import type { Conditions } from '@/core/record/entry'
import type { WhatIfState } from './WhatIf'

const POINTS = 110
const BEND = 1.5

/** @param at the light of the sweep, standard test conditions, or another light in W/m2 with the cells as they are. */
export function whatIfCurve(
  evaluation: Evaluation,
  one: StepEvaluation,
  conditions: Conditions | null,
  asked: WhatIfState,
  at: 'swept' | 'stc' | number,
): CurvePoint[] | null {
  const { data } = one.part
  if (data.kind !== 'string') return null
  const module = data.moduleType.data
  const { parameters } = contextOfStep(evaluation, one).models.of(module)
  const weather = conditions && weatherOf(conditions, module)
  if (!parameters || (at !== 'stc' && !weather)) return null
  const light = at === 'stc' ? STC_IRRADIANCE_Wm2 : at === 'swept' ? weather!.irradiance_Wm2 : at
  const warmth = at === 'stc' ? STC_TEMPERATURE_C : weather!.cell.value_C
  const here = atConditions(parameters, module, light, warmth)
  const sound = groupOf(here)
  const all = asked.modules * GROUPS_PER_MODULE
  const bypassed = Math.min(asked.bypassed, all - 1)
  const shaded = Math.min(asked.shaded, all - 1 - bypassed)
  const share = Math.max(0.01, asked.light_pct / 100)
  const sweep = new Sweep(
    [
      { count: all - shaded - bypassed, group: sound },
      { count: shaded, group: { ...sound, photocurrent_A: sound.photocurrent_A * share, bypass: USUAL_BYPASS } },
      { count: bypassed, group: { ...sound, bypass: { kind: 'short', resistance_ohm: 1e-3 } } },
    ],
    asked.ohm,
  )
  const open_V = sweep.voltageAt(0)
  return Array.from({ length: POINTS }, (_, k): CurvePoint => {
    const voltage = open_V * (1 - (1 - k / (POINTS - 1)) ** BEND)
    return [voltage, sweep.at(voltage).current_A]
  })
}
