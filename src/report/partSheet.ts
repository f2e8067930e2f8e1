/** All tests of a few alike parts side by side, a column a part: a plug as a whole, and twins compared. */
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { kinds, nameOf } from '@/core/plant/kinds'
import type { Part, PartKind } from '@/core/plant/part'
import { unitSpellings } from '@/core/quantity/unit'
import type { Slot } from '@/core/steps/slot'
import { type AnyStep, isRead, slotsOf } from '@/core/steps/step'
import { verdictWord } from '@/words/reading'
import { say, sayCode, type WordKey } from '@/words/say'
import { type Cell, left, type Table } from './stepTable'

/** So many parts stand beside one another on a page. */
const MOST_BESIDE = 5

const slotName = (slot: Slot): string => {
  const written = slot.kind === 'number' ? unitSpellings[slot.unit].written : ''
  const name = sayCode('slot', slot.id)
  return `   ${written ? `${name}, ${written}` : name}`
}

function figureIn(one: StepEvaluation | undefined, slot: Slot): string | null {
  const value = one?.counting?.entry.body.slots[slot.id]
  return value && 'text' in value ? value.text : null
}

/** A test: how each part came out, then each of its figures that anybody read. */
function rowsOf(step: AnyStep, of: readonly (StepEvaluation | undefined)[]): Cell[][] {
  if (of.every((one) => one === undefined)) return []
  const name = left(`${step.order} ${sayCode('step', `${step.id}.short`)}`)
  const verdicts = of.map(
    (one): Cell => (one ? { ...left(verdictWord(one.verdict, step)), verdict: one.verdict } : left('–')),
  )
  const figures = slotsOf(step)
    .filter((slot) => isRead(step) && slot.kind === 'number' && of.some((one) => figureIn(one, slot) !== null))
    .map((slot) => [left(slotName(slot)), ...of.map((one) => left(figureIn(one, slot) ?? '–'))])
  return [[name, ...verdicts], ...figures]
}

function sheetOf(kind: PartKind, parts: readonly Part[], steps: readonly AnyStep[], evaluation: Evaluation): Table {
  const rows = steps
    .filter((step) => step.appliesTo === kind)
    .flatMap((step) =>
      rowsOf(
        step,
        parts.map((part) => evaluation.byKey.get(`${step.id}:${part.id}`)),
      ),
    )
  return {
    id: `sheet-${kind}-${parts[0]!.id}`,
    title: say(`sheet.${kind}${parts.length === 1 ? '.one' : ''}` as WordKey, {
      tags: parts.map((part) => part.data.tag).join(', '),
    }),
    columns: [say('certificate.test'), ...parts.map((part) => part.data.tag)].map((label) => ({
      label,
      align: 'left',
    })),
    rows,
  }
}

/** One test of all alike parts of a site, a column a part; of many those that stand beside this one in the record. */
export function besideOf(evaluation: Evaluation, { step, part }: StepEvaluation): Table {
  const all = evaluation.plant.ofKind(part.data.kind) as readonly Part[]
  const page = Math.floor(all.findIndex((one) => one.id === part.id) / MOST_BESIDE)
  const parts = all.slice(page * MOST_BESIDE, (page + 1) * MOST_BESIDE)
  return sheetOf(part.data.kind, parts, [step], evaluation)
}

/** Sheets of the kinds of part that have one. */
export function partSheets(evaluation: Evaluation, steps: readonly AnyStep[]): Table[] {
  return kinds
    .filter((kind) => kind.hasSheet)
    .flatMap((kind) => {
      const name = nameOf(kind)
      const parts = evaluation.plant.ofKind(name) as readonly Part[]
      const pages = Array.from({ length: Math.ceil(parts.length / MOST_BESIDE) }, (_, k) =>
        parts.slice(k * MOST_BESIDE, (k + 1) * MOST_BESIDE),
      )
      return pages.map((page) => sheetOf(name, page, steps, evaluation))
    })
}
