/** What a reading would come to if it were kept now: the same judgement, gates and questions for every door. */
import type { Part } from '../plant/part'
import { checkReading, type ReadingCheck } from '../record/doubts'
import type { Body, Conditions, Entry } from '../record/entry'
import { correctedTime } from '../record/order'
import type { Beside } from '../steps/beside'
import type { ReadWithoutLight } from '../steps/reading'
import { choicesOf, type Slot, missingSlots, slotsAsked } from '../steps/slot'
import { type AnyReadStep, isRead, type Reading, type StepContext, wantsConditions } from '../steps/step'
import type { Judgement } from '../verdict/judgement'
import type { Finding, Flag, Verdict } from '../verdict/verdict'
import { judgeEntry } from './counting'
import { contextOf, judgeStep, readingOf, trapOf } from './judge'
import { joiningTrap } from './kitGate'
import { runOf, type Whole, wholeBehind } from './run'
import type { Evaluation, GateState, StepEvaluation } from './types'

export type DraftEvaluation = {
  judgement: Judgement
  /** With gates, traps, and what is missing still. */
  verdict: Verdict
  finding: Finding
  flags: readonly Flag[]
  /** The first gate that is shut, null where none is. */
  shut: GateState | null
  /** What is wrong with the set-up, whatever is read. */
  trap: Finding | null
  /** What wants an answer still. */
  missing: readonly Slot[]
  /** What must be refused or asked about; fine where nothing is. */
  check: ReadingCheck
  /** Whole, not refused, and no trap: it may be kept, once what is asked was confirmed. */
  mayKeep: boolean
}

/** What a step is judged in, in an evaluation that is whole. */
export function contextIn(
  evaluation: Evaluation,
  one: Pick<StepEvaluation, 'step' | 'part'>,
  reading: Partial<Reading> | null,
  /** When it was taken, ms; as late as the last entry where nothing is said. */
  at?: number,
): StepContext {
  const whole = wholeBehind(evaluation)
  const counted = (step: string, partId: string): Body<'reading'> | null =>
    whole.owns.get(step, partId)?.counting?.entry.body ?? null
  const { slots = {}, conditions = null, instrument = null, how = 'typed', v, air } = reading ?? {}
  const known = { slots, conditions, instrument, how, ...(v ? { v } : {}), ...(air ? { air } : {}) }
  const beside = besideOf(whole, one, known, at)
  return contextOf(one.step, one.part, whole.plant, whole.facts, counted, { ...known, ...(beside ? { beside } : {}) })
}

/** What stands beside a draft that is taken without a light meter. */
function besideOf(
  { together, entries }: Whole,
  { step, part }: Pick<StepEvaluation, 'step' | 'part'>,
  reading: ReadWithoutLight,
  at: number | undefined,
): Beside | null {
  if (!together || !isRead(step)) return null
  const last = entries.at(-1)
  return together.beside(step, part, reading, at ?? (last ? correctedTime(last) : 0))
}

/** What one figure comes to by itself, however much besides is asked. */
export function judgeFigure(evaluation: Evaluation, one: StepEvaluation, slots: Body<'reading'>['slots']): Judgement {
  return one.step.judge(contextIn(evaluation, one, { slots }))
}

/**
 * What a test is held against before anything is read: judged with a nought in its main figure, of which the scale and
 * the limits alone say anything. Null where it has no figure, or where that needs light which is not known.
 */
export function heldAgainst(
  evaluation: Evaluation,
  one: StepEvaluation,
  conditions: Conditions | null,
): Pick<Judgement, 'rule' | 'limits'> | null {
  const { step } = one
  if (!isRead(step) || (wantsConditions(step, one.part) && !conditions)) return null
  const figures = slotsAsked(step, { part: one.part, regime: evaluation.facts.regime, plant: evaluation.plant }).filter(
    isFigure,
  )
  const slot = figures.find(({ optional }) => !optional) ?? figures[0]
  if (!slot) return null
  const nought = { [slot.id]: { text: '0', value: 0, bound: 'exact' as const, unit: slot.unit } }
  return evaluateDraft(evaluation, one, { ...NOTHING_READ, slots: nought, conditions }).judgement
}

const isFigure = (slot: Slot): slot is Extract<Slot, { kind: 'number' }> => slot.kind === 'number'

const NOTHING_READ: Body<'reading'> = {
  kind: 'reading',
  v: 2,
  slots: {},
  conditions: null,
  how: 'typed',
  instrument: null,
  place: null,
  plantRevision: '',
  confirmed: [],
  note: null,
}

/**
 * @param body as it would be kept.
 * @param at when it is taken, ms; as late as the last entry where nothing is said.
 */
export function evaluateDraft(
  evaluation: Evaluation,
  one: StepEvaluation,
  body: Body<'reading'>,
  at?: number,
): DraftEvaluation {
  const { step, part } = one
  if (!isRead(step)) throw new Error(`evaluateDraft: expected a step that is read, got ${step.id}`)
  const whole = wholeBehind(evaluation)
  const context = contextIn(evaluation, one, body, at)
  const joined = 1 + (step.sharedWith?.(context).length ?? 0)
  const trap = trapOf(step, context) ?? joiningTrap(step, part, choicesOf(body), joined, evaluation)
  const { check, missing } = checkBody(evaluation, { step, part }, body)
  // Nothing was changed since: it is taken now.
  const run = { ...runOf(whole), changedAt: Number.NEGATIVE_INFINITY }
  const judging = { step, part, counted: context.counted }
  const kept = judgeEntry(run, judging, entryOf(evaluation, one, body, at))
  const shut = one.shut
  // A hard gate and a wrong set-up hold it back whatever is read; a soft gate as long as nothing is.
  const heldBack = trap ?? (shut && (shut.hard || kept.verdict === 'not-yet') ? shut.finding : null)
  return {
    judgement: kept.judgement,
    verdict: heldBack ? 'held-back' : kept.verdict,
    finding: heldBack ?? kept.judgement.finding,
    flags: shut ? [...kept.flags, 'while-held-back'] : kept.flags,
    shut,
    trap,
    missing,
    check,
    mayKeep: trap === null && missing.length === 0 && check.state !== 'refused' && Object.keys(body.slots).length > 0,
  }
}

/** What a door asks of a reading before it is kept: what must be refused or asked about, and what is missing. */
export function checkBody(
  evaluation: Evaluation,
  { step, part }: { step: AnyReadStep; part: Part },
  body: Body<'reading'>,
): { check: ReadingCheck; missing: readonly Slot[] } {
  const context = contextIn(evaluation, { step, part }, body)
  return { check: checkReading(step, context, body), missing: missingSlots(step, body, context) }
}

/** A draft as the entry that it would be: of the visit that is going on, and later than all others. */
function entryOf(
  { facts }: Evaluation,
  { step, part }: StepEvaluation,
  body: Body<'reading'>,
  at_ms: number | undefined,
): Entry<'reading'> {
  const last = facts.entries.at(-1)?.deviceTime ?? facts.visits[0]!.startsAt
  const at = body.conditions?.at ?? (at_ms === undefined ? last : new Date(at_ms).toISOString())
  return {
    id: 'draft',
    jobId: facts.job.id,
    visitId: facts.visits.at(-1)!.id,
    partId: part.id,
    step: step.id,
    deviceTime: at,
    clockOffset_ms: 0,
    personId: '',
    receivedAt: null,
    body,
  }
}

/** The judgement of a reading by itself, as it is kept: what an import, a door and the command line ask. */
export function judgeBody(
  evaluation: Evaluation,
  one: Pick<StepEvaluation, 'step' | 'part'>,
  body: Body<'reading'>,
): Judgement {
  return judgeStep(one.step, contextIn(evaluation, one, readingOf(body)))
}

/** What a reading is kept as on other parts that it speaks for: the same, without what those are not asked. */
export function sharedReadings(
  evaluation: Evaluation,
  one: StepEvaluation,
  body: Body<'reading'>,
): { part: Part; body: Body<'reading'> }[] {
  const { step } = one
  if (!isRead(step)) return []
  const others = step.sharedWith?.(contextIn(evaluation, one, body)) ?? []
  const { plant, facts } = evaluation
  return others.map((part) => {
    const asked = new Set(slotsAsked(step, { part, plant, regime: facts.regime }).map((slot) => slot.id))
    const slots = Object.fromEntries(Object.entries(body.slots).filter(([id]) => asked.has(id)))
    return { part, body: { ...body, slots, plantRevision: part.revision } }
  })
}
