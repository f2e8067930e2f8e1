/** One evaluation, from the entries to what every step comes to: own readings, sisters, states, gates, in that order. */
import type { Part } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { isPeriodicWork } from '../plant/work'
import { plantOfJob } from '../plant/projection'
import type { Entry } from '../record/entry'
import type { Facts } from '../record/facts'
import { correctedTime, inOrder } from '../record/order'
import { steps, stepsOf } from '../steps'
import { type AnyStep, isAskedOf, isRead, mayBeLeftOut, neededFor } from '../steps/step'
import type { Finding, Verdict } from '../verdict/verdict'
import { type EntryIndex, indexEntries, ofKind } from './entryIndex'
import { awaitedBy, type GateView, isHeldBack } from './gates'
import { PlantHistory } from './plantHistory'
import { NOT_NEEDED, OF_NEW_WORK, ON_NEED } from './hunts'
import { LeadNulls } from './leadNulls'
import { ownOf } from './own'
import type { Counted } from './judge'
import { OnParts } from '../plant/onParts'
import type { Own, Reader, Readers, Run } from './runOf'
import { type BySisters, SisterGroups } from './sisters'
import { mustStand, type StateId, stateIds, type States } from './states'
import { statesOf } from './placedEvents'
import { Settled } from './settled'
import { subjectsOf } from './subjects'
import { Together } from './together'
import type { Evaluation, Scope, StepEvaluation } from './types'

/** What one evaluation knows; the next one may begin with it. */
export type Whole = {
  facts: Facts
  scope: Scope
  /** The entries in order. */
  entries: readonly Entry[]
  index: EntryIndex
  parts: ReadonlyMap<string, Part>
  plant: PlantIndex
  history: PlantHistory
  nulls: LeadNulls
  /** Steps that this plant has, in working order, each with its parts. */
  asked: readonly { step: AnyStep; parts: readonly Part[] }[]
  /** What readings without light are compared with; null where there are none. */
  together: Together | null
  owns: OnParts<Own>
  /** Which steps took the reading of another into their judgement. It only grows. */
  readers: OnParts<Readers>
  sisters: SisterGroups
  bySisters: Map<string, BySisters>
  states: States
  settled: OnParts<Settled>
  /** Keys of those whose state was ended since. */
  lapsed: readonly string[]
}

/** What evaluations were made of. */
const wholes = new WeakMap<Evaluation, Whole>()
export const remember = (evaluation: Evaluation, whole: Whole): void => void wholes.set(evaluation, whole)

/** What an evaluation was made of, for what asks more of it. */
export function wholeBehind(evaluation: Evaluation): Whole {
  const whole = wholes.get(evaluation)
  if (!whole) throw new Error('wholeBehind: expected an evaluation made by evaluate')
  return whole
}

export function wholeOf(facts: Facts, scope: Scope): Whole {
  const entries = inOrder(facts.entries)
  const index = indexEntries(entries)
  const changes = ofKind(index, 'plant-change')
  const parts = plantOfJob(changes, facts.job.id)
  const plant = new PlantIndex(parts)
  const asked = stepsOf(facts.regime)
    .filter((step) => !step.where || step.where(plant))
    .map((step) => ({
      step,
      parts: plant.ofKind(step.appliesTo).filter((part) => isAskedOf(step, part, plant, facts.regime)),
    }))
  const history = new PlantHistory(changes, facts.job.id)
  const own: Omit<Whole, 'sisters' | 'bySisters' | 'states' | 'settled' | 'lapsed'> = {
    facts,
    scope,
    entries,
    index,
    parts,
    plant,
    history,
    nulls: new LeadNulls(),
    asked,
    together: null,
    owns: OnParts.empty(),
    readers: OnParts.empty(),
  }
  const run = runOf(own)
  const withSisters: Own[] = []
  for (const { step, parts: of } of asked) {
    const isCompared = isRead(step) && step.sisterGroup
    const column = own.owns.column(step.id)
    for (const part of of) {
      const one = ownOf(run, step, part)
      column.add(part.id, one)
      if (isCompared) withSisters.push(one)
    }
    if (!isRead(step) || !step.nulls) continue
    for (const part of of) own.nulls.take(step, own.owns.get(step.id, part.id)!.readings)
  }
  own.together = Together.of(withSisters, facts.regime)
  const compared = own.together ? judgedTogether(own, withSisters) : withSisters
  const sisters = SisterGroups.of(compared, facts.regime)
  const whole: Whole = {
    ...own,
    sisters,
    bySisters: sisters.outcomes(),
    states: statesOf(own),
    settled: OnParts.empty(),
    lapsed: [],
  }
  const settle = settler(whole)
  whole.settled = whole.owns.map(settle)
  const ended = lapsed(whole)
  for (const one of ended) whole.settled.set(one.step.id, one.part.id, one)
  whole.lapsed = ended.map((one) => one.key)
  return whole
}

/** Those that were read without light are judged again, beside what was read with them. */
function judgedTogether(whole: Parameters<typeof runOf>[0], owns: readonly Own[]): Own[] {
  const run = runOf(whole)
  return owns.map((one) => {
    if (!isRead(one.step) || !one.step.asRead || one.readings.length === 0) return one
    const again = ownOf(run, one.step, one.part)
    whole.owns.set(one.step.id, one.part.id, again)
    return again
  })
}

/** For steps that are judged by themselves. */
const NOBODY_ASKED: Counted = () => null

function noteReader(readers: OnParts<Readers>, step: string, partId: string, reader: Reader): void {
  const column = readers.column(step)
  const known = column.get(partId)
  const last = known?.at(-1)
  if (!known) column.add(partId, [reader])
  else if (last!.part !== reader.part || last!.step !== reader.step) known.push(reader)
}

/** What own judgements are made with; which step reads which is written down on the way. */
export function runOf({
  facts,
  scope,
  plant,
  index,
  history,
  nulls,
  together,
  owns,
  readers,
}: Pick<Whole, 'facts' | 'scope' | 'plant' | 'index' | 'history' | 'nulls' | 'together' | 'owns' | 'readers'>): Run {
  const countedFor = (of: AnyStep, part: Part): Counted => {
    if (isRead(of) && !of.readsOthers) return NOBODY_ASKED
    const reader = { step: of, part }
    return (step, partId) => {
      noteReader(readers, step, partId, reader)
      return owns.get(step, partId)?.counting?.entry.body ?? null
    }
  }
  const given = { instruments: facts.instruments, regime: facts.regime }
  return { given, scope, plant, index, history, changedAt: history.lastAt, nulls, together, countedFor }
}

/** The step on a place by whose reading its state begins. */
function beginnerOf({ owns }: Whole, state: StateId, placeId: string): string | null {
  for (const step of beginners.get(state) ?? []) if (owns.has(step, placeId)) return step
  return null
}

/** Steps that begin a state on the part that they stand on. */
const beginners: ReadonlyMap<StateId, readonly string[]> = new Map(
  stateIds.map((state) => [
    state,
    steps
      .filter(
        (step) =>
          isRead(step) && step.effects?.some((one) => one.state === state && one.does === 'begin' && one.on === 'part'),
      )
      .map((step) => step.id),
  ]),
)

/** The visit that is going on, or that is looked at. */
export const visitOf = ({ facts, scope }: Pick<Whole, 'facts' | 'scope'>): string | undefined =>
  scope.visitId ?? facts.visits.at(-1)?.id

export function gateViewOf(whole: Whole): GateView {
  return {
    facts: whole.facts,
    plant: whole.plant,
    index: whole.index,
    states: whole.states,
    met: new Map(),
    verdictOf: (step, partId) => verdictBefore(whole, step, partId),
    isReadWithoutLight: (step, partId) => isReadWithoutLight(whole.owns.get(step, partId)),
    beginnerOf: (state, placeId) => beginnerOf(whole, state, placeId),
  }
}

function isReadWithoutLight(own: Own | undefined): boolean {
  if (!own?.counting || !isRead(own.step)) return false
  return own.step.asRead?.(own.part, own.counting.entry.body) != null
}

/** The verdict of a step by its readings and sisters, or that it was left out: what a gate may wait for. */
function verdictBefore(whole: Whole, step: string, partId: string): Verdict | undefined {
  const own = whole.owns.get(step, partId)
  if (!own) return undefined
  if (isLeftOut(own, leftOutOf(own, whole.index))) return 'left-out'
  return besideSisters(whole, own)?.verdict ?? own.verdict
}

const besideSisters = ({ bySisters }: Whole, own: Own): BySisters | undefined =>
  bySisters.size > 0 ? bySisters.get(own.key) : undefined

type Need = 'none' | 'now' | 'new-work'

const SAID: Record<Need, string> = { none: NOT_NEEDED, now: ON_NEED, 'new-work': OF_NEW_WORK }

/** What is said of a hunt that nobody went on, and of what is asked of new work alone. */
const onNeed = (need: Need, { data: { tag } }: Part): Finding => ({ code: SAID[need], figures: { tag } })

/**
 * Whether there is something to hunt for: the test that a hunt belongs to is close or outside; or what the hunt found
 * was not answered by a later reading that is plainly good. Null for what is asked anyhow.
 */
function needOf(whole: Whole, { step, part, counting }: Own): Need | null {
  if (isRead(step) && step.ofNewWork && !counting && isPeriodicWork(whole.plant)) return 'new-work'
  const others = neededFor(step)
  if (others.length === 0) return null
  for (const other of others) {
    const verdict = verdictBefore(whole, other, part.id)
    if (verdict === 'outside' || verdict === 'close') return 'now'
  }
  if (!counting) return 'none'
  const isAnswered = others.some((other) => {
    const later = whole.owns.get(other, part.id)?.counting
    return later && later.at > counting.at && verdictBefore(whole, other, part.id) === 'within'
  })
  return isAnswered ? 'none' : 'now'
}

/** What somebody said who left it out; nothing where that says nothing. */
function leftOutOf({ step, part }: Own, index: EntryIndex): StepEvaluation['leftOut'] {
  const entry = index.leftOut.get(step.id, part.id)
  if (!entry || !mayBeLeftOut(step)) return null
  return { reason: entry.body.reason, personId: entry.personId, at: correctedTime(entry) }
}

const isLeftOut = ({ counting }: Own, leftOut: StepEvaluation['leftOut']): leftOut is NonNullable<typeof leftOut> =>
  leftOut !== null && (!counting || leftOut.at > counting.at)

/** Sisters, gates, left out, and what follows for the verdict. A fact is never refused because of a gate. */
export function settler(whole: Whole): (own: Own) => Settled {
  const view = gateViewOf(whole)
  const looked = { view, visitId: visitOf(whole) }
  return (own) => {
    const { step, part, counting } = own
    const beside = besideSisters(whole, own)
    const leftOut = leftOutOf(own, whole.index)
    if (isLeftOut(own, leftOut)) {
      const finding: Finding = { code: 'left-out', figures: { tag: part.data.tag, reason: leftOut.reason } }
      return new Settled(own, looked, 'left-out', finding, [], leftOut)
    }
    const need = needOf(whole, own)
    if (need === 'none' || need === 'new-work' || (need === 'now' && !counting))
      return new Settled(own, looked, 'left-out', onNeed(need, part), [], null)
    const verdict = beside?.verdict ?? own.verdict
    const said = beside?.finding ?? null
    const flags = beside?.flag ? [...own.flags, beside.flag] : own.flags
    if (!counting && isRead(step) && isHeldBack(view, step, part, looked.visitId))
      return new Settled(own, looked, 'held-back', null, flags, leftOut)
    return new Settled(own, looked, verdict, said, flags, leftOut)
  }
}

/**
 * Steps whose state was ended since: what was taken off is to be put back, and what ended with its visit is asked again
 * where anything waits for it.
 */
export function lapsed(whole: Whole): Settled[] {
  const visitId = visitOf(whole)
  const found: Settled[] = []
  let waited: Set<string> | null = null
  for (const { step, parts } of whole.asked) {
    if (!isRead(step)) continue
    for (const effect of step.effects ?? []) {
      if (effect.does !== 'begin') continue
      for (const part of parts) {
        const one = whole.settled.get(step.id, part.id)!
        if (!one.counting || !one.done || one.verdict === 'left-out') continue
        for (const place of subjectsOf(effect.on, part, whole.plant).parts) {
          const standing = whole.states.of(effect.state, place.id, visitId)
          if (standing.stands || !standing.ended) continue
          if (!mustStand.has(effect.state)) {
            waited ??= waitedFor(whole)
            if (!waited.has(one.key)) continue
          }
          const { ended } = standing
          const finding: Finding = {
            code: `lapsed.${effect.state}.${ended.by}`,
            figures: {
              tag: place.data.tag,
              step: ended.by === 'entry' ? ended.key.slice(0, ended.key.indexOf(':')) : '',
            },
          }
          found.push(one.as('not-yet', finding))
          break
        }
      }
    }
  }
  return found
}

/**
 * Keys of the steps whose state something that is still to be read waits for. What a periodic inspection read as outside is
 * a finding: it is told, and nobody reads it again before it was put right. Its gates stay as they are.
 */
function waitedFor(whole: Whole): Set<string> {
  const keys = new Set<string>()
  const view = gateViewOf(whole)
  const isPeriodic = isPeriodicWork(whole.plant)
  for (const { step, part, done, verdict } of whole.settled.all()) {
    if (done || (isPeriodic && verdict === 'outside')) continue
    for (const key of awaitedBy(view, step, part, visitOf(whole))) keys.add(key)
  }
  return keys
}
