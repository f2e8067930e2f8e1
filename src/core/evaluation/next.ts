/**
 * Evaluates what new entries touch, and nothing else. It comes to the same as evaluating anew: a test holds the two
 * against each other on random jobs.
 */
import type { Entry } from '../record/entry'
import type { Facts } from '../record/facts'
import { correctedTime } from '../record/order'
import { type AnyStep, isRead } from '../steps/step'
import { withEntries } from './entryIndex'
import { LeadNulls } from './leadNulls'
import { ownOf } from './own'
import type { Own } from './runOf'
import { eventsOf, lapsed, runOf, settler, type Whole } from './run'
import type { PlacedEvent } from './states'
import type { StepEvaluation } from './types'

/** Kinds of entry that touch one step on one part; any other may touch everything. */
const touchOneStep = new Set(['reading', 'left-out', 'override', 'confirmation', 'remark', 'photo', 'snag'])

/** The entries that came after those of an evaluation, where they can be added to it; null where it is made anew. */
export function addedSince(whole: Whole, facts: Facts): readonly Entry[] | null {
  const before = whole.facts
  if (facts.regime !== before.regime || facts.job.id !== before.job.id || facts.instruments !== before.instruments)
    return null
  if (facts.visits.length !== before.visits.length || facts.entries.length < before.entries.length) return null
  for (let k = 0; k < before.entries.length; k++) if (facts.entries[k]!.body !== before.entries[k]!.body) return null
  const added = facts.entries.slice(before.entries.length)
  const last = whole.entries.at(-1)
  let time = last ? correctedTime(last) : Number.NEGATIVE_INFINITY
  for (const entry of added) {
    const at = correctedTime(entry)
    // In the order of entries it comes last, and no void waits for it.
    if (!touchOneStep.has(entry.body.kind) || at <= time || whole.index.voids.has(entry.id)) return null
    time = at
  }
  return added
}

export function wholeWith(whole: Whole, facts: Facts, added: readonly Entry[]): Whole {
  const next: Whole = {
    ...whole,
    facts,
    entries: [...whole.entries, ...added],
    index: withEntries(whole.index, added),
    nulls: new LeadNulls(whole.nulls),
    owns: new Map(whole.owns),
    readers: new Map(whole.readers),
    settled: new Map(whole.settled),
  }
  const { changed, dirty } = reread(next, added)
  const events = changed.flatMap(({ own, before }) => newEvents(next, own, before))
  if (events.length > 0) next.states = next.states.with(events)
  const steps = new Set(changed.map(({ own }) => own.step))
  for (const key of compareAgain(next, steps)) dirty.add(key)
  for (const key of heldBy(next, steps, events)) dirty.add(key)
  const settle = settler(next)
  for (const key of dirty) {
    const own = ownAt(next, key)
    if (own) put(next.settled, settle(own))
  }
  // What had lapsed or lapses now is a matter of all that waits.
  for (const [key, one] of whole.settled) {
    if (!one.finding.code.startsWith('lapsed.') || dirty.has(key)) continue
    put(next.settled, settle(ownAt(next, key)!))
  }
  for (const one of lapsed(next)) put(next.settled, one, whole.settled.get(one.key))
  return next
}

const ownAt = ({ owns }: Whole, key: string): Own | undefined => {
  const at = key.indexOf(':')
  return owns.get(key.slice(0, at))?.get(key.slice(at + 1))
}

type Changed = { own: Own; before: Own | undefined }

/** Judges again what the entries speak of, and what took their readings in, in working order. */
function reread(next: Whole, added: readonly Entry[]): { changed: Changed[]; dirty: Set<string> } {
  const dirty = new Set<string>()
  const again = new Set<string>()
  for (const { step, partId, body } of added) {
    if (!step || !partId) continue
    dirty.add(`${step}:${partId}`)
    if (body.kind === 'reading' || body.kind === 'confirmation') again.add(`${step}:${partId}`)
  }
  const changed: Changed[] = []
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
    next.owns.set(step.id, new Map(next.owns.get(step.id)).set(part.id, own))
    changed.push({ own, before })
    dirty.add(key)
    if (own.counting?.entry === before.counting?.entry) continue
    for (const reader of next.readers.get(key) ?? []) {
      if (reader !== key && !again.has(reader)) {
        again.add(reader)
        queue.push(reader)
      }
    }
  }
  return { changed, dirty }
}

const stepOf = (key: string): string => key.slice(0, key.indexOf(':'))

/** What the new readings of a step do to places. */
function newEvents({ plant, states }: Whole, own: Own, before: Own | undefined): PlacedEvent[] {
  const fresh = own.readings.slice(before?.readings.length ?? 0)
  if (fresh.length === 0) return []
  const of = (does: 'begin' | 'end'): PlacedEvent[] => eventsOf(own.step, own.part, plant, fresh, does)
  return [...of('begin'), ...of('end').filter(({ state, placeId }) => states.has(state, placeId))]
}

/** Compares the sisters of steps again; gives the keys of those for which it came out otherwise. */
function compareAgain(next: Whole, steps: ReadonlySet<AnyStep>): string[] {
  const members = [...steps].flatMap((step) =>
    isRead(step) && step.sisterGroup ? [...(next.owns.get(step.id)?.values() ?? [])] : [],
  )
  if (members.length === 0) return []
  const before = next.bySisters
  next.sisters = next.sisters.with(members, next.facts.regime)
  next.bySisters = next.sisters.outcomes()
  const other: string[] = []
  for (const { key } of members) {
    if (JSON.stringify(before.get(key)) !== JSON.stringify(next.bySisters.get(key))) other.push(key)
  }
  return other
}

/** Keys of the steps that wait for one of these, or for a state that was begun or ended. */
function heldBy(next: Whole, steps: ReadonlySet<AnyStep>, events: readonly PlacedEvent[]): string[] {
  const ids = new Set([...steps].map((step) => step.id))
  const states = new Set(events.map((one) => one.state))
  return next.asked.flatMap(({ step, parts: all }) => {
    const waits = step.gates.some((gate) => ('state' in gate ? states.has(gate.state) : ids.has(gate.waitsFor)))
    return waits ? all.map((part) => `${step.id}:${part.id}`) : []
  })
}

/** Takes a step anew only where it is another: what did not change stays the same object, and is not drawn again. */
function put(settled: Map<string, StepEvaluation>, one: StepEvaluation, known = settled.get(one.key)): void {
  settled.set(one.key, known && isSame(known, one) ? known : one)
}

const isSame = (a: StepEvaluation, b: StepEvaluation): boolean =>
  a.verdict === b.verdict &&
  a.counting?.entry === b.counting?.entry &&
  a.readings.length === b.readings.length &&
  a.readings.every((reading, k) => reading.judgement === b.readings[k]!.judgement) &&
  a.computed === b.computed &&
  JSON.stringify([a.finding, a.flags, a.gates, a.leftOut]) === JSON.stringify([b.finding, b.flags, b.gates, b.leftOut])
