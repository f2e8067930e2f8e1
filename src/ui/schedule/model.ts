/** The schedule as a grid: which tests make columns, what is set up once for all rows, and what a row is asked. */
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Part, PartKind } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import type { Regime } from '@/core/regime/regime'
import { CHECK_OPTIONS } from '@/core/steps/checks'
import { type AnyStep, type ChoiceSlot, type Slot, slotsAsked, slotsInOrder, slotsShown } from '@/core/steps/step'

export type Column = { id: string; step: AnyStep; slot: Slot }
export type Row = { part: Part; byStep: ReadonlyMap<AnyStep, StepEvaluation> }
/** Choices made once for every row, by step. */
export type SetUp = Readonly<Record<string, Readonly<Record<string, string>>>>

const isSetUp = (slot: Slot): slot is ChoiceSlot => slot.kind === 'choice' && slot.sticky === true
const isCheck = (slot: Slot): boolean => slot.kind === 'choice' && slot.options === CHECK_OPTIONS
const isCell = (slot: Slot): boolean => !slot.optional && !isCheck(slot) && !isSetUp(slot)

/** The tests of a kind of part that are read cell by cell; lists of checks stay on the bench. */
export function stepsInGrid(evaluation: Evaluation, kind: PartKind): AnyStep[] {
  const own = evaluation.steps.filter((one) => one.part.data.kind === kind && !one.step.compute)
  return [...new Set(own.map((one) => one.step))].filter((step) => (step.slots as readonly Slot[]).some(isCell))
}

/** Parts of a kind with their tests, by board and then by tag. */
export function rowsOf(evaluation: Evaluation, kind: PartKind): Row[] {
  const rows = new Map<string, { part: Part; byStep: Map<AnyStep, StepEvaluation> }>()
  for (const one of evaluation.steps) {
    if (one.part.data.kind !== kind) continue
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
export function setUpSlots(step: AnyStep, rows: readonly Row[], regime: Regime): ChoiceSlot[] {
  return (step.slots as readonly Slot[]).filter(
    (slot): slot is ChoiceSlot => isSetUp(slot) && rows.some(({ part }) => !slot.only || slot.only(part.data, regime)),
  )
}

/** The cells that a row is asked, given what is set up. */
export function cellsOf(step: AnyStep, part: Part, regime: Regime, setUp: SetUp): Slot[] {
  return slotsShown(step, setUp[step.id] ?? {}, { part, regime }).filter(isCell)
}

/** Columns of all tests, in working order; a column is there as soon as one row is asked for it. */
export function columnsOf(steps: readonly AnyStep[], rows: readonly Row[], regime: Regime, setUp: SetUp): Column[] {
  return steps.flatMap((step) => {
    const asked = new Set(rows.flatMap(({ part }) => cellsOf(step, part, regime, setUp).map((slot) => slot.id)))
    return slotsInOrder(step, regime)
      .filter((slot) => asked.has(slot.id))
      .map((slot) => ({ id: `${step.id}.${slot.id}`, step, slot }))
  })
}

/** The choices which hold for a row: what is set up, as far as this row is asked for it. */
export function choicesFor(step: AnyStep, part: Part, regime: Regime, setUp: SetUp): Record<string, string> {
  const asked = new Set(slotsAsked(step, { part, regime }).map((slot) => slot.id))
  return Object.fromEntries(Object.entries(setUp[step.id] ?? {}).filter(([id]) => asked.has(id)))
}
