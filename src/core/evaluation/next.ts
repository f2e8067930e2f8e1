/**
 * Evaluates what new entries touch, and nothing else. It comes to the same as evaluating anew: a test holds the two
 * against each other on random jobs.
 */
import type { Entry } from '../record/entry'
import type { Facts } from '../record/facts'
import { correctedTime, inOrder } from '../record/order'
import { stepById } from '../steps'
import { isRead, neededFor, type StateEffect } from '../steps/step'
import { withEntries } from './entryIndex'
import { LeadNulls } from './leadNulls'
import { ownOf } from './own'
import { ByKey, type OnParts } from '../plant/onParts'
import type { Own } from './runOf'
import { eventsOf } from './placedEvents'
import { lapsed, runOf, settler, visitOf, type Whole, wholeOf } from './run'
import type { ChangedOwn } from './sisters'
import { isBefore, type Moment, type PlacedEvent } from './states'
import { stepKey } from './stepKey'
import { subjectsOf } from './subjects'
import type { Settled } from './settled'
import { Together } from './together'

/** Kinds of entry that touch one step on one part; any other may touch everything. */
export const touchOneStep: ReadonlySet<string> = new Set([
  'reading',
  'left-out',
  'override',
  'confirmation',
  'remark',
  'photo',
  'snag',
  'class',
])

/**
 * The entries that came after those of an evaluation, in their order, where they can be added to it; null where it is
 * made anew.
 */
export function addedSince(whole: Whole, facts: Facts): readonly Entry[] | null {
  const before = whole.facts
  if (facts.regime !== before.regime || facts.job.id !== before.job.id || facts.instruments !== before.instruments)
    return null
  if (facts.visits.length !== before.visits.length || facts.entries.length < before.entries.length) return null
  for (let k = 0; k < before.entries.length; k++) if (!isAsBefore(facts.entries[k]!, before.entries[k]!)) return null
  const added = inOrder(facts.entries.slice(before.entries.length))
  const last = whole.entries.at(-1)
  const isFitting = added.every(
    (entry) =>
      // No void waits for it, and it comes last, or where its coming late changes nothing of what was judged.
      touchOneStep.has(entry.body.kind) &&
      !whole.index.voids.has(entry.id) &&
      (!last || isBefore(momentOf(last), momentOf(entry)) || mayComeLate(whole, entry)),
  )
  return isFitting ? added : null
}

/**
 * Whether an entry may be added though later ones are there already, as when two people save at one moment. A reading is
 * one that is the last of its own test, begins and ends no state of a place and nulls no leads: nothing that was judged
 * at a time between looked for it.
 */
function mayComeLate({ index, states }: Whole, entry: Entry): boolean {
  const { body, step: id, partId } = entry
  if (['remark', 'photo', 'snag', 'class'].includes(body.kind)) return true
  if (body.kind !== 'reading' || !id || !partId) return false
  const step = stepById(id)
  if (!step || !isRead(step) || step.nulls || step.placesMeter) return false
  // What ends a state of its own part touches nothing where that never began.
  const touches = ({ does, on, state }: StateEffect) => does === 'begin' || on !== 'part' || states.has(state, partId)
  if (step.effects?.some(touches)) return false
  const known = index.readings.get(id, partId)?.at(-1)
  return !known || isBefore(momentOf(known), momentOf(entry))
}

const momentOf = (entry: Entry): Moment => ({ at: correctedTime(entry), entryId: entry.id })
const isAsBefore = (a: Entry, b: Entry): boolean =>
  a.body === b.body && a.deviceTime === b.deviceTime && a.clockOffset_ms === b.clockOffset_ms

export function wholeWith(whole: Whole, facts: Facts, added: readonly Entry[]): Whole {
  const next: Whole = {
    ...whole,
    facts,
    entries: inOrder([...whole.entries, ...added]),
    index: withEntries(whole.index, added),
    nulls: new LeadNulls(whole.nulls),
    owns: whole.owns.copy(),
    settled: whole.settled.copy(),
  }
  const { changed, dirty } = reread(next, added)
  // Without a light meter every reading may move what the others are held against.
  const isDull =
    whole.together !== null ||
    Together.of(
      changed.map(({ own }) => own),
      facts.regime,
    ) !== null
  if (isDull) return wholeOf(facts, whole.scope)
  const events = changed.flatMap(({ own, before }) => newEvents(next, own, before))
  if (events.length > 0) next.states = next.states.with(events)
  for (const key of compareAgain(next, changed)) dirty.add(key)
  for (const key of heldBy(next, [...dirty], turned(whole, next, events))) dirty.add(key)
  // What had lapsed or lapses now is a matter of all that waits.
  for (const key of whole.lapsed) dirty.add(key)
  const settle = settler(next)
  for (const key of dirty) {
    const own = ownAt(next, key)
    if (own) put(next.settled, settle(own))
  }
  const ended = lapsed(next)
  for (const one of ended) put(next.settled, one, whole.settled.get(one.step.id, one.part.id))
  next.lapsed = ended.map((one) => one.key)
  return next
}

const ownAt = ({ owns }: Whole, key: string): Own | undefined => new ByKey(owns).get(key)

/** Judges again what the entries speak of, and what took their readings in, in working order. */
function reread(next: Whole, added: readonly Entry[]): { changed: ChangedOwn[]; dirty: Set<string> } {
  const dirty = new Set<string>()
  const again = new Set<string>()
  for (const { step, partId, body } of added) {
    if (!step || !partId) continue
    dirty.add(`${step}:${partId}`)
    if (body.kind === 'reading' || body.kind === 'confirmation') again.add(`${step}:${partId}`)
  }
  const changed: ChangedOwn[] = []
  if (again.size === 0) return { changed, dirty }
  const run = runOf(next)
  const order = new Map(next.asked.map(({ step }, k) => [step.id, k]))
  const queue = [...again]
  while (queue.length > 0) {
    queue.sort((a, b) => (order.get(stepOf(a)) ?? 0) - (order.get(stepOf(b)) ?? 0))
    const key = queue.shift()!
    const before = ownAt(next, key)
    if (!before) continue
    const { step, part } = before
    const own = ownOf(run, step, part)
    if (isRead(step) && step.nulls) next.nulls.take(step, own.readings.slice(before.readings.length))
    next.owns.set(step.id, part.id, own)
    changed.push({ own, before })
    dirty.add(key)
    if (own.counting?.entry === before.counting?.entry) continue
    for (const reader of next.readers.get(step.id, part.id) ?? []) {
      const readerKey = stepKey(reader.step.id, reader.part.id)
      if (readerKey === key || again.has(readerKey)) continue
      again.add(readerKey)
      queue.push(readerKey)
    }
  }
  return { changed, dirty }
}

const stepOf = (key: string): string => key.slice(0, key.indexOf(':'))

/** What the new readings of a step do to places. */
function newEvents({ plant, states }: Whole, own: Own, before: Own | undefined): PlacedEvent[] {
  const fresh = own.readings.slice(before?.readings.length ?? 0)
  if (fresh.length === 0) return []
  const { step, part } = own
  return [
    ...eventsOf(step, part, plant, fresh, 'begin'),
    ...eventsOf(step, part, plant, fresh, 'end', (state, placeId) => states.has(state, placeId)),
  ]
}

/**
 * Of events those by which a place stands otherwise now. A supply that is live already is ended as dead by every live
 * reading: that moves no gate. How it stood when earlier readings were taken is not touched by what comes after them.
 */
function turned(before: Whole, { states, ...next }: Whole, events: readonly PlacedEvent[]): PlacedEvent[] {
  const visitId = visitOf(next)
  return events.filter(
    ({ state, placeId }) => states.stand(state, placeId, visitId) !== before.states.stand(state, placeId, visitId),
  )
}

/** Compares sisters again; gives the keys of those for which it came out otherwise. */
function compareAgain(next: Whole, changed: readonly ChangedOwn[]): string[] {
  const among = changed.filter(({ own: { step } }) => isRead(step) && step.sisterGroup)
  if (among.length === 0) return []
  const { groups, other } = next.sisters.with(among, next.facts.regime)
  next.sisters = groups
  next.bySisters = groups.outcomes()
  return other
}

/**
 * Keys of the steps that wait for one of these, read, left out or seen otherwise beside its sisters, or for a state of a
 * place that was begun or ended.
 */
function heldBy({ asked, plant }: Whole, touched: readonly string[], events: readonly PlacedEvent[]): string[] {
  const partsOf = new Map<string, Set<string>>()
  const note = (of: string, partId: string): void => void partsOf.set(of, (partsOf.get(of) ?? new Set()).add(partId))
  for (const key of touched) note(stepOf(key), key.slice(key.indexOf(':') + 1))
  for (const { state, placeId } of events) note(state, placeId)
  const keys: string[] = []
  for (const { step, parts } of asked) {
    for (const other of neededFor(step)) {
      const hunted = partsOf.get(other)
      if (hunted) for (const part of parts) if (hunted.has(part.id)) keys.push(stepKey(step.id, part.id))
    }
    for (const gate of step.gates) {
      for (const asked of 'state' in gate ? [gate.state] : [gate.waitsFor, gate.spares]) {
        const places = asked && partsOf.get(asked)
        if (!places) continue
        for (const part of parts) {
          const waits = subjectsOf(gate.on ?? 'part', part, plant).parts.some((one) => places.has(one.id))
          if (waits) keys.push(stepKey(step.id, part.id))
        }
      }
    }
  }
  return keys
}

/** Takes a step anew only where it is another: what did not change stays the same object, and is not drawn again. */
function put(settled: OnParts<Settled>, one: Settled, known = settled.get(one.step.id, one.part.id)): void {
  // Its gates and flags are looked at now, or it would hold on to all that they are looked at with.
  void [one.gates, one.flags]
  settled.set(one.step.id, one.part.id, known && isSame(known, one) ? known : one)
}

const isSame = (a: Settled, b: Settled): boolean =>
  a.verdict === b.verdict &&
  a.counting?.entry === b.counting?.entry &&
  a.readings.length === b.readings.length &&
  a.readings.every((reading, k) => reading === b.readings[k]) &&
  a.computed === b.computed &&
  JSON.stringify([a.finding, a.flags, a.gates, a.leftOut]) === JSON.stringify([b.finding, b.flags, b.gates, b.leftOut])
