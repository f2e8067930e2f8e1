'use client'
import { useMemo, useRef, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Watched } from '@/core/quantity/watched'
import type { LiveSample } from '@/core/record/feed'
import type { Instrument } from '@/core/record/instrument'
import { measuredBy } from '@/core/steps/measuredBy'
import type { Slot } from '@/core/steps/slot'
import { type AnyReadStep, isRead, slotsOf } from '@/core/steps/step'
import type { Flag, Verdict } from '@/core/verdict/verdict'
import { hasWords, say, sayCode, sayFinding } from '@/words/say'
import {
  answered,
  carriedInto,
  type Draft,
  type DraftState,
  emptyDraft,
  isSetUp,
  kitFor,
  obstacle,
  optionsOf,
  readDraft,
  wantsWords,
  withSample,
  withTool,
} from '../bench/draft'
import { type DraftShelf, draftShelf } from '../bench/heldDrafts'
import type { JobStore } from '../device/jobStore'
import { sharedEntries } from '../device/sharedEntries'
import { besidesFor } from '../live/liveFeed'
import { pressForAll } from '../run/pressSimulated'
import { figuresOfCell, readBlock } from './block'
import { cellRefuses, optionMeant, type Stood } from './cell'
import {
  cellAt,
  cellsOf,
  choicesFor,
  type Column,
  type Row,
  type SetUp,
  setUpSlots,
  stepsInGrid,
  underOf,
} from './model'
import { useStable } from './useStable'

export type Drafts = Readonly<Record<string, Draft>>
/** What a draft comes to: its verdict and sentence, and whether it may be kept as it stands. */
export type Saying = {
  verdict: Verdict
  /** The sentence on it; null while it goes on. */
  said: string | null
  mayKeep: boolean
  /** What is said of the reading besides. */
  flags?: readonly Flag[]
  /** What must be confirmed before it is kept. */
  ask?: string
  /** A figure that could be two: which one was meant. */
  either?: { slot: Slot; texts: readonly string[] }
}

/** How each test was set up last in this visit, else the first sound answer; what must be said by somebody stays open. */
function usualSetUp(steps: readonly AnyReadStep[], rows: readonly Row[], evaluation: Evaluation): SetUp {
  const { facts } = evaluation
  const ofStep = (step: AnyReadStep): Record<string, string> => {
    const one = evaluation.steps.find((other) => other.step === step)
    const last = one ? carriedInto(one, evaluation.steps, facts.visits.at(-1)?.id).choices : {}
    return Object.fromEntries(
      setUpSlots(step, rows, underOf(evaluation)).flatMap((slot) => {
        const options = optionsOf(slot, facts)
        const mayBeUsual = slot.kind !== 'choice' || (!slot.stated && !slot.optional)
        const first = mayBeUsual ? (options.find((one) => one.sound) ?? options[0]) : undefined
        const usual = last[slot.id] ?? first?.id
        return usual ? [[slot.id, usual]] : []
      }),
    )
  }
  return Object.fromEntries(steps.map((step) => [step.id, ofStep(step)]))
}

/** What was typed here or begun on the bench, of the tests that the grid has. */
function heldIn(shelf: DraftShelf, evaluation: Evaluation): Drafts {
  const steps = new Set(stepsInGrid(evaluation))
  return Object.fromEntries(
    [...shelf.begun()].flatMap((key) => {
      const one = evaluation.byKey.get(key)
      const held = one && isRead(one.step) && steps.has(one.step) ? shelf.of(one) : null
      return held ? [[key, held.draft]] : []
    }),
  )
}

type Asked = {
  store: JobStore
  evaluation: Evaluation
  steps: readonly AnyReadStep[]
  rows: readonly Row[]
  canWrite: boolean
}

/** How a job's grid is set up while somebody looks at another screen: answers for all rows, the chosen tester. */
type Shelf = { chosen: SetUp; toolId: string | null }
const shelves = new WeakMap<JobStore, Shelf>()

export type Schedule = ReturnType<typeof useSchedule>

/** Filling the schedule: what is typed waits as a draft, and is kept once all figures of its test are there. */
export function useSchedule({ store, evaluation, steps, rows, canWrite }: Asked) {
  const { facts } = evaluation
  const [shelf] = useState(() => shelves.get(store))
  const visitId = facts.visits.at(-1)?.id
  const waiting = useMemo(() => draftShelf(store.me.id, store.jobId, visitId), [store, visitId])
  const [drafts, setDrafts] = useState<Drafts>(() => heldIn(waiting, evaluation))
  const [chosen, setChosen] = useState<SetUp>(shelf?.chosen ?? {})
  const [toolId, setToolId] = useState<string | null>(shelf?.toolId ?? null)
  const [said, setSaid] = useState<string | null>(null)
  const asked = useMemo(() => {
    const usual = usualSetUp(steps, rows, evaluation)
    return Object.fromEntries(steps.map((step) => [step.id, { ...usual[step.id], ...chosen[step.id] }]))
  }, [steps, rows, evaluation, chosen])
  const setUp = useStable(asked, (a, b) => JSON.stringify(a) === JSON.stringify(b))
  const latest = useRef(drafts)
  latest.current = drafts
  const own = useRef(new Set<string>())
  shelves.set(store, { chosen, toolId })

  /** The instrument that reads a test: the chosen one where it can, else the first of the kit that does. */
  const toolFor = (one: StepEvaluation): Instrument | null => {
    const kit = kitFor(evaluation, one, measuredBy(one.step), Date.now())
    return kit.find((tool) => tool.id === toolId) ?? kit[0] ?? null
  }

  const blank = (one: StepEvaluation): Draft =>
    emptyDraft(toolFor(one)?.id ?? null, {
      choices: choicesFor(one.step as AnyReadStep, one.part, underOf(evaluation), setUp),
      notes: {},
    })

  const put = (one: StepEvaluation, next: Draft | null): void => {
    const all = { ...latest.current }
    if (next) all[one.key] = next
    else delete all[one.key]
    latest.current = all
    setDrafts(all)
    waiting.put(one, next)
  }

  /** Whatever waits and can be read with it is its own from now on. */
  const chooseTool = (id: string): void => {
    setToolId(id)
    for (const [key, draft] of Object.entries(latest.current)) {
      const one = evaluation.byKey.get(key)
      if (one && kitFor(evaluation, one, measuredBy(one.step), Date.now()).some((tool) => tool.id === id))
        put(one, withTool(draft, id))
    }
  }

  const isBlank = (one: StepEvaluation, draft: Draft): boolean =>
    cellsOf(one.step as AnyReadStep, one.part, underOf(evaluation), setUp).every(
      (slot) => !(slot.kind === 'number' ? draft.texts[slot.id]?.trim() : draft.choices[slot.id]),
    )

  /** A text at a figure; empty takes back what was typed there. */
  const write = (one: StepEvaluation, slot: Slot, typed: string): void => {
    const before = latest.current[one.key] ?? blank(one)
    const { [slot.id]: _, ...hows } = before.hows
    const next: Draft = { ...before, hows, started: true, confirmed: [] }
    if (slot.kind === 'number') next.texts = { ...before.texts, [slot.id]: typed }
    else {
      const choice = optionMeant(slot, typed, facts)
      if (choice) Object.assign(next, answered(before, slot.id, choice))
      else {
        next.choices = { ...before.choices }
        delete next.choices[slot.id]
      }
    }
    setSaid(null)
    put(one, isBlank(one, next) ? null : next)
  }

  /** The few words beside a line that is not as it should be. */
  const note = (one: StepEvaluation, slot: Slot, words: string): void => {
    const before = latest.current[one.key]
    if (before) put(one, { ...before, notes: { ...before.notes, [slot.id]: words } })
  }

  const judged = (one: StepEvaluation, draft: Draft): Saying => sayingOf(stood(one, draft), one, draft)
  const stood = (one: StepEvaluation, draft: Draft): DraftState => readDraft(draft, one, evaluation, null)
  const sayingOf = (state: DraftState, one: StepEvaluation, draft: Draft): Saying => {
    const waiting = (verdict: Verdict, said: string | null): Saying => ({ verdict, said, mayKeep: false })
    if (!state.judged) return waiting('not-yet', null)
    const { verdict, finding, mayKeep, check } = state.judged
    if (verdict === 'held-back') return waiting(verdict, sayFinding(finding))
    const cells = cellsOf(one.step as AnyReadStep, one.part, underOf(evaluation), setUp)
    for (const slot of cells) {
      const parsed = state.parsed[slot.id]
      if (parsed?.state !== 'ask') continue
      const texts = parsed.choices.map((one) => String(one.value))
      const [decimal, thousand] = texts as [string, string]
      const said = say('refused.thousand-or-decimal', { text: draft.texts[slot.id] ?? '', decimal, thousand })
      return { ...waiting('not-yet', said), either: { slot, texts } }
    }
    const wordless = cells.find((slot) => wantsWords(slot, draft))
    if (wordless) return waiting('not-yet', say('schedule.say-why', { what: sayCode('slot', wordless.id) }))
    const [unread] = cells.flatMap((slot) => obstacle(state, slot) ?? [])
    if (unread !== undefined) return waiting('held-back', unread)
    if (state.check?.state === 'refused')
      return waiting('held-back', sayCode('refused', state.check.code, state.check.figures))
    if (!state.body) return waiting('not-yet', null)
    const unsaid = state.open.find((slot) => isSetUp(slot))
    if (unsaid && state.open.every((slot) => isSetUp(slot)))
      return waiting('not-yet', say('schedule.say-above', { what: sayCode('slot', unsaid.id).toLowerCase() }))
    if (mayKeep && check.state === 'ask')
      return { ...waiting('held-back', sayCode('ask', check.code, check.figures)), ask: check.code }
    return { verdict, said: sayFinding(finding), mayKeep, flags: state.judged.flags }
  }

  /** Whether somebody may go on from what stands there now: nothing of it is outside, or asked about. */
  const mayGoOn = (one: StepEvaluation): boolean => {
    const draft = latest.current[one.key]
    if (!draft) return false
    const { verdict, either, ask } = judged(one, draft)
    return verdict !== 'outside' && !either && !ask
  }

  /** How a test stands for its cells: as far as it is typed, with what that comes to. */
  const stoodAt = (one: StepEvaluation): Stood => {
    const draft = drafts[one.key]
    if (!draft) return { draft, state: null, judged: null }
    const state = stood(one, draft)
    const { judged } = state
    return {
      draft,
      state,
      judged: judged && {
        verdict: judged.verdict,
        judgement: judged.judgement,
        isWhole: judged.missing.length === 0 && state.body !== null,
      },
    }
  }

  /** Keeps a test whose figures are all there; anything else waits. */
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

  /** A figure that an instrument shows stands there as if it had been typed. @param points what it showed on the way */
  const take = (one: StepEvaluation, slot: Slot, sample: LiveSample, points: Watched | null): void => {
    const standIn = facts.instruments.find((tool) => tool.id === sample.instrumentId)?.standIn ?? false
    setSaid(null)
    put(one, withSample(latest.current[one.key] ?? blank(one), slot, sample, standIn, points))
  }
  /** Whether the feed tells again what was pressed for here. */
  const isOwn = (sample: LiveSample): boolean => own.current.has(nameOf(sample))

  /** Presses the simulated instrument for a figure, which stands there as if it had been typed. @returns whether it does */
  const press = async (one: StepEvaluation, slot: Slot): Promise<boolean> => {
    const tool = toolFor(one)
    if (!tool?.standIn || !slot.measures || !canWrite) return false
    const before = latest.current[one.key] ?? blank(one)
    const pressed = await pressForAll(store, facts, evaluation, one, {
      measures: slot.measures,
      setting: { step: one.step.id, slot: slot.id, choices: before.choices },
      instrumentId: tool.id,
    })
    if (typeof pressed === 'string') {
      setSaid(pressed)
      return false
    }
    for (const sample of pressed) {
      own.current.add(nameOf(sample))
      const other = besidesFor(slotsOf(one.step), sample)
      if (other) take(one, other, sample, null)
    }
    take(one, slot, pressed.at(-1)!, null)
    return true
  }

  /** Takes a block from a spreadsheet, whole or not at all; a test that is whole by then is kept. @returns what it asks about */
  const paste = async (
    text: string,
    columns: readonly Column[],
    at: { row: number; column: number },
  ): Promise<{ row: number; column: number; slot: number } | null> => {
    const refuse = (sentence: string): null => {
      setSaid(sentence)
      return null
    }
    const block = readBlock(text, { columns: columns.length - at.column, rows: rows.length - at.row })
    if ('refused' in block) return refuse(say(`schedule.${block.refused}`, block.figures))
    const writes: {
      one: StepEvaluation
      slot: Slot
      text: string
      place: { row: number; column: number; slot: number }
    }[] = []
    for (const [r, line] of block.cells.entries()) {
      for (const [c, text] of line.entries()) {
        if (text === '') continue
        const row = rows[at.row + r]!
        const column = columns[at.column + c]!
        const where = { row: row.part.data.tag, column: columnName(column), text }
        const cell = cellAt(row, column, underOf(evaluation), setUp)
        if (cell.is !== 'asked') return refuse(say('schedule.block-refused', where))
        // What waits is not read yet: kept later it would say that it was read then.
        const { shut } = cell.one
        if (shut?.hard) return refuse(say('schedule.block-waits', { ...where, why: sayFinding(shut.finding) }))
        const figures = figuresOfCell(text, cell.slots.length)
        if (!figures) return refuse(say('schedule.block-several', { ...where, count: cell.slots.length }))
        for (const [k, slot] of cell.slots.entries()) {
          if (cellRefuses(slot, figures[k]!, facts)) return refuse(say('schedule.block-refused', where))
          if (figures[k] !== '') {
            const place = { row: at.row + r, column: at.column + c, slot: k }
            writes.push({ one: cell.one, slot, text: figures[k]!, place })
          }
        }
      }
    }
    for (const { one, slot, text } of writes) write(one, slot, text)
    for (const one of new Set(writes.map((write) => write.one))) await keep(one)
    const waiting = writes.filter(({ one }) => latest.current[one.key])
    const some = waiting.length > 0
    setSaid(say(some ? 'schedule.pasted-some' : 'schedule.pasted', { count: writes.length, waiting: waiting.length }))
    const asked = waiting.find(({ one, slot }) => judged(one, latest.current[one.key]!).either?.slot === slot)
    return asked?.place ?? null
  }

  const choose = (step: AnyReadStep, slot: string, choice: string): void => {
    setChosen((before) => ({ ...before, [step.id]: { ...before[step.id], [slot]: choice } }))
    // What waits is judged as it is set up now, and is not lost.
    for (const [key, draft] of Object.entries(latest.current)) {
      const one = evaluation.byKey.get(key)
      if (one?.step === step) put(one, { ...draft, ...answered(draft, slot, choice) })
    }
  }

  return {
    drafts,
    setUp,
    said,
    setSaid,
    write,
    note,
    keep,
    confirm,
    press,
    take,
    isOwn,
    paste,
    choose,
    judged,
    mayGoOn,
    stoodAt,
    toolFor,
    chooseTool,
  }
}

const nameOf = ({ instrumentId, quantity, at }: LiveSample): string => `${instrumentId} ${quantity} ${at}`

/** A test as the schedule names it. */
export const testName = (step: AnyReadStep): string =>
  hasWords(`column.${step.id}`) ? sayCode('column', step.id) : sayCode('step', `${step.id}.short`)

/** A column as people say it: its test, and its heading where the test has several. */
export function columnName({ step, heading }: Column): string {
  const test = testName(step)
  return heading.id === step.id ? test : `${test}, ${sayCode('column', heading.id)}`
}
