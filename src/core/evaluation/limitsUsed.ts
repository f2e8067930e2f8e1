/** Which figures of the regime the verdicts of a record rest on: those alone are printed with it. */
import { isRead } from '../steps/step'
import { inputsOf } from './inputs'
import { runOf, wholeBehind } from './run'
import type { Evaluation, StepEvaluation } from './types'

/** One of each test and verdict stands for all alike: they asked the regime the same. */
function examplesOf({ steps }: Evaluation): StepEvaluation[] {
  const found = new Map<string, StepEvaluation>()
  for (const one of steps) {
    const key = `${one.step.id} ${one.verdict}`
    if (one.judgement && (one.counting || one.computed) && !found.has(key)) found.set(key, one)
  }
  return [...found.values()]
}

/** Names of limits and schools that were asked while judging, and of every limit that something was held against. */
export function limitsUsed(evaluation: Evaluation): ReadonlySet<string> {
  const whole = wholeBehind(evaluation)
  const run = runOf(whole)
  const used = new Set<string>()
  for (const one of evaluation.steps) for (const limit of one.judgement?.limits ?? []) used.add(limit.id)
  // Alike parts are held against each other outside of any one judgement.
  for (const one of evaluation.steps)
    if (isRead(one.step) && one.step.sisterGroup && evaluation.sisters.of(one)) {
      used.add(one.step.sisterLimit ?? 'pv.sisters')
      used.add('pv.light-moved')
    }
  const counted = (step: string, partId: string) => whole.owns.get(step, partId)?.counting?.entry.body ?? null
  for (const { step, part, counting } of examplesOf(evaluation))
    for (const input of inputsOf(run, step, part, counting?.entry ?? null, counted))
      if (input.what === 'limit' || input.what === 'school') used.add(input.id)
  return used
}
