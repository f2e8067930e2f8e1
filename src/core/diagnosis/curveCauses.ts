/** Causes of a curve's shape, as the explanation ranks them, and the next check that best tells the first two apart. */
import type { CurveCause } from '../curve/candidates'
import { type Explained, type Explanation, explain } from '../curve/explain'
import type { CurveQuestion } from '../curve/question'
import { GROUPS_PER_MODULE } from '../curve/reference'
import { type Cause, causeOf, type Fit } from '../verdict/cause'
import type { Figures } from '../verdict/verdict'

/** A curve that wants to be explained, with what names its string. */
export type CurveToExplain = CurveQuestion & { tag: string }

/** Behind the best by less than this it explains the curve as well; by less than that it may, in standard deviations. */
const AS_WELL_sigma = 1
const PERHAPS_sigma = 3

const fitOf = (behind_sigma: number): Fit =>
  behind_sigma < AS_WELL_sigma ? 'fits' : behind_sigma < PERHAPS_sigma ? 'may-fit' : 'does-not-fit'

/** The check that belongs to a cause by itself. */
const own: Record<CurveCause, string> = {
  sound: 'curve-nothing',
  shade: 'curve-look-for-shade',
  'shade-two-levels': 'curve-look-for-shade',
  'groups-bypassed': 'curve-thermal',
  'modules-missing': 'count-the-modules',
  'module-reversed': 'curve-halve',
  soiling: 'curve-clean-one',
  'wrong-light': 'curve-second-sensor',
  'series-resistance': 'curve-joints',
  shunt: 'curve-less-light',
  'hot-cells': 'curve-cell-sensor',
  'rounder-knee': 'curve-commissioning',
  'other-type': 'curve-read-the-type',
  'parallel-mismatch': 'curve-one-by-one',
}

/** The check that tells two apart better than either one's own. */
const between: readonly (readonly [CurveCause, CurveCause, string])[] = [
  ['soiling', 'wrong-light', 'curve-soiling-or-light'],
  ['hot-cells', 'groups-bypassed', 'curve-hot-or-bypassed'],
  ['hot-cells', 'modules-missing', 'curve-hot-or-missing'],
  ['modules-missing', 'module-reversed', 'curve-missing-or-turned'],
  ['series-resistance', 'rounder-knee', 'curve-joint-or-age'],
  ['shade', 'groups-bypassed', 'curve-shade-or-bypassed'],
  ['shunt', 'rounder-knee', 'curve-less-light'],
]

function checkFor(one: CurveCause, other: CurveCause | undefined): string {
  const pair = between.find(([a, b]) => (a === one && b === other) || (a === other && b === one))
  return pair ? pair[2] : own[one]
}

function causeFrom(question: CurveToExplain, one: Explanation, rival: Explanation | undefined): Cause {
  const { tag, modulesInSeries: modules, irradiance_Wm2, cellTemperature_C } = question
  const figures: Figures = {
    tag,
    modules,
    groups: modules * GROUPS_PER_MODULE,
    sure_pct: 100 * one.probability,
    irradiance_Wm2,
    cell_C: cellTemperature_C,
    ...one.figures,
  }
  const fit = fitOf(one.behind_sigma)
  // What is ruled out is named without the figures that it would have needed.
  const code = fit === 'does-not-fit' ? `curve-${one.id}-out` : `curve-${one.id}`
  return causeOf(code, fit, checkFor(one.id, rival?.id), figures)
}

/** Causes of an explained curve, best first; what is ruled out stands at their end. */
export function causesFrom(question: CurveToExplain, { ranked, canTell }: Explained): Cause[] {
  return ranked.map((one, k) => {
    const cause = causeFrom(question, one, k === 0 ? ranked[1] : ranked[0])
    return k === 0 && !canTell ? { ...cause, figures: { ...cause.figures, canTell: 0 } } : cause
  })
}

/** Explains a curve; none where its points are no curve. */
export function curveCauses(question: CurveToExplain, onProgress?: (share: number) => void): Cause[] {
  const explained = explain(question, onProgress)
  return typeof explained === 'string' ? [] : causesFrom(question, explained)
}
