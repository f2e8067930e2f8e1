/** One test of the trade as a table of the certificate: its columns follow from what its readings have to say. */
import { isOnlyOffered } from '@/core/evaluation/hunts'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { type Weather, weatherOf } from '@/core/pv/conditions'
import { unitSpellings } from '@/core/quantity/unit'
import type { SlotValue } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { answerVerdict } from '@/core/steps/checks'
import { type Asked, CHECK_SOUND, isSlotAsked, type Slot } from '@/core/steps/slot'
import { type AnyStep, isChecklist, isRead, mainSlot, slotsOf, wantsConditions } from '@/core/steps/step'
import type { Verdict } from '@/core/verdict/verdict'
import { bandText, decimalsOf, measuredText } from './figureText'
import { readingText, valueText, verdictWord } from '@/words/reading'
import { figure, say, sayCode } from '@/words/say'

export type Cell = { text: string; align: 'left' | 'right'; verdict?: Verdict }
export type Table = {
  id: string
  title: string
  /** What holds for every row and is said once. */
  note?: string
  /** The column that takes what room is left; the last where nothing is said. */
  stretch?: number
  /** The tests that it tells of, where it is not one of its own name. */
  steps?: readonly string[]
  /** It belongs to the first page: what a periodic inspection found. */
  head?: true
  /** A row a part with all that was read of it. */
  schedule?: true
  /** In smaller print: looked up, not read. */
  fine?: true
  /** It wants the paper on its side. */
  wide?: boolean
  /** Its readings stand in a row a part before; this is how each was taken. */
  annex?: true
  columns: { label: string; align: 'left' | 'right' }[]
  rows: Cell[][]
}

/** A cell of words. */
export const left = (text: string): Cell => ({ text, align: 'left' })

/** A test with all its parts as a table; null where the plant has no such part. */
export function stepTable(step: AnyStep, evaluation: Evaluation, facts: Facts): Table | null {
  const own = evaluation.steps.filter((one) => one.step === step && !isOnlyOffered(one))
  const [only, second] = own
  if (!only) return null
  const title = `${step.order} ${sayCode('step', `${step.id}.short`)}`
  // A list of checks of one place is printed line by line; of many parts, a row each.
  if (isChecklist(step) && !second)
    return checksTable(only, title, facts, ({ part }) => ({ part, regime: facts.regime, plant: evaluation.plant }))
  const shared = sharedSetUp(step, own)
  const columns = columnsOf(step, own, facts, shared)
  const note = shared.map((slot) =>
    setUpWords(slot, own.find((one) => one.counting)!.counting!.entry.body.slots[slot.id], facts),
  )
  return {
    id: step.id,
    title,
    ...(note.length > 0 ? { note: say('certificate.all-rows', { what: note.join('; ') }) } : {}),
    columns: columns.map(({ label, align }) => ({ label, align })),
    rows: own.map((one) => columns.map((column) => column.cell(one))),
  }
}

/** What follows from the plant alone, every check in one table; null where nothing is asked. */
export function designTable(evaluation: Evaluation, facts: Facts): Table | null {
  const own = evaluation.steps.filter((one) => !isRead(one.step))
  if (own.length === 0) return null
  const cell = (one: StepEvaluation): Cell[] => {
    const rule = one.judgement?.rule ?? null
    const decimals = decimalsOf(rule?.unit)
    const written = rule ? ` ${unitSpellings[rule.unit].written}` : ''
    const read = readCell(one)
    return [
      left(`${one.step.order} ${sayCode('step', `${one.step.id}.short`)}`),
      left(one.part.data.tag),
      { text: read ? `${read}${written}` : '–', align: 'right' },
      { text: bandText(rule, decimals) ?? '–', align: 'right' },
      { ...left(verdictWord(one.verdict, one.step)), verdict: one.verdict },
      left(rowNotes(one, facts)),
    ]
  }
  return {
    id: 'design',
    title: say('certificate.design'),
    steps: [...new Set(own.map((one) => one.step.id))],
    columns: (
      [
        ['certificate.test', 'left'],
        ['certificate.part', 'left'],
        ['certificate.comes-to', 'right'],
        ['certificate.limits', 'right'],
        ['certificate.verdict', 'left'],
        ['certificate.notes', 'left'],
      ] as const
    ).map(([key, align]) => ({ label: say(key), align })),
    rows: own.map(cell),
  }
}

/** So many figures of a reading stand in columns of their own; more are told in words. */
const MOST_FIGURES = 6

/** The figures of a test that has several, as far as anybody read them; none where one stands for all or they are too many. */
function figureSlots(step: AnyStep, own: readonly StepEvaluation[]): Slot[] {
  const bodies = own.flatMap((one) => (one.counting ? [one.counting.entry.body] : []))
  const read = slotsOf(step).filter((slot) => slot.kind === 'number' && bodies.some((body) => slot.id in body.slots))
  return read.length > 1 && read.length <= MOST_FIGURES ? read : []
}

function slotLabel(slot: Slot): string {
  const written = slot.kind === 'number' ? unitSpellings[slot.unit].written : ''
  return written ? `${sayCode('slot', slot.id)}, ${written}` : sayCode('slot', slot.id)
}

function slotText(one: StepEvaluation, slot: Slot): string | null {
  const value = one.counting?.entry.body.slots[slot.id]
  return value && 'text' in value ? value.text : null
}

type Column = { label: string; align: 'left' | 'right'; cell(one: StepEvaluation): Cell }

/** The columns that a test has something to say in: expected, limits, referral, light and set-up only where there are any. */
function columnsOf(step: AnyStep, own: readonly StepEvaluation[], facts: Facts, shared: readonly Slot[]): Column[] {
  const slots = slotsOf(step)
  const unit = own.find((one) => one.judgement?.rule)?.judgement?.rule?.unit
  const decimals = decimalsOf(unit)
  const rules = own.map((one) => one.judgement?.rule ?? null).filter((rule) => rule !== null)
  const columns: Column[] = []
  const add = (label: string, align: Column['align'], text: (one: StepEvaluation) => string | null): void => {
    columns.push({ label, align, cell: (one) => ({ text: text(one) ?? '–', align }) })
  }
  const rule = (one: StepEvaluation) => one.judgement?.rule ?? null
  add(say('certificate.part'), 'left', (one) => one.part.data.tag)
  const main = mainSlot(step)
  const inUnit = unit ?? (main?.kind === 'number' ? main.unit : null)
  const written = inUnit ? `, ${unitSpellings[inUnit].written}` : ''
  add(`${say('certificate.read')}${written}`, 'right', (one) => readCell(one))
  const figures = figureSlots(step, own)
  for (const slot of figures) add(slotLabel(slot), 'right', (one) => slotText(one, slot))
  if (rules.some((one) => one.expected)) {
    add(say('certificate.expected'), 'right', (one) => {
      const expected = rule(one)?.expected
      if (!expected) return null
      const value = figure(expected.value, decimals)
      return expected.uncertainty > 0 ? `${value} ±${figure(expected.uncertainty, decimals)}` : value
    })
  }
  if (rules.length > 0) add(say('certificate.limits'), 'right', (one) => bandText(rule(one), decimals))
  if (own.some((one) => one.judgement?.referred)) {
    add(say('certificate.at-stc'), 'right', (one) => {
      const referred = one.judgement?.referred
      return referred ? figure(referred.value, decimals) : null
    })
  }
  if (own.some((one) => wantsConditions(step, one.part))) {
    add('W/m²', 'right', (one) => weatherText(one, (weather) => figure(weather.irradiance_Wm2, 0)))
    add(say('certificate.cell'), 'right', (one) => weatherText(one, (weather) => figure(weather.cell.value_C, 1)))
  }
  const told = [...shared, ...figures]
  if (slots.length > 1 && !isChecklist(step) && own.some((one) => setUpText(one, facts, told)))
    add(say('certificate.set-up'), 'left', (one) => setUpText(one, facts, told))
  columns.push({
    label: say('certificate.verdict'),
    align: 'left',
    cell: (one) => ({ ...left(verdictWord(one.verdict, one.step)), verdict: one.verdict }),
  })
  add(say('certificate.notes'), 'left', (one) => rowNotes(one, facts))
  return columns
}

function readCell(one: StepEvaluation): string | null {
  const measured = one.judgement?.rule?.measured
  if (measured) return measuredText(measured)
  return one.counting ? readingText(one.step, one.counting.entry.body) || null : null
}

function weatherText(one: StepEvaluation, text: (weather: Weather) => string): string | null {
  const conditions = one.counting?.entry.body.conditions ?? null
  const module = one.part.data.kind === 'string' ? one.part.data.moduleType.data : null
  const weather = conditions && module ? weatherOf(conditions, module) : null
  return weather ? text(weather) : null
}

/** Set-up answers in which all readings of a test agree: they are said once for the table. */
function sharedSetUp(step: AnyStep, own: readonly StepEvaluation[]): Slot[] {
  const bodies = own.flatMap((one) => (one.counting ? [one.counting.entry.body] : []))
  if (bodies.length < 2) return []
  const main = mainSlot(step)
  return slotsOf(step).filter((slot) => {
    const first = bodies[0]!.slots[slot.id]
    if (slot === main || slot.kind === 'number' || slot.kind === 'check' || !first || !('choice' in first)) return false
    return bodies.every((body) => {
      const value = body.slots[slot.id]
      return value && 'choice' in value && value.choice === first.choice
    })
  })
}

const setUpWords = (slot: Slot, value: SlotValue | undefined, facts: Facts): string =>
  `${sayCode('slot', slot.id)}: ${answerText(slot, value, facts)}`

/** How a reading was taken: every answer besides its main figure and those told elsewhere, with the words beside it. */
function setUpText(one: StepEvaluation, facts: Facts, told: readonly Slot[]): string | null {
  const body = one.counting?.entry.body
  if (!body) return null
  const main = mainSlot(one.step)
  const rest = slotsOf(one.step).filter((slot) => slot !== main && !told.includes(slot) && slot.id in body.slots)
  const checks = rest.filter((slot) => slot.kind === 'check')
  const words = rest.filter((slot) => slot.kind !== 'check').map((slot) => setUpWords(slot, body.slots[slot.id], facts))
  const bad = checks.filter((slot) => !isSound(body.slots[slot.id]))
  return [...words, ...bad.map((slot) => lineText(slot, body.slots[slot.id]))].join('; ') || null
}

/** A lead set by the name it has in the kit; anything else by its own words. */
function answerText(slot: Slot, value: SlotValue | undefined, facts: Facts): string {
  if (slot.kind !== 'lead-set' || !value || !('choice' in value)) return valueText(value)
  const sets = facts.instruments.flatMap((tool) => tool.leadSets ?? [])
  return sets.find((set) => set.id === value.choice)?.name ?? value.choice
}

const isSound = (value: SlotValue | undefined): boolean =>
  value !== undefined && 'choice' in value && value.choice === CHECK_SOUND

function lineText(slot: Slot, value: SlotValue | undefined): string {
  const note = value && 'choice' in value && value.note ? ` (${value.note})` : ''
  return `${sayCode('slot', slot.id)}: ${valueText(value)}${note}`
}

function checksTable(one: StepEvaluation, title: string, facts: Facts, under: (one: StepEvaluation) => Asked): Table {
  const body = one.counting?.entry.body
  // A line that is not asked of this part is printed only where somebody answered it all the same.
  const lines = slotsOf(one.step).filter((slot) => isSlotAsked(slot, under(one)) || body?.slots[slot.id])
  const rows = lines.map((slot): Cell[] => {
    const value = body?.slots[slot.id]
    const verdict =
      one.verdict === 'left-out' ? 'left-out' : answerVerdict(value && 'choice' in value ? value.choice : null)
    const answer = valueText(value) || say(`verdict.${verdict}`)
    return [
      left(sayCode('slot', slot.id)),
      { ...left(answer), verdict },
      left(value && 'choice' in value ? (value.note ?? '') : ''),
    ]
  })
  const notes = rowNotes(one, facts)
  return {
    id: one.step.id,
    title: notes ? `${title} (${notes})` : title,
    columns: [
      { label: say('certificate.line'), align: 'left' },
      { label: say('certificate.answer'), align: 'left' },
      { label: say('certificate.notes'), align: 'left' },
    ],
    rows,
  }
}

/** Flags, the reason of what was left out, and how often it was read. */
function rowNotes(one: StepEvaluation, facts: Facts): string {
  const notes: string[] = one.flags.map((flag) => sayCode('flag', flag))
  if (one.verdict === 'left-out' && one.leftOut) {
    const who = facts.people.find((person) => person.id === one.leftOut!.personId)?.name ?? ''
    notes.push(`${one.leftOut.reason} (${who})`)
  }
  if (one.readings.length > 1) notes.push(say('certificate.times', { count: one.readings.length }))
  const note = one.counting?.entry.body.note
  if (note) notes.push(`“${note}”`)
  return notes.join('; ')
}
