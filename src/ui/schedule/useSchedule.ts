'use client'
import { useMemo, useRef, useState } from 'react'
import { sharedEntries } from '../device/sharedEntries'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Facts } from '@/core/record/facts'
import type { Slot } from '@/core/steps/slot'
import type { AnyReadStep } from '@/core/steps/step'
import { measuredBy } from '@/core/steps/measuredBy'
import type { Verdict } from '@/core/verdict/verdict'
import { say, sayCode, sayFinding } from '@/words/say'
import {
  carriedInto,
  type Draft,
  type DraftState,
  emptyDraft,
  isSetUp,
  kitFor,
  obstacle,
  optionsOf,
  readDraft,
  withSample,
} from '../bench/draft'
import type { JobStore } from '../device/jobStore'
import { pressSimulated } from '../run/pressSimulated'
import { cellRefuses, optionMeant } from './cell'
import { cellsOf, choicesFor, type Column, type Row, type SetUp, setUpSlots } from './model'
import { readBlock } from './paste'
import { useStable } from './useStable'

export type Drafts = Readonly<Record<string, Draft>>
/** What a draft comes to: its verdict and sentence, and whether it may be kept as it stands. */
export type Judged = {
  verdict: Verdict
  /** The sentence on it; null while it goes on. */
  said: string | null
  mayKeep: boolean
  /** What must be confirmed before it is kept. */
  ask?: string
}

/** How each test was set up last in this visit, else the first sound answer; what must be said by somebody stays open. */
function usualSetUp(steps: readonly AnyReadStep[], rows: readonly Row[], evaluation: Evaluation): SetUp {
  const { facts } = evaluation
  const ofStep = (step: AnyReadStep): Record<string, string> => {
    const one = evaluation.steps.find((other) => other.step === step)
    const last = one ? carriedInto(one, evaluation.steps, facts.visits.at(-1)?.id).choices : {}
    return Object.fromEntries(
      setUpSlots(step, rows, facts.regime).flatMap((slot) => {
        const options = optionsOf(slot, facts)
        const first =
          slot.kind === 'choice' && slot.stated ? undefined : (options.find((one) => one.sound) ?? options[0])
        const usual = last[slot.id] ?? first?.id
        return usual ? [[slot.id, usual]] : []
      }),
    )
  }
  return Object.fromEntries(steps.map((step) => [step.id, ofStep(step)]))
}

type Asked = {
  store: JobStore
  facts: Facts
  evaluation: Evaluation
  steps: readonly AnyReadStep[]
  rows: readonly Row[]
  canWrite: boolean
}

/** What waits half-filled in a job's grids, while somebody looks at another screen. */
const shelves = new WeakMap<JobStore, Map<string, Drafts>>()
function shelfOf(store: JobStore): Map<string, Drafts> {
  const known = shelves.get(store) ?? new Map<string, Drafts>()
  shelves.set(store, known)
  return known
}

/** Filling the schedule: what is typed waits as a draft, and is kept once all cells of its test are there. */
export function useSchedule({ store, facts, evaluation, steps, rows, canWrite }: Asked) {
  const shelf = shelfOf(store)
  const own = steps.map((step) => step.id).join(' ')
  const [drafts, setDrafts] = useState<Drafts>(() => shelf.get(own) ?? {})
  const [chosen, setChosen] = useState<SetUp>({})
  const [said, setSaid] = useState<string | null>(null)
  const asked = useMemo(() => {
    const usual = usualSetUp(steps, rows, evaluation)
    return Object.fromEntries(steps.map((step) => [step.id, { ...usual[step.id], ...chosen[step.id] }]))
  }, [steps, rows, evaluation, chosen])
  const setUp = useStable(asked, (a, b) => JSON.stringify(a) === JSON.stringify(b))
  const latest = useRef(drafts)
  latest.current = drafts
  shelf.set(own, drafts)

  const toolOf = (one: StepEvaluation): string | null =>
    kitFor(evaluation, one, measuredBy(one.step), Date.now())[0]?.id ?? null

  const blank = (one: StepEvaluation): Draft =>
    emptyDraft(toolOf(one), { choices: choicesFor(one.step as AnyReadStep, one.part, facts.regime, setUp), notes: {} })

  const put = (one: StepEvaluation, next: Draft | null): void => {
    const all = { ...latest.current }
    if (next) all[one.key] = next
    else delete all[one.key]
    latest.current = all
    setDrafts(all)
  }

  /** A text in a cell; empty takes back what was typed there. */
  const write = (one: StepEvaluation, slot: Slot, typed: string): void => {
    const before = latest.current[one.key] ?? blank(one)
    const { [slot.id]: _, ...hows } = before.hows
    const next: Draft = { ...before, hows, started: true, confirmed: [] }
    if (slot.kind === 'number') next.texts = { ...before.texts, [slot.id]: typed }
    else {
      const choice = optionMeant(slot, typed, facts)
      next.choices = { ...before.choices }
      if (choice) next.choices[slot.id] = choice
      else delete next.choices[slot.id]
    }
    put(one, isBlank(one, next) ? null : next)
  }

  const isBlank = (one: StepEvaluation, draft: Draft): boolean =>
    cellsOf(one.step as AnyReadStep, one.part, facts.regime, setUp).every(
      (slot) => !(slot.kind === 'number' ? draft.texts[slot.id]?.trim() : draft.choices[slot.id]),
    )

  const judged = (one: StepEvaluation, draft: Draft): Judged => {
    const state = readDraft(draft, one, evaluation, null)
    const waiting = (verdict: Verdict, said: string | null): Judged => ({ verdict, said, mayKeep: false })
    if (!state.judged) return waiting('not-yet', null)
    const { verdict, finding, mayKeep, check } = state.judged
    if (verdict === 'held-back') return waiting(verdict, sayFinding(finding))
    if (state.check?.state === 'refused')
      return waiting('held-back', sayCode('refused', state.check.code, state.check.figures))
    const cells = cellsOf(one.step as AnyReadStep, one.part, facts.regime, setUp)
    const [unread] = cells.flatMap((slot) => unreadable(state, slot) ?? [])
    if (unread !== undefined) return waiting('held-back', unread)
    if (!state.body) return waiting('not-yet', null)
    const isWhole = state.open.every((slot) => isSetUp(slot))
    const [unsaid] = state.open
    if (unsaid && isWhole)
      return waiting('not-yet', say('schedule.say-above', { what: sayCode('slot', unsaid.id).toLowerCase() }))
    if (mayKeep && check.state === 'ask')
      return { ...waiting('held-back', sayCode('ask', check.code, check.figures)), ask: check.code }
    return { verdict, said: sayFinding(finding), mayKeep }
  }

  /** Keeps a test whose cells are all there; anything else waits. */
  const keep = async (one: StepEvaluation): Promise<void> => {
    const draft = latest.current[one.key]
    if (!draft || !canWrite || !judged(one, draft).mayKeep) return
    const { body } = readDraft(draft, one, evaluation, null)
    put(one, null)
    if (!body) return
    const own = { body, about: { partId: one.part.id, step: one.step.id } }
    if (!(await store.addAll([own, ...sharedEntries(evaluation, one, body)]))) put(one, draft)
  }

  /** It is so: what was asked about is kept as it stands. */
  const confirm = (one: StepEvaluation, code: string): Promise<void> => {
    const draft = latest.current[one.key]
    if (draft) put(one, { ...draft, confirmed: [...draft.confirmed, code] })
    return keep(one)
  }

  /** Presses the simulated instrument for a cell; what it shows stands there as if it had been typed. */
  const press = async (one: StepEvaluation, slot: Slot): Promise<void> => {
    const instrumentId = toolOf(one)
    if (!instrumentId || !slot.measures || !canWrite) return
    const before = latest.current[one.key] ?? blank(one)
    const pressed = await pressSimulated(store, facts, evaluation, one, {
      measures: slot.measures,
      setting: { step: one.step.id, slot: slot.id, choices: before.choices },
      instrumentId,
    })
    if (typeof pressed === 'string') return setSaid(pressed)
    setSaid(null)
    const standIn = facts.instruments.find((tool) => tool.id === instrumentId)?.standIn ?? false
    put(one, withSample(latest.current[one.key] ?? blank(one), slot, pressed, standIn))
  }

  /** Takes a block from a spreadsheet, whole or not at all; what is whole by then is kept. */
  const paste = async (
    text: string,
    columns: readonly Column[],
    at: { row: number; column: number },
  ): Promise<void> => {
    const block = readBlock(text, { columns: columns.length - at.column, rows: rows.length - at.row })
    if ('refused' in block) return setSaid(say(`schedule.${block.refused}`, block.figures))
    const touched = new Map<string, StepEvaluation>()
    const writes: { one: StepEvaluation; slot: Slot; text: string }[] = []
    for (const [r, line] of block.cells.entries()) {
      for (const [c, cell] of line.entries()) {
        if (cell === '') continue
        const { step, slot } = columns[at.column + c]!
        const row = rows[at.row + r]!
        const one = row.byStep.get(step)
        const isAsked = one && cellsOf(step, row.part, facts.regime, setUp).includes(slot)
        const refused = isAsked ? cellRefuses(slot, cell, facts) : 'cell-not-asked'
        if (refused || !one) {
          const where = { row: row.part.data.tag, column: sayCode('slot', slot.id), text: cell }
          return setSaid(say('schedule.block-refused', where))
        }
        writes.push({ one, slot, text: cell })
        touched.set(one.key, one)
      }
    }
    for (const { one, slot, text } of writes) write(one, slot, text)
    for (const one of touched.values()) await keep(one)
    setSaid(say('schedule.pasted', { count: writes.length }))
  }

  const choose = (step: AnyReadStep, slot: string, choice: string): void => {
    setChosen((before) => ({ ...before, [step.id]: { ...before[step.id], [slot]: choice } }))
    // What waits is judged as it is set up now, and is not lost.
    latest.current = Object.fromEntries(
      Object.entries(latest.current).map(([key, draft]) =>
        key.startsWith(`${step.id}:`)
          ? [key, { ...draft, choices: { ...draft.choices, [slot]: choice } }]
          : [key, draft],
      ),
    )
    setDrafts(latest.current)
  }

  return { drafts, setUp, said, setSaid, write, keep, confirm, press, paste, choose, judged, toolOf }
}

/** The sentence on a figure that cannot be read, or that could be two; null where it can. */
function unreadable(state: DraftState, slot: Slot): string | null {
  const parsed = state.parsed[slot.id]
  if (parsed?.state === 'ask') return say('schedule.two-figures', { text: parsed.choices[0].text })
  return obstacle(state, slot)
}
