/**
 * States of places: proved dead, isolated, earthing conductor on, plugs locked. One entry begins a state, another ends it,
 * and some end with the visit. Gates ask how a place stands, not whether a step was once done.
 */
export const stateIds = [
  'dead',
  'isolated',
  'nulled',
  'earth-on',
  'electrode-on',
  'plugs-locked',
  'surge-in',
  'point-open',
  'point-secured',
  'point-felt',
  'kept-off',
] as const
export type StateId = (typeof stateIds)[number]

/** Nobody knows what happened between two visits: these are proved anew. */
const endsWithVisit: ReadonlySet<StateId> = new Set([
  'dead',
  'isolated',
  'nulled',
  'point-open',
  'point-felt',
  'kept-off',
])
/** What was taken off or opened is put back, whether or not anything waits for it. */
export const mustStand: ReadonlySet<StateId> = new Set([
  'earth-on',
  'electrode-on',
  'plugs-locked',
  'surge-in',
  'point-secured',
])

/** A moment in the order of entries: corrected time, then id. */
export type Moment = { at: number; entryId: string }
export const isBefore = (a: Moment, b: Moment): boolean => a.at < b.at || (a.at === b.at && a.entryId < b.entryId)

export type StateEvent = Moment & {
  does: 'begin' | 'end'
  visitId: string
  /** Key of the step that did it. */
  key: string
}

/** How a place stands: since when, or what ended it; null where it was never so. */
export type Standing =
  | { stands: true; since: number }
  | { stands: false; ended: { by: 'entry'; at: number; key: string } | { by: 'visit'; at: number } | null }

const NEVER: Standing = { stands: false, ended: null }

/** The last of events in order that came before a moment: at the supply of a big job there are as many as readings. */
function lastBefore(events: readonly StateEvent[], moment: Moment): StateEvent | undefined {
  let [low, high] = [0, events.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (isBefore(events[middle]!, moment)) low = middle + 1
    else high = middle
  }
  return events[low - 1]
}

/** What happened to each place, by state. */
type Events = ReadonlyMap<StateId, ReadonlyMap<string, readonly StateEvent[]>>

export class States {
  constructor(private readonly events: Events) {}

  /** @param before only what came before this moment counts; everything where nothing is said. */
  of(state: StateId, placeId: string, visitId: string | undefined, before?: Moment): Standing {
    const last = this.lastOf(state, placeId, before)
    if (!last) return NEVER
    if (last.does === 'end') return { stands: false, ended: { by: 'entry', at: last.at, key: last.key } }
    if (endsWithVisit.has(state) && last.visitId !== visitId)
      return { stands: false, ended: { by: 'visit', at: last.at } }
    return { stands: true, since: last.at }
  }

  /** Whether it is so. */
  stand(state: StateId, placeId: string, visitId: string | undefined, before?: Moment): boolean {
    const last = this.lastOf(state, placeId, before)
    return last?.does === 'begin' && (last.visitId === visitId || !endsWithVisit.has(state))
  }

  private lastOf(state: StateId, placeId: string, before: Moment | undefined): StateEvent | undefined {
    const events = this.events.get(state)?.get(placeId)
    return events && (before ? lastBefore(events, before) : events.at(-1))
  }

  /** Every place that something happened to, for what lists them. */
  places(): { state: StateId; placeId: string }[] {
    return [...this.events].flatMap(([state, places]) => [...places.keys()].map((placeId) => ({ state, placeId })))
  }

  /** The same with more events, each of them the latest of its place. */
  with(more: readonly PlacedEvent[]): States {
    const events = new Map([...this.events].map(([state, places]) => [state, new Map(places)]))
    for (const { state, placeId, event } of more) {
      const places = placesOf(events, state)
      places.set(placeId, [...(places.get(placeId) ?? []), event])
    }
    return new States(events)
  }

  has(state: StateId, placeId: string): boolean {
    return this.events.get(state)?.has(placeId) ?? false
  }
}

export type PlacedEvent = { state: StateId; placeId: string; event: StateEvent }

/**
 * The states that readings leave behind. A state begins where every decisive line is as it should be and the reading is
 * good; whatever ends one ends it whether or not it was good. What nothing ever began is not so, and its ends say nothing.
 *
 * @param begun,ended what readings do, in no order.
 */
export function statesFrom(begun: readonly PlacedEvent[], ended: readonly PlacedEvent[]): States {
  const events = new Map<StateId, Map<string, StateEvent[]>>()
  for (const { state, placeId, event } of begun) {
    const places = placesOf(events, state)
    const known = places.get(placeId)
    if (known) known.push(event)
    else places.set(placeId, [event])
  }
  for (const { state, placeId, event } of ended) events.get(state)?.get(placeId)?.push(event)
  for (const places of events.values())
    for (const list of places.values()) list.sort((a, b) => (isBefore(a, b) ? -1 : 1))
  return new States(events)
}

function placesOf<T>(events: Map<StateId, Map<string, T>>, state: StateId): Map<string, T> {
  const known = events.get(state)
  if (known) return known
  const places = new Map<string, T>()
  events.set(state, places)
  return places
}
