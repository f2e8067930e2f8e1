import { type Cause, causeOf } from '../verdict/cause'
import type { Evaluation, StepEvaluation } from './types'

/** One string short by k and another long by k: a module plugged into the wrong string. */
export function swappedNeighbour(evaluation: Evaluation, one: StepEvaluation, found: readonly Cause[]): Cause | null {
  const own = found.find((cause) => cause.code === 'modules-missing' || cause.code === 'modules-extra')
  if (!own || own.fit !== 'fits' || one.part.data.kind !== 'string') return null
  const short = own.code === 'modules-missing'
  const count = Number(own.figures.count)
  const perModule = one.counting!.judgement.rule!.expected!.value / one.part.data.modulesInSeries
  for (const other of evaluation.steps) {
    if (other.step !== one.step || other === one) continue
    const rule = other.counting?.judgement.rule
    if (!rule?.measured || !rule.expected) continue
    const gap = rule.measured.value - rule.expected.value
    if (Math.round(gap / perModule) !== (short ? count : -count)) continue
    const figures = { ...own.figures, other: other.part.data.tag }
    return causeOf('plugged-into-the-wrong-string', 'fits', 'follow-both-strings', figures, {
      predicted: own.predicted,
    })
  }
  return null
}
