/** The schedule as a grid: which tests make columns, what is set up once for all rows, and what a row is asked. */
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Part, PartKind } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import type { Regime } from '@/core/regime/regime'
import { type Slot, slotsAsked, slotsInOrder, slotsShown } from '@/core/steps/slot'
import { type AnyReadStep, isRead } from '@/core/steps/step'
import { type AnsweredSlot, isSetUp } from '../bench/draft'

export type Column = { id: string; step: AnyReadStep; slot: Slot }
export type Row = { part: Part; byStep: ReadonlyMap<AnyReadStep, StepEvaluation> }
/** Choices made once for every row, by step. */
export type SetUp = Readonly<Record<string, Readonly<Record<string, string>>>>

const isCell = (slot: Slot): boolean => !slot.optional && slot.kind !== 'check' && !isSetUp(slot)

/** The tests of a kind of part that are read cell by cell; lists of checks stay on the bench. */
export function stepsInGrid(evaluation: Evaluation, kind: PartKind): AnyReadStep[] {
  const own = evaluation.steps.flatMap(({ part, step }) => (part.data.kind === kind && isRead(step) ? [step] : []))
  return [...new Set(own)].filter((step) => step.slots.some(isCell))
}

/** Parts of a kind with their tests, by board and then by tag. */
export function rowsOf(evaluation: Evaluation, kind: PartKind): Row[] {
  const rows = new Map<string, { part: Part; byStep: Map<AnyReadStep, StepEvaluation> }>()
  for (const one of evaluation.steps) {
    if (one.part.data.kind !== kind || !isRead(one.step)) continue
    const row = rows.get(one.part.id) ?? { part: one.part, byStep: new Map() }
    row.byStep.set(one.step, one)
    rows.set(one.part.id, row)
  }
  const board = ({ data }: Part): string =>
    ('boardId' in data && data.boardId && evaluation.parts.get(data.boardId)?.data.tag) || ''
  return [...rows.values()].sort(
    (a, b) => compareTags(board(a.part), board(b.part)) || compareTags(a.part.data.tag, b.part.data.tag),
  )
}

/** What is set up once: method, lead set, pairing; as far as any row is asked for it. */
export function setUpSlots(step: AnyReadStep, rows: readonly Row[], regime: Regime): AnsweredSlot[] {
  return step.slots.filter(
    (slot): slot is AnsweredSlot =>
      isSetUp(slot) && rows.some(({ part }) => !slot.only || slot.only(part.data, regime)),
  )
}

/** The cells that a row is asked, given what is set up. */
export function cellsOf(step: AnyReadStep, part: Part, regime: Regime, setUp: SetUp): Slot[] {
  return slotsShown(step, setUp[step.id] ?? {}, { part, regime }).filter(isCell)
}

/** Columns of all tests, in working order; a column is there as soon as one row is asked for it. */
export function columnsOf(steps: readonly AnyReadStep[], rows: readonly Row[], regime: Regime, setUp: SetUp): Column[] {
  return steps.flatMap((step) => {
    const asked = new Set(rows.flatMap(({ part }) => cellsOf(step, part, regime, setUp).map((slot) => slot.id)))
    return slotsInOrder(step, regime)
      .filter((slot) => asked.has(slot.id))
      .map((slot) => ({ id: `${step.id}.${slot.id}`, step, slot }))
  })
}

/** The choices which hold for a row: what is set up, as far as this row is asked for it. */
export function choicesFor(step: AnyReadStep, part: Part, regime: Regime, setUp: SetUp): Record<string, string> {
  const asked = new Set(slotsAsked(step, { part, regime }).map((slot) => slot.id))
  return Object.fromEntries(Object.entries(setUp[step.id] ?? {}).filter(([id]) => asked.has(id)))
}
