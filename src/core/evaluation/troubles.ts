/** Parts that the check of the plant itself finds fault with, before anybody reads anything. */
import type { Part } from '../plant/part'
import { isRead } from '../steps/step'
import { worstFirst } from '../verdict/verdict'
import type { Evaluation, StepEvaluation } from './types'

/** A part, and the step whose verdict it is. */
export type Trouble = { part: Part; one: StepEvaluation }

/** The worst first; of parts alike in the order of work. */
export function troublesOf(evaluation: Evaluation): Trouble[] {
  return evaluation.steps
    .filter((one) => !isRead(one.step) && (one.verdict === 'outside' || one.verdict === 'close'))
    .map((one) => ({ part: blamed(evaluation, one), one }))
    .sort((a, b) => worstFirst(a.one.verdict, b.one.verdict))
}

/** The device whose plate is passed, by what the check says it held the string against; else what the step is asked of. */
function blamed({ plant }: Evaluation, { part, finding }: StepEvaluation): Part {
  const { what, tag } = finding.figures
  if (typeof what !== 'string' || part.data.kind !== 'array') return part
  const string = plant.stringsOf(part).find((one) => one.data.tag === tag)
  if (!string) return part
  if (what.endsWith('-switch')) return plant.switchOf(string) ?? string
  if (/-(inverter|tracker)$/.test(what)) return plant.inverterOf(string) ?? string
  if (what.endsWith('-surge')) return plant.surgeProtection[0] ?? string
  return string
}

/** What the check of the plant comes to as a whole, by its worst step; null where nothing of it is checked so. */
export function checkOf({ steps }: Evaluation): StepEvaluation | null {
  const computed = steps.filter((one) => !isRead(one.step))
  return [...computed].sort((a, b) => worstFirst(a.verdict, b.verdict))[0] ?? null
}
