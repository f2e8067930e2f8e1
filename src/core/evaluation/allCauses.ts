/**
 * Causes with those of curves among them, which take a while to find. Apart from the rest, so that no tablet fetches the
 * simulation before somebody asks for it: the bench asks a worker, print and seal ask here.
 */
import { curveCauses } from '../diagnosis/curveCauses'
import { causes, toExplain } from '../evaluate'
import type { Cause } from '../verdict/cause'
import type { Evaluation, StepEvaluation } from './types'

/** All causes, those that take a while among them: for what is printed and sealed. */
export function allCauses(evaluation: Evaluation, one: StepEvaluation): Cause[] {
  const question = toExplain(evaluation, one)
  return question ? curveCauses(question) : causes(evaluation, one)
}
