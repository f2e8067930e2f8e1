/** The schedule as a grid: a board's circuits as rows, headings of tests as columns, and what a cell of both asks. */
import { boardIdOf } from '@/core/evaluation/boards'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Part, PartKind } from '@/core/plant/part'
import type { PartOf } from '@/core/plant/plantIndex'
import { compareTags } from '@/core/plant/projection'
import type { SlotValue } from '@/core/record/entry'
import { columnOf } from '@/core/steps/columns'
import {
  type Asked,
  type Column as Heading,
  isSlotAsked,
  type Slot,
  slotsAsked,
  slotsInOrder,
  slotsShown,
} from '@/core/steps/slot'
import { type AnyReadStep, isRead } from '@/core/steps/step'
import { type AnsweredSlot, isSetUp } from '../bench/draft'

export type Column = { id: string; step: AnyReadStep; heading: Heading }
export type Row = {
  /** A circuit; or a device that protects no circuit by itself. */
  part: Part
  byStep: ReadonlyMap<AnyReadStep, StepEvaluation>
  /** Its tests stand in another circuit's row: both hang on the same device. */
  elsewhere: { tag: string; device: string; steps: ReadonlySet<AnyReadStep> } | null
}
/** Choices made once for every row, by step. */
export type SetUp = Readonly<Record<string, Readonly<Record<string, string>>>>

/** Longer lists of checks stay on the bench. */
const MOST_CHECKS = 2
const isCell = (slot: Slot): boolean => !slot.optional && !isSetUp(slot)

/** Tests that are read cell by cell, of circuits and of their devices. */
const isOfGrid = (step: AnyReadStep): boolean =>
  step.slots.some(isCell) && step.slots.filter(({ kind }) => kind === 'check').length <= MOST_CHECKS

const KINDS: readonly PartKind[] = ['circuit', 'rcd']

/** The tests that the grid has, in working order. */
export function stepsInGrid({ steps }: Evaluation): AnyReadStep[] {
  const found = new Set<AnyReadStep>()
  for (const { part, step } of steps)
    if (KINDS.includes(part.data.kind) && isRead(step) && isOfGrid(step)) found.add(step)
  return [...found]
}

type Own = Map<string, Map<AnyReadStep, StepEvaluation>>
function ownTests({ steps }: Evaluation): Own {
  const own: Own = new Map()
  for (const one of steps) {
    if (!KINDS.includes(one.part.data.kind) || !isRead(one.step) || !isOfGrid(one.step)) continue
    const known = own.get(one.part.id) ?? new Map()
    known.set(one.step, one)
    own.set(one.part.id, known)
  }
  return own
}

const NONE: ReadonlyMap<AnyReadStep, StepEvaluation> = new Map()

/** Rows of a board: devices that protect no circuit by themselves, then its circuits by tag. */
export function rowsOf(evaluation: Evaluation, boardId: string | null): Row[] {
  const { plant } = evaluation
  const own = ownTests(evaluation)
  const isHere = (part: Part): boolean => boardIdOf(part, plant) === boardId
  const circuits = plant.ofKind('circuit')
  const protecting = new Set(circuits.map(({ data }) => data.rcdId))
  const alone = plant.ofKind('rcd').filter((rcd) => isHere(rcd) && !protecting.has(rcd.id))
  const byTag = (a: Part, b: Part): number => compareTags(a.data.tag, b.data.tag)
  const measuredAt = new Map<string, string>()
  const ofCircuit = (part: PartOf<'circuit'>): Row => {
    const mine = own.get(part.id) ?? NONE
    const rcd = part.data.rcdId ? evaluation.parts.get(part.data.rcdId) : undefined
    const tests = (rcd && own.get(rcd.id)) ?? NONE
    if (!rcd) return { part, byStep: mine, elsewhere: null }
    const first = measuredAt.get(rcd.id)
    if (first !== undefined)
      return { part, byStep: mine, elsewhere: { tag: first, device: rcd.data.tag, steps: new Set(tests.keys()) } }
    measuredAt.set(rcd.id, part.data.tag)
    return { part, byStep: new Map([...mine, ...tests]), elsewhere: null }
  }
  return [
    ...alone.sort(byTag).map((part): Row => ({ part, byStep: own.get(part.id) ?? NONE, elsewhere: null })),
    ...circuits.filter(isHere).sort(byTag).map(ofCircuit),
  ]
}

/** In which plant and under which regime rows are asked. */
export type Under = Pick<Asked, 'plant' | 'regime'>
export const underOf = ({ plant, facts }: Evaluation): Under => ({ plant, regime: facts.regime })

/** What is set up once: method, lead set, pairing; as far as any row is asked for it. */
export function setUpSlots(step: AnyReadStep, rows: readonly Row[], under: Under): AnsweredSlot[] {
  return step.slots.filter((slot): slot is AnsweredSlot => {
    if (!isSetUp(slot)) return false
    return rows.some(({ byStep }) => {
      const one = byStep.get(step)
      return one && isSlotAsked(slot, { ...under, part: one.part })
    })
  })
}

/** The figures and answers that a test of a part is asked, given what is set up. */
export function cellsOf(step: AnyReadStep, part: Part, under: Under, setUp: SetUp): Slot[] {
  return slotsShown(step, setUp[step.id] ?? {}, { ...under, part }).filter(isCell)
}

/**
 * Figures that were kept under another set-up than the one of now: R1+R2 where R2 alone is read since, a loop that was
 * measured where sums are taken now. They were read, so they are shown; what is read next is what is set up.
 */
function keptApart({ step, part, counting }: StepEvaluation, under: Under, setUp: SetUp): Slot[] {
  if (!counting || !isRead(step)) return []
  const { slots } = counting.entry.body
  if (Object.entries(setUp[step.id] ?? {}).every(([id, choice]) => isChosen(slots[id], choice))) return []
  const asked = cellsOf(step as AnyReadStep, part, under, setUp)
  return slotsAsked(step, { ...under, part }).filter(
    (slot) => isCell(slot) && slot.id in slots && !asked.includes(slot),
  )
}

const isChosen = (value: SlotValue | undefined, choice: string): boolean =>
  value !== undefined && 'choice' in value && value.choice === choice

/** Columns in working order; one is there as soon as one row is asked for it, or was read so. */
export function columnsOf(steps: readonly AnyReadStep[], rows: readonly Row[], under: Under, setUp: SetUp): Column[] {
  return steps.flatMap((step) => {
    const asked = new Set(
      rows.flatMap(({ byStep }) => {
        const one = byStep.get(step)
        const cells = one ? [...cellsOf(step, one.part, under, setUp), ...keptApart(one, under, setUp)] : []
        return cells.map((slot) => columnOf(step, slot).id)
      }),
    )
    const headings = new Map(
      slotsInOrder(step, under.regime).map((slot) => [columnOf(step, slot).id, columnOf(step, slot)]),
    )
    return [...headings.values()]
      .filter(({ id }) => asked.has(id))
      .map((heading) => ({ id: `${step.id}.${heading.id}`, step, heading }))
  })
}

/** Tests side by side on a narrow screen: as many as have room for their headings, in working order. */
export function groupsOf(columns: readonly Column[], room: number): AnyReadStep[][] {
  const groups: { steps: AnyReadStep[]; count: number }[] = []
  for (const step of new Set(columns.map((column) => column.step))) {
    const count = columns.filter((column) => column.step === step).length
    const last = groups.at(-1)
    if (last && last.count + count <= room) {
      last.steps.push(step)
      last.count += count
    } else groups.push({ steps: [step], count })
  }
  return groups.map(({ steps }) => steps)
}

export type Cell =
  /** `apart` are figures that were kept under another set-up, where it has some. */
  | { is: 'asked'; one: StepEvaluation; slots: readonly Slot[]; apart?: readonly Slot[] }
  | { is: 'kept'; one: StepEvaluation; slots: readonly Slot[] }
  | { is: 'elsewhere'; tag: string; device: string }
  | { is: 'none' }

/** What stands where a row and a column meet. */
export function cellAt(row: Row, { step, heading }: Column, under: Under, setUp: SetUp): Cell {
  const one = row.byStep.get(step)
  const isUnder = (slot: Slot): boolean => columnOf(step, slot).id === heading.id
  if (one) {
    const slots = cellsOf(step, one.part, under, setUp).filter(isUnder)
    const kept = keptApart(one, under, setUp).filter(isUnder)
    if (slots.length > 0) return { is: 'asked', one, slots, ...(kept.length > 0 && { apart: kept }) }
    if (kept.length > 0) return { is: 'kept', one, slots: kept }
  }
  if (row.elsewhere?.steps.has(step)) return { is: 'elsewhere', tag: row.elsewhere.tag, device: row.elsewhere.device }
  return { is: 'none' }
}

/** The choices which hold for a row: what is set up, as far as this row is asked for it. */
export function choicesFor(step: AnyReadStep, part: Part, under: Under, setUp: SetUp): Record<string, string> {
  const asked = new Set(slotsAsked(step, { ...under, part }).map((slot) => slot.id))
  return Object.fromEntries(Object.entries(setUp[step.id] ?? {}).filter(([id]) => asked.has(id)))
}
