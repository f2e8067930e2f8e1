/** One evaluation, from the entries to what every step comes to: own readings, sisters, states, gates, in that order. */
import type { Part } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { plantOfJob } from '../plant/projection'
import type { Body, Entry } from '../record/entry'
import type { Facts } from '../record/facts'
import { correctedTime, inOrder } from '../record/order'
import { steps, stepsOf } from '../steps'
import { type AnyStep, isAskedOf, isRead, mayBeLeftOut } from '../steps/step'
import type { Finding, Verdict } from '../verdict/verdict'
import { type EntryIndex, indexEntries } from './entryIndex'
import { type GateView, isHeldBack } from './gates'
import { PlantHistory } from './plantHistory'
import { NOT_NEEDED, ON_NEED } from './hunts'
import { LeadNulls } from './leadNulls'
import { ownOf } from './own'
import type { Own, Run } from './runOf'
import { type BySisters, SisterGroups } from './sisters'
import { mustStand, type StateId, stateIds, type States } from './states'
import { statesOf } from './placedEvents'
import { Settled } from './settled'
import { stepKey } from './stepKey'
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
  /** By step, then by part: no key is put together for a look. */
  owns: Map<string, Map<string, Own>>
  /** Which steps took the reading of another into their judgement: key read, keys that read it. It only grows. */
  readers: Map<string, Set<string>>
  sisters: SisterGroups
  bySisters: Map<string, BySisters>
  states: States
  settled: Map<string, Settled>
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
  const parts = plantOfJob(entries, facts.job.id)
  const plant = new PlantIndex(parts)
  const asked = stepsOf(facts.regime)
    .filter((step) => !step.where || step.where(plant))
    .map((step) => ({
      step,
      parts: plant.ofKind(step.appliesTo).filter((part) => isAskedOf(step, part, plant, facts.regime)),
    }))
  const history = new PlantHistory(entries, facts.job.id)
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
    owns: new Map(),
    readers: new Map(),
  }
  const run = runOf(own)
  const withSisters: Own[] = []
  for (const { step, parts: of } of asked) {
    const ofStep = new Map<string, Own>()
    own.owns.set(step.id, ofStep)
    for (const part of of) ofStep.set(part.id, ownOf(run, step, part))
    if (!isRead(step)) continue
    if (step.nulls) for (const one of ofStep.values()) own.nulls.take(step, one.readings)
    if (step.sisterGroup) withSisters.push(...ofStep.values())
  }
  own.together = Together.of(withSisters, facts.regime)
  const compared = own.together ? judgedTogether(own, withSisters) : withSisters
  const sisters = SisterGroups.of(compared, facts.regime)
  const whole: Whole = {
    ...own,
    sisters,
    bySisters: sisters.outcomes(),
    states: statesOf(own),
    settled: new Map(),
    lapsed: [],
  }
  const settle = settler(whole)
  for (const ofStep of whole.owns.values()) for (const own of ofStep.values()) whole.settled.set(own.key, settle(own))
  const ended = lapsed(whole)
  for (const one of ended) whole.settled.set(one.key, one)
  whole.lapsed = ended.map((one) => one.key)
  return whole
}

/** Those that were read without light are judged again, beside what was read with them. */
function judgedTogether(whole: Parameters<typeof runOf>[0], owns: readonly Own[]): Own[] {
  const run = runOf(whole)
  return owns.map((one) => {
    if (!isRead(one.step) || !one.step.asRead || one.readings.length === 0) return one
    const again = ownOf(run, one.step, one.part)
    whole.owns.get(one.step.id)!.set(one.part.id, again)
    return again
  })
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
  const countedFor =
    (reader: string) =>
    (step: string, partId: string): Body<'reading'> | null => {
      const key = stepKey(step, partId)
      const known = readers.get(key)
      if (known) known.add(reader)
      else readers.set(key, new Set([reader]))
      return owns.get(step)?.get(partId)?.counting?.entry.body ?? null
    }
  const given = { instruments: facts.instruments, regime: facts.regime }
  return { given, scope, plant, index, history, nulls, together, countedFor }
}

/** The step on a place by whose reading its state begins. */
function beginnerOf({ owns }: Whole, state: StateId, placeId: string): string | null {
  for (const step of beginners.get(state) ?? []) if (owns.get(step)?.has(placeId)) return step
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
    verdictOf: (step, partId) => verdictBefore(whole, step, partId),
    isReadWithoutLight: (step, partId) => isReadWithoutLight(whole.owns.get(step)?.get(partId)),
    beginnerOf: (state, placeId) => beginnerOf(whole, state, placeId),
  }
}

function isReadWithoutLight(own: Own | undefined): boolean {
  if (!own?.counting || !isRead(own.step)) return false
  return own.step.asRead?.(own.part, own.counting.entry.body) != null
}

/** The verdict of a step by its readings and sisters, or that it was left out: what a gate may wait for. */
function verdictBefore(whole: Whole, step: string, partId: string): Verdict | undefined {
  const own = whole.owns.get(step)?.get(partId)
  if (!own) return undefined
  if (isLeftOut(own, leftOutOf(own, whole.index))) return 'left-out'
  return whole.bySisters.get(own.key)?.verdict ?? own.verdict
}

/** What is said of a hunt that nobody went on. */
const onNeed = (need: 'none' | 'now', { data: { tag } }: Part): Finding => ({
  code: need === 'now' ? ON_NEED : NOT_NEEDED,
  figures: { tag },
})

/**
 * Whether there is something to hunt for: the test that a hunt belongs to is close or outside; or what the hunt found
 * was not answered by a later reading that is plainly good. Null for what is no hunt.
 */
function needOf(whole: Whole, { step, part, counting }: Own): 'now' | 'none' | null {
  if (!isRead(step) || !step.onNeedOf) return null
  const verdict = verdictBefore(whole, step.onNeedOf, part.id)
  if (verdict === 'outside' || verdict === 'close') return 'now'
  if (!counting) return 'none'
  const other = whole.owns.get(step.onNeedOf)?.get(part.id)?.counting
  return verdict === 'within' && other && other.at > counting.at ? 'none' : 'now'
}

/** What somebody said who left it out; nothing where that says nothing. */
function leftOutOf({ step, key }: Own, index: EntryIndex): StepEvaluation['leftOut'] {
  const entry = index.leftOut.size > 0 ? index.leftOut.get(key) : undefined
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
    const { key, step, part, computed, counting } = own
    const beside = whole.bySisters.size > 0 ? whole.bySisters.get(key) : undefined
    const leftOut = leftOutOf(own, whole.index)
    if (isLeftOut(own, leftOut)) {
      const finding: Finding = { code: 'left-out', figures: { tag: part.data.tag, reason: leftOut.reason } }
      return new Settled(own, looked, 'left-out', finding, [], leftOut)
    }
    const need = needOf(whole, own)
    if (need === 'none' || (need === 'now' && !counting))
      return new Settled(own, looked, 'left-out', onNeed(need, part), [], null)
    const verdict = beside?.verdict ?? own.verdict
    const said = beside?.finding ?? null
    let flags = beside?.flag ? [...own.flags, beside.flag] : own.flags
    if (counting) {
      const { entry, at } = counting
      if (isHeldBack(view, step, part, entry.visitId, { at, entryId: entry.id })) flags = [...flags, 'while-held-back']
      return new Settled(own, looked, verdict, said, flags, leftOut)
    }
    if (!computed && isHeldBack(view, step, part, looked.visitId))
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
  for (const { step } of whole.asked) {
    if (!isRead(step)) continue
    for (const effect of step.effects ?? []) {
      if (effect.does !== 'begin') continue
      for (const own of whole.owns.get(step.id)!.values()) {
        if (!own.counting) continue
        const one = whole.settled.get(own.key)!
        if (!one.done || one.verdict === 'left-out') continue
        for (const place of subjectsOf(effect.on, own.part, whole.plant).parts) {
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

/** Keys of the steps whose state something that is still to be read waits for. */
function waitedFor({ settled }: Whole): Set<string> {
  const keys = new Set<string>()
  for (const one of settled.values()) {
    if (one.done) continue
    for (const gate of one.gates) if (gate.state && !gate.met && gate.waitsFor) keys.add(gate.waitsFor)
  }
  return keys
}
