/** What a whole record comes to, in a few figures: for its first page, and before somebody signs. */
import { gravest, type Verdict, verdicts } from '../verdict/verdict'
import { isOnlyOffered } from './hunts'
import type { Evaluation, StepEvaluation } from './types'

export type Summary = {
  /** Of everything that is asked; what is not finished outweighs what is only close. */
  verdict: Verdict
  counts: Readonly<Record<Verdict, number>>
  /** Tests that are asked. */
  asked: number
  /** Tests that are not finished: nothing was read, it decides nothing, or a gate is shut. */
  open: number
  /** Snags that nobody closed by a test. */
  snags: number
  /** Gone on without what was to come first. */
  overridden: number
  /** Read from a simulated instrument. */
  simulated: number
}

const isOverridden = ({ counting, gates }: StepEvaluation): boolean =>
  counting !== null && gates.some((gate) => gate.overridden !== null)

export function summaryOf(evaluation: Evaluation): Summary {
  const asked = evaluation.steps.filter((one) => !isOnlyOffered(one))
  const of = (verdict: Verdict): number => asked.filter((one) => one.verdict === verdict).length
  const counts = Object.fromEntries(verdicts.map((verdict) => [verdict, of(verdict)])) as Record<Verdict, number>
  return {
    verdict: gravest(asked.map((one) => one.verdict)),
    counts,
    asked: asked.length,
    open: counts['not-yet'] + counts['held-back'],
    snags: evaluation.snags.filter(({ state }) => state !== 'closed').length,
    overridden: asked.filter(isOverridden).length,
    simulated: asked.filter(({ flags }) => flags.includes('stand-in')).length,
  }
}
