/** One evaluation, from the entries to what every step comes to: own readings, sisters, states, gates, in that order. */
import type { Part } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { plantOfJob } from '../plant/projection'
import type { Body, Entry } from '../record/entry'
import type { Facts } from '../record/facts'
import { correctedTime, inOrder } from '../record/order'
import { steps, stepsOf } from '../steps'
import { type AnyStep, isRead, type StateEffect } from '../steps/step'
import { CHECK_SOUND } from '../steps/slot'
import { type Finding, type Flag, isDone, type Verdict } from '../verdict/verdict'
import { type EntryIndex, indexEntries } from './entryIndex'
import { gateStates, type GateView } from './gates'
import { PlantHistory } from './plantHistory'
import { LeadNulls } from './leadNulls'
import { ownOf } from './own'
import type { Own, Run } from './runOf'
import { type BySisters, SisterGroups } from './sisters'
import { mustStand, type PlacedEvent, type StateId, stateIds, type States, statesFrom } from './states'
import { stepKey } from './stepKey'
import { endedOn, subjectsOf } from './subjects'
import type { Evaluation, ReadingEvaluation, Scope, StepEvaluation } from './types'

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
  /** By step, then by part: no key is put together for a look. */
  owns: Map<string, Map<string, Own>>
  /** Which steps took the reading of another into their judgement: key read, keys that read it. */
  readers: Map<string, Set<string>>
  sisters: SisterGroups
  bySisters: Map<string, BySisters>
  states: States
  settled: Map<string, StepEvaluation>
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
    .map((step) => ({ step, parts: plant.ofKind(step.appliesTo).filter((part) => !step.of || step.of(part, plant)) }))
  const history = new PlantHistory(entries, facts.job.id)
  const own: Omit<Whole, 'sisters' | 'bySisters' | 'states' | 'settled'> = {
    facts,
    scope,
    entries,
    index,
    parts,
    plant,
    history,
    nulls: new LeadNulls(),
    asked,
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
  const sisters = SisterGroups.of(withSisters, facts.regime)
  const whole: Whole = { ...own, sisters, bySisters: sisters.outcomes(), states: statesOf(own), settled: new Map() }
  const settle = settler(whole)
  for (const { step, parts: of } of asked) {
    const ofStep = whole.owns.get(step.id)!
    for (const part of of) {
      const one = settle(ofStep.get(part.id)!)
      whole.settled.set(one.key, one)
    }
  }
  for (const one of lapsed(whole)) whole.settled.set(one.key, one)
  return whole
}

/** What own judgements are made with; which step reads which is written down on the way. */
export function runOf({
  facts,
  scope,
  plant,
  index,
  history,
  nulls,
  owns,
  readers,
}: Pick<Whole, 'facts' | 'scope' | 'plant' | 'index' | 'history' | 'nulls' | 'owns' | 'readers'>): Run {
  const countedFor =
    (reader: string) =>
    (step: string, partId: string): Body<'reading'> | null => {
      const key = `${step}:${partId}`
      const known = readers.get(key)
      if (known) known.add(reader)
      else readers.set(key, new Set([reader]))
      return owns.get(step)?.get(partId)?.counting?.entry.body ?? null
    }
  return { facts, scope, plant, index, history, nulls, countedFor }
}

/** What the readings of a step do to places. */
export function eventsOf(
  step: AnyStep,
  part: Part,
  plant: PlantIndex,
  readings: readonly ReadingEvaluation[],
  does: StateEffect['does'],
): PlacedEvent[] {
  if (!isRead(step) || !step.effects) return []
  return step.effects
    .filter((effect) => effect.does === does)
    .flatMap((effect) => {
      const places = (does === 'end' ? endedOn : beginsOn)(effect.on, part, plant)
      return readings
        .filter((reading) => (does === 'end' ? reading.ended?.by !== 'void' : begins(step, reading)))
        .filter((reading) => !effect.when || effect.when(reading.entry.body))
        .flatMap(({ entry, at }) =>
          places.map(
            ({ id: placeId }): PlacedEvent => ({
              state: effect.state,
              placeId,
              event: { does, at, entryId: entry.id, visitId: entry.visitId, key: `${step.id}:${part.id}` },
            }),
          ),
        )
    })
}

const beginsOn = (...of: Parameters<typeof subjectsOf>): readonly Part[] => subjectsOf(...of).parts

/** A state begins by a good reading of which no decisive line was left out. */
function begins(step: AnyStep, { entry, verdict, ended }: ReadingEvaluation): boolean {
  if (ended || !isDone(verdict) || !isRead(step)) return false
  return step.slots.every((slot) => {
    if (slot.kind !== 'check' || !slot.decisive) return true
    const value = entry.body.slots[slot.id]
    return !value || ('choice' in value && value.choice === CHECK_SOUND)
  })
}

function statesOf({
  asked,
  owns,
  plant,
  parts,
  index,
}: Pick<Whole, 'asked' | 'owns' | 'plant' | 'parts' | 'index'>): States {
  const gather = (does: StateEffect['does']): PlacedEvent[] =>
    asked.flatMap(({ step, parts }) => {
      if (!isRead(step) || !step.effects?.some((effect) => effect.does === does)) return []
      const ofStep = owns.get(step.id)!
      return parts.flatMap((part) => {
        const { readings } = ofStep.get(part.id)!
        return readings.length === 0 ? [] : eventsOf(step, part, plant, readings, does)
      })
    })
  return statesFrom(gather('begin'), [...gather('end'), ...endsOfRetired(parts, index, plant)])
}

/** What was switched on at a part was on, also where the part was taken out of the plant since. */
function endsOfRetired(parts: Whole['parts'], index: EntryIndex, plant: PlantIndex): PlacedEvent[] {
  const retired = [...parts.values()].filter((part) => part.retired)
  return retired.flatMap((part) =>
    steps.flatMap((step) => {
      if (step.appliesTo !== part.data.kind || !isRead(step)) return []
      const entries = index.readings.get(stepKey(step.id, part.id)) ?? []
      return (step.effects ?? []).flatMap((effect): PlacedEvent[] => {
        if (effect.does !== 'end' || effect.on === 'part') return []
        const ends = entries.filter((entry) => !index.voids.has(entry.id) && (effect.when?.(entry.body) ?? true))
        return endedOn(effect.on, part, plant).flatMap(({ id: placeId }) =>
          ends.map((entry): PlacedEvent => {
            const { id: entryId, visitId } = entry
            const event = {
              does: 'end' as const,
              at: correctedTime(entry),
              entryId,
              visitId,
              key: stepKey(step.id, part.id),
            }
            return { state: effect.state, placeId, event }
          }),
        )
      })
    }),
  )
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
    beginnerOf: (state, placeId) => beginnerOf(whole, state, placeId),
  }
}

/** The verdict of a step by its readings and sisters, or that it was left out: what a gate may wait for. */
function verdictBefore(whole: Whole, step: string, partId: string): Verdict | undefined {
  const own = whole.owns.get(step)?.get(partId)
  if (!own) return undefined
  if (isLeftOut(own, whole.index)) return 'left-out'
  return whole.bySisters.get(own.key)?.verdict ?? own.verdict
}

function isLeftOut(own: Own, index: EntryIndex): boolean {
  if (index.leftOut.size === 0) return false
  const leftOut = index.leftOut.get(own.key)
  return leftOut !== undefined && (!own.counting || correctedTime(leftOut) > own.counting.at)
}

/** Sisters, gates, left out, and what follows for the verdict. A fact is never refused because of a gate. */
export function settler(whole: Whole): (own: Own) => StepEvaluation {
  const view = gateViewOf(whole)
  const visitId = visitOf(whole)
  return (own) => {
    const { key, step, part, readings, computed, counting, repeatAsked } = own
    const beside = whole.bySisters.size > 0 ? whole.bySisters.get(key) : undefined
    const gates = gateStates(view, step, part, visitId)
    const shut = gates.find((gate) => !gate.met) ?? null
    const left = whole.index.leftOut.size > 0 ? whole.index.leftOut.get(key) : undefined
    const leftOut = left ? { reason: left.body.reason, personId: left.personId, at: correctedTime(left) } : null
    let verdict: Verdict = beside?.verdict ?? own.verdict
    let finding: Finding = beside?.finding ?? own.finding
    let flags: readonly Flag[] = beside?.flag ? [...own.flags, beside.flag] : own.flags
    if (leftOut && (!counting || leftOut.at > counting.at)) {
      verdict = 'left-out'
      finding = { code: 'left-out', figures: { tag: part.data.tag, reason: leftOut.reason } }
      flags = []
    } else if (counting) {
      // Where nothing is shut now nothing was by a step; a state may have stood then and not now, or the other way round.
      if (gates.length > 0 && wasHeldBack(view, own, counting)) flags = [...flags, 'while-held-back']
    } else if (shut && !computed) {
      verdict = 'held-back'
      finding = shut.finding
    }
    return {
      key,
      step,
      part,
      verdict,
      finding,
      flags,
      gates,
      shut,
      readings,
      computed,
      counting,
      judgement: computed ?? counting?.judgement ?? null,
      leftOut,
      repeatAsked,
      done: isDone(verdict),
    }
  }
}

function wasHeldBack(view: GateView, { step, part }: Own, { entry, at }: ReadingEvaluation): boolean {
  return gateStates(view, step, part, entry.visitId, { at, entryId: entry.id }).some((gate) => !gate.met)
}

/**
 * Steps whose state was ended since: what was taken off is to be put back, and what ended with its visit is asked again
 * where anything waits for it.
 */
export function lapsed(whole: Whole): StepEvaluation[] {
  const visitId = visitOf(whole)
  const found: StepEvaluation[] = []
  let waited: Set<string> | null = null
  for (const { step, parts } of whole.asked) {
    if (!isRead(step)) continue
    for (const effect of step.effects ?? []) {
      if (effect.does !== 'begin') continue
      for (const part of parts) {
        const one = whole.settled.get(`${step.id}:${part.id}`)!
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
          found.push({ ...one, verdict: 'not-yet', finding, done: false })
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
