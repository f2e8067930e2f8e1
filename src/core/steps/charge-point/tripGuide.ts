/**
 * The ritual between two trips at a plug, one thing at a time: to A, reset, wait until it is ready, to C, trip, read. Where
 * somebody is in it is data: whatever happens to the page it goes on at the same moment.
 */
import { z } from 'zod'
import type { PilotState } from '../../pilot/state'

export const moments = ['to-a', 'reset', 'ready', 'to-c', 'trip', 'read'] as const
export type Moment = (typeof moments)[number]
/** A figure is typed from a display, comes through the feed, or from a stand-in. */
const hows = ['typed', 'feed', 'stand-in'] as const
export type FigureHow = (typeof hows)[number]
const momentSchema = z.enum(['begin', ...moments, 'stopped', 'done'])

/** Where somebody is: which trip, which moment of it and since when, and what was read so far. */
export const guideSchema = z.strictObject({
  v: z.literal(1),
  trip: z.number().int().min(0).max(40),
  moment: momentSchema,
  /** Line of the reset words. */
  line: z.number().int().min(0).max(10),
  /** When this moment began, ms since 1970. */
  since: z.number(),
  /** By slot: the text as it was read. */
  texts: z.record(z.string().max(60), z.string().max(24)),
  /** By slot: how it came. */
  hows: z.record(z.string().max(60), z.enum(hows)),
  /** Tests whose readings are kept already. */
  kept: z.array(z.string().max(60)).max(8),
  /** Slots whose trip held: the outlet is live still, nothing is to be reset. */
  held: z.array(z.string().max(60)).max(40),
})
export type Guide = z.infer<typeof guideSchema>

/** What the ritual is made of at one plug. */
export type Ritual = {
  slots: readonly string[]
  resetLines: number
  ready_s: number
  /** By slot of a ramp: where its time is kept. */
  times?: Readonly<Record<string, string>>
}

export type Move =
  | { do: 'done' }
  | { do: 'back' }
  /** It did not trip, or it did: then the figure is read. */
  | { do: 'held' }
  /** What the display shows, for a test; a figure that is outside stops the sequence. */
  | { do: 'read'; text: string; how: FigureHow; test: string; isOutside: boolean; time?: string }
  /** After a stop: the same trip once more, or on with the next. */
  | { do: 'again' }
  | { do: 'go-on' }

export const freshGuide = (now: number): Guide => ({
  v: 1,
  trip: 0,
  moment: 'begin',
  line: 0,
  since: now,
  texts: {},
  hows: {},
  kept: [],
  held: [],
})

const MS_PER_S = 1000

/** Whole seconds until it is ready; 0 once it is, or where nobody waits. */
export function secondsLeft({ moment, since }: Guide, { ready_s }: Ritual, now: number): number {
  if (moment !== 'ready') return 0
  // A clock that was set back makes nobody wait longer than the model says.
  const waited_ms = Math.max(0, now - since)
  return Math.max(0, Math.ceil(ready_s - waited_ms / MS_PER_S))
}

/** Where somebody is by now: a wait that is over has gone on by itself. */
export function byNow(guide: Guide, ritual: Ritual, now: number): Guide {
  return guide.moment === 'ready' && secondsLeft(guide, ritual, now) === 0 ? at(guide, 'to-c', now) : guide
}

/** What a paired adapter tells of the plug: the state it makes, and whether the outlet is live; null where it does not say. */
export type PlugTold = { state: PilotState | null; isLive: boolean | null }

/** Whether what an adapter tells ends a moment by itself; what it does not say, a person confirms. */
export function isPassedBy({ moment }: Guide, { state, isLive }: PlugTold): boolean {
  switch (moment) {
    case 'to-a':
      return state === 'A' && isLive !== true
    // Nothing is tripped on an outlet of which nobody knows that it is live.
    case 'to-c':
      return state === 'C' && isLive === true
    case 'trip':
      return isLive === false
    default:
      return false
  }
}

const at = (guide: Guide, moment: Guide['moment'], now: number, line = 0): Guide => ({
  ...guide,
  moment,
  line,
  since: now,
})

/** What follows the figure of a trip: where it held the adapter stays in C, else the ritual begins anew. */
function afterRead(guide: Guide, { slots }: Ritual, now: number): Guide {
  if (guide.trip >= slots.length - 1) return at(guide, 'done', now)
  const isLive = guide.held.includes(slots[guide.trip]!)
  return at({ ...guide, trip: guide.trip + 1 }, isLive ? 'trip' : 'to-a', now)
}

function done(guide: Guide, ritual: Ritual, now: number): Guide {
  switch (guide.moment) {
    case 'begin':
      return ritual.slots.length === 0 ? at(guide, 'done', now) : at(guide, 'to-c', now)
    case 'to-a':
      return at(guide, 'reset', now)
    case 'reset':
      return guide.line < ritual.resetLines - 1
        ? { ...guide, line: guide.line + 1 }
        : at(guide, ritual.ready_s > 0 ? 'ready' : 'to-c', now)
    case 'ready':
      return at(guide, 'to-c', now)
    case 'to-c':
      return at(guide, 'trip', now)
    case 'trip':
      return at(withHeld(guide, ritual, false), 'read', now)
    default:
      return guide
  }
}

function withHeld(guide: Guide, { slots }: Ritual, isHeld: boolean): Guide {
  const slot = slots[guide.trip]!
  const rest = guide.held.filter((one) => one !== slot)
  return { ...guide, held: isHeld ? [...rest, slot] : rest }
}

/** One moment back; from the first of a trip to the figure of the trip before. */
function back(guide: Guide, ritual: Ritual, now: number): Guide {
  const { moment, line, trip } = guide
  if (moment === 'reset' && line > 0) return { ...guide, line: line - 1 }
  if (moment === 'begin' || moment === 'done') return guide
  if (moment === 'stopped') return at(guide, 'read', now)
  const first =
    trip === 0
      ? 'to-c'
      : ritual.slots[trip - 1] !== undefined && guide.held.includes(ritual.slots[trip - 1]!)
        ? 'trip'
        : 'to-a'
  if (moment === first) return trip === 0 ? at(guide, 'begin', now) : at({ ...guide, trip: trip - 1 }, 'read', now)
  const before = moments[moments.indexOf(moment) - 1]!
  return at(
    guide,
    before === 'ready' ? 'reset' : before,
    now,
    before === 'ready' || before === 'reset' ? Math.max(0, ritual.resetLines - 1) : 0,
  )
}

/** Where somebody is after a move. A move that this moment does not have changes nothing. */
export function moved(before: Guide, move: Move, ritual: Ritual, now: number): Guide {
  const guide = byNow(before, ritual, now)
  const slot = ritual.slots[guide.trip]
  switch (move.do) {
    case 'done':
      return done(guide, ritual, now)
    case 'back':
      return back(guide, ritual, now)
    case 'held':
      return guide.moment === 'trip' ? at(withHeld(guide, ritual, true), 'read', now) : guide
    case 'read': {
      if (guide.moment !== 'read' || slot === undefined) return guide
      const timeSlot = ritual.times?.[slot]
      const read = { [slot]: move.text, ...(timeSlot && move.time ? { [timeSlot]: move.time } : {}) }
      const texts = { ...guide.texts, ...read }
      const isSame = Object.entries(read).every(([id, text]) => guide.texts[id] === text)
      // A figure that is read once more makes another reading of its test.
      const kept = isSame ? guide.kept : guide.kept.filter((test) => test !== move.test)
      const hows = Object.fromEntries(Object.keys(read).map((id) => [id, move.how]))
      const known = { ...guide, texts, kept, hows: { ...guide.hows, ...hows } }
      return move.isOutside ? at(known, 'stopped', now) : afterRead(known, ritual, now)
    }
    case 'again': {
      if (guide.moment !== 'stopped' || slot === undefined) return guide
      const { [slot]: _, [ritual.times?.[slot] ?? '']: __, ...texts } = guide.texts
      const isLive = guide.held.includes(slot)
      return at({ ...withHeld(guide, ritual, false), texts }, isLive ? 'trip' : 'to-a', now)
    }
    case 'go-on':
      return guide.moment === 'stopped' ? afterRead(guide, ritual, now) : guide
  }
}

/** A place as it was stored, if it is one of this ritual; else null: another model, another school. */
export function guideFrom(stored: unknown, { slots, times = {} }: Ritual): Guide | null {
  const parsed = guideSchema.safeParse(stored)
  if (!parsed.success) return null
  const { trip, texts, held } = parsed.data
  const known = new Set([...slots, ...Object.values(times)])
  const isOf = [...Object.keys(texts), ...held].every((slot) => known.has(slot))
  return trip < Math.max(1, slots.length) && isOf ? parsed.data : null
}
