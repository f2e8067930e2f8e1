/** What a cell of the schedule says: each figure by itself, and the test's word wherever no figure carries it. */
import { spanOf } from '../quantity/span'
import type { Body } from '../record/entry'
import { orLacking } from '../regime/lacking'
import { columnOf, isWorse } from '../steps/columns'
import type { Slot } from '../steps/slot'
import { isRead } from '../steps/step'
import type { Judgement, RuleData } from '../verdict/judgement'
import { gravest, isGraver, type Verdict } from '../verdict/verdict'
import { contextIn } from './draft'
import type { Evaluation, StepEvaluation } from './types'

export type Judged = {
  /** Of the test as a whole: with gates, traps, and what is missing. */
  verdict: Verdict
  judgement: Judgement | null
  /** Nothing of the test wants an answer still. */
  isWhole: boolean
}

type Read = Body<'reading'>['slots']

/**
 * What each figure that was read comes to. One that was held by nothing of its own takes the test's word, and so do all
 * where the test's is graver than every figure's; while the test is not whole no figure of it is within or close.
 */
export function verdictsOf({ verdict, judgement, isWhole }: Judged, read: readonly string[]): Map<string, Verdict> {
  const own = new Map<string, Verdict>()
  for (const slot of read) {
    const found = judgement?.ofSlot(slot)?.verdict
    if (found) own.set(slot, found)
  }
  const word: Verdict = isWhole || verdict === 'outside' || verdict === 'held-back' ? verdict : 'not-yet'
  const isSaid = own.size > 0 && !isGraver(word, gravest(own.values()))
  return new Map(
    read.map((slot) => {
      const mine = own.get(slot)
      if (!mine || !isSaid) return [slot, word]
      return [slot, isWhole || mine === 'outside' ? mine : 'not-yet']
    }),
  )
}

/** The worst of the figures and answers of one heading; null where none was read. */
export function worstOf(
  { step }: StepEvaluation,
  slots: readonly Slot[],
  read: Read,
  verdicts: ReadonlyMap<string, Verdict>,
): Slot | null {
  if (!isRead(step)) return null
  let found: Slot | null = null
  for (const slot of slots) {
    const value = read[slot.id]
    if (!value) continue
    const [mine, theirs] = [verdicts.get(slot.id) ?? 'not-yet', (found && verdicts.get(found.id)) ?? 'not-yet']
    const before = found && read[found.id]
    const isMoreExtreme =
      before && 'text' in before && 'text' in value
        ? isWorse(columnOf(step, slot), spanOf(value, 0), spanOf(before, 0))
        : false
    if (!found || isGraver(mine, theirs) || (mine === theirs && isMoreExtreme)) found = slot
  }
  return found
}

/** The scale of a figure: as it was judged, else as it stands before anything is read. */
export function scaleOfSlot(
  evaluation: Evaluation,
  one: StepEvaluation,
  judgement: Judgement | null,
  slot: Slot,
): RuleData | null {
  const judged = judgement?.ofSlot(slot.id)?.rule
  if (judged) return judged
  const { step } = one
  if (!isRead(step) || slot.kind !== 'number') return null
  // A regime that lacks the figure gives no scale, as it gives no verdict.
  return orLacking(
    () => step.scaleBefore?.(contextIn(evaluation, one, null), slot) ?? null,
    () => null,
  )
}
