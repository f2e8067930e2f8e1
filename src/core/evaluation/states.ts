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
] as const
export type StateId = (typeof stateIds)[number]

/** Nobody knows what happened between two visits: these are proved anew. */
const endsWithVisit: ReadonlySet<StateId> = new Set(['dead', 'isolated', 'nulled', 'point-open', 'point-felt'])
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

export class States {
  constructor(private readonly events: ReadonlyMap<string, readonly StateEvent[]>) {}

  /** @param before only what came before this moment counts; everything where nothing is said. */
  of(state: StateId, placeId: string, visitId: string | undefined, before?: Moment): Standing {
    const events = this.events.get(placeKey(state, placeId))
    const last = before ? events?.findLast((one) => isBefore(one, before)) : events?.at(-1)
    if (!last) return NEVER
    if (last.does === 'end') return { stands: false, ended: { by: 'entry', at: last.at, key: last.key } }
    if (endsWithVisit.has(state) && last.visitId !== visitId)
      return { stands: false, ended: { by: 'visit', at: last.at } }
    return { stands: true, since: last.at }
  }

  /** Every place that something happened to, for what lists them. */
  places(): { state: StateId; placeId: string }[] {
    return [...this.events.keys()].map((key) => {
      const at = key.indexOf(' ')
      return { state: key.slice(0, at) as StateId, placeId: key.slice(at + 1) }
    })
  }

  /** The same with more events, each of them the latest of its place. */
  with(more: readonly PlacedEvent[]): States {
    const events = new Map(this.events)
    for (const { state, placeId, event } of more) {
      const key = placeKey(state, placeId)
      events.set(key, [...(events.get(key) ?? []), event])
    }
    return new States(events)
  }

  has(state: StateId, placeId: string): boolean {
    return this.events.has(placeKey(state, placeId))
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
  const events = new Map<string, StateEvent[]>()
  for (const { state, placeId, event } of begun) {
    const key = placeKey(state, placeId)
    const known = events.get(key)
    if (known) known.push(event)
    else events.set(key, [event])
  }
  for (const { state, placeId, event } of ended) events.get(placeKey(state, placeId))?.push(event)
  for (const list of events.values()) list.sort((a, b) => (isBefore(a, b) ? -1 : 1))
  return new States(events)
}

export const placeKey = (state: StateId, placeId: string): string => `${state} ${placeId}`
