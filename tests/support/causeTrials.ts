/**
 * Trials of the causes: curves of strings with a known fault, made by the exact solver from groups that scatter, seen
 * through sensors that are off by what their class allows, with noise; and what the explanation makes of them.
 */
import type { CellGroup } from '@/core/curve/cellGroup'
import type { CurveCause } from '@/core/curve/candidates'
import { type Explained, explain } from '@/core/curve/explain'
import type { CurveQuestion } from '@/core/curve/question'
import type { CurvePoint } from '@/core/curve/points'
import { GROUPS_PER_MODULE, groupOf } from '@/core/curve/reference'
import { type CurveModule, ParallelStrings } from '@/core/curve/stringCurve'
import { atConditions } from '@/core/pv/deSoto'
import type { ModuleData } from '@/core/pv/moduleData'
import { moduleModel } from '@/core/pv/stringModel'
import { chance, gaussian } from '@/standin/random'

const module: ModuleData = {
  pmax_W: 405,
  voc_V: 37.2,
  isc_A: 13.78,
  vmp_V: 31.2,
  imp_A: 12.98,
  alpha_pctPerK: 0.045,
  beta_pctPerK: -0.27,
  gamma_pctPerK: -0.34,
  cellsInSeries: 54,
}
const parameters = moduleModel(module).parameters!
const POINTS = 150
/** Deviations of sound modules' groups, and of what sensors and tracer show (k = 1). */
const SPREAD = { current: 0.003, light: 0.01, cell_K: 1, gain: 0.0025, noise: 0.0015 }

export const faults = [
  'sound',
  'shade',
  'groups-bypassed',
  'modules-missing',
  'module-reversed',
  'soiling',
  'series-resistance',
  'shunt',
  'hot-cells',
] as const satisfies readonly CurveCause[]
export type TrialFault = (typeof faults)[number]
export type Trial = { fault: TrialFault; light_Wm2: number; explained: Explained }

/** A string built with a fault of a size that a seed draws, and what is made of its curve. */
export function trial(fault: TrialFault, light_Wm2: number, seed: number): Trial {
  const next = chance(seed * 7919 + 17)
  const normal = gaussian(seed)
  const modules = 10 + Math.floor(10 * next())
  const cell_C = 20 + (28 * light_Wm2) / 1000 + 6 * next()
  const hot_K = fault === 'hot-cells' ? 10 + 12 * next() : 0
  const dim = fault === 'soiling' ? 0.72 + 0.2 * next() : 1
  const here = atConditions(parameters, module, light_Wm2 * dim, cell_C + hot_K)
  const leaky = fault === 'shunt' ? 0.02 + 0.08 * next() : 1
  const all = modules * GROUPS_PER_MODULE
  const touched = Math.max(1, Math.round(all * (0.03 + 0.3 * next())))
  const share = 0.15 + 0.7 * next()
  const joint_ohm =
    fault === 'series-resistance' ? (0.1 + 0.25 * next()) * ((modules * module.vmp_V) / module.imp_A) * 0.8 : 0
  const missing = 1 + Math.floor(2 * next())
  const gone = 1 + Math.floor(2 * next())
  const groups = Array.from({ length: all }, (_, k): CellGroup => {
    const one = groupOf({ ...here, shuntResistance_ohm: here.shuntResistance_ohm * leaky })
    const isShaded = fault === 'shade' && k < touched
    const isGone =
      (fault === 'groups-bypassed' && k < gone) || (fault === 'modules-missing' && k < missing * GROUPS_PER_MODULE)
    return {
      ...one,
      photocurrent_A: one.photocurrent_A * (1 + SPREAD.current * normal()) * (isShaded ? share : 1),
      ...(isGone ? { bypass: { kind: 'short', resistance_ohm: 0.002 } as const } : {}),
    }
  })
  const turned = fault === 'module-reversed' ? 1 : 0
  const string: CurveModule[] = Array.from({ length: modules }, (_, m) => ({
    reversed: m < turned,
    groups: groups.slice(m * GROUPS_PER_MODULE, (m + 1) * GROUPS_PER_MODULE),
  }))
  const array = new ParallelStrings([{ seriesResistance_ohm: joint_ohm, modules: string }])
  const { voc_V, isc_A } = array.features()
  const [gainV, gainA] = [1 + SPREAD.gain * normal(), 1 + SPREAD.gain * normal()]
  const points = Array.from({ length: POINTS }, (_, k): CurvePoint => {
    const voltage = (1.002 * voc_V * k) / (POINTS - 1)
    return [voltage * gainV, array.currentAt(voltage) * gainA + SPREAD.noise * isc_A * normal()]
  })
  const question: CurveQuestion = {
    points,
    parameters,
    module,
    modulesInSeries: modules,
    irradiance_Wm2: light_Wm2 * (1 + SPREAD.light * normal()),
    irradianceUncertainty_Wm2: 2 * SPREAD.light * light_Wm2,
    cellTemperature_C: cell_C + SPREAD.cell_K * normal(),
    cellTemperatureUncertainty_K: 2 * SPREAD.cell_K,
    instrument_pct: 200 * SPREAD.gain,
  }
  const explained = explain(question)
  if (typeof explained === 'string') throw new Error(explained)
  return { fault, light_Wm2, explained }
}
