/**
 * The states that an adapter makes in the car's place, one by one: what must happen, what each asks, and how its answers
 * are held against that. Source: IEC 61851-1:2017 annex A (from memory).
 */
import type { PartData } from '../../plant/part'
import { type PilotState, pilotBand } from '../../pilot/state'
import type { Ruling } from '../../verdict/judgement'
import { hold, ruled } from '../holding'
import { choiceIn, figureOf } from '../reading'
import { type ChoiceSlot, choiceSlot, isSlotAsked, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { Reading } from '../step'
import { hasSocket, isNotVentilated, isVentilated, modelOf, type PointContext } from './point'

export const OFF = 'outlet-off'
export const LIVE = 'outlet-live'
/** What a point can show, as its model words it. */
export const shows = ['shows-ready', 'shows-waiting', 'shows-charging', 'shows-fault', 'shows-nothing'] as const
type Shows = (typeof shows)[number]

/** Whether the outlet is live, as an adapter tells it. */
export const outletSlot = (id: string, sound: typeof OFF | typeof LIVE): ChoiceSlot =>
  choiceSlot({
    id,
    measures: 'outlet',
    told: (value) => (value > 0 ? LIVE : OFF),
    options: [OFF, LIVE],
    sound: [sound],
    balloon: 2,
  })

const FREE = 'plug-free'

type Ask = Pick<ChoiceSlot, 'only' | 'optional'>
/** One state: the outlet as the adapter sees it, what the point shows, the level of the pilot. */
export type StateRow = {
  state: PilotState
  /** How the state is made a second time: back in A after the outlet was live. */
  id: string
  outlet: typeof OFF | typeof LIVE
  /** What the point may show then; null where nobody asks. */
  shown: readonly Shows[] | null
  /** The plug is held there, where it is one of a socket. */
  holds: boolean
  ask: Ask
}

const rows: readonly StateRow[] = [
  { state: 'A', id: 'a', outlet: OFF, shown: ['shows-ready'], holds: false, ask: {} },
  { state: 'B', id: 'b', outlet: OFF, shown: ['shows-waiting', 'shows-ready'], holds: true, ask: {} },
  { state: 'C', id: 'c', outlet: LIVE, shown: ['shows-charging'], holds: false, ask: {} },
  { state: 'D', id: 'd', outlet: LIVE, shown: ['shows-charging'], holds: false, ask: { only: isVentilated } },
  {
    state: 'D',
    id: 'd-refused',
    outlet: OFF,
    shown: null,
    holds: false,
    ask: { only: isNotVentilated, optional: true },
  },
  { state: 'A', id: 'a-again', outlet: OFF, shown: null, holds: false, ask: {} },
  { state: 'F', id: 'f', outlet: OFF, shown: null, holds: false, ask: { optional: true } },
]

const adapterSlot = ({ id, outlet, ask }: StateRow): ChoiceSlot =>
  choiceSlot({ ...outletSlot(`adapter-${id}`, outlet), balloon: 1, ...ask })
const shownSlot = ({ id, shown, ask }: StateRow): ChoiceSlot =>
  choiceSlot({ id: `shown-${id}`, options: shows, sound: shown ?? shows, balloon: 3, ...ask })
const levelSlot = ({ id, ask: { only } }: StateRow): NumberSlot =>
  numberSlot(`level-${id}`, 'pilot-voltage', 'V', 2, { optional: true, ...(only ? { only } : {}) })
const lockSlot = choiceSlot({
  id: 'plug-lock',
  options: ['plug-held', FREE],
  sound: ['plug-held'],
  balloon: 4,
  only: hasSocket,
})

/** What the levels of the pilot stand in. */
const levels = rows.filter(({ id }) => ['a', 'b', 'c', 'd'].includes(id))
/** State by state as the knob turns; the levels of the pilot, which not every adapter shows, at the end. */
export const stateSlots: readonly Slot[] = [
  ...rows.flatMap((row) => [
    adapterSlot(row),
    ...(row.shown ? [shownSlot(row)] : []),
    ...(row.holds ? [lockSlot] : []),
  ]),
  ...levels.map(levelSlot),
]

const source = 'iec-61851-states'

/** The outlet as the adapter saw it. */
function outletRuling(context: PointContext, { id, state, outlet }: StateRow): Ruling[] {
  const seen = choiceIn(context.reading, `adapter-${id}`)
  if (seen === null) return []
  const line = { code: `point-states.must-${outlet}`, figures: { state }, source } as const
  if (seen === outlet) return [ruled(context, 'within', `point-states.${outlet}`, line, { state })]
  const code =
    outlet === OFF
      ? id === 'a-again'
        ? 'point-states.welded'
        : 'point-states.live-when-off'
      : 'point-states.dead-when-live'
  return [ruled(context, 'outside', code, line, { state })]
}

/** What the point showed: its own word may differ from what the adapter saw, and that is a finding. */
function shownRuling(context: PointContext, { id, state, shown }: StateRow): Ruling[] {
  const seen = choiceIn(context.reading, `shown-${id}`) as Shows | null
  if (seen === null || shown === null) return []
  const line = { code: 'point-states.shown', figures: { state }, source: 'point-practice' } as const
  const figures = { state, seen, wanted: shown[0]! }
  if (shown.includes(seen)) return [ruled(context, 'within', 'point-states.shown-as-it-is', line, figures)]
  if (seen === 'shows-fault') return [ruled(context, 'outside', 'point-states.shows-fault', line, figures)]
  if (seen === 'shows-nothing' && hasNoWordFor(context, shown))
    return [ruled(context, 'within', 'point-states.has-no-lamp', line, figures)]
  return [ruled(context, 'close', 'point-states.shows-other', line, figures)]
}

/** A model without a lamp for a state shows nothing of it. */
function hasNoWordFor(context: PointContext, shown: readonly Shows[]): boolean {
  const model = modelOf(context)
  const words: Partial<Record<Shows, string>> = model
    ? {
        'shows-ready': model.shows.ready,
        'shows-waiting': model.shows.waiting,
        'shows-charging': model.shows.charging,
      }
    : {}
  return model !== null && shown.every((one) => words[one] === '')
}

function levelRuling(context: PointContext, row: StateRow): Ruling[] {
  const slot = levelSlot(row)
  const figure = figureOf(context, slot)
  if (!figure) return []
  const { low, high } = pilotBand(row.state)
  return [
    hold(context, {
      step: 'point-level',
      span: figure.span,
      text: figure.read.text,
      unit: 'V',
      band: { low, high, closeLow: null, closeHigh: null },
      source: 'iec-61851-pilot',
      limit: { id: 'point.level', value: high },
      line: { code: 'point-states.level', figures: { state: row.state, low }, decimals: 0 },
      figures: { state: row.state, low },
    }),
  ]
}

function lockRuling(context: PointContext): Ruling[] {
  const seen = choiceIn(context.reading, lockSlot.id)
  if (seen === null) return []
  const line = { code: 'point-states.must-hold', source } as const
  return [
    seen === FREE
      ? ruled(context, 'outside', 'point-states.no-lock', line)
      : ruled(context, 'within', 'point-states.held', line),
  ]
}

/** The states of a point in the order in which the knob goes through them. */
export const stateRows = (part: PartData): readonly StateRow[] =>
  rows.filter(({ ask }) => !ask.only || part.kind !== 'charge-point' || part.ventilated === (ask.only === isVentilated))

/** What one state comes to; null while a witness of it is wanting. */
export function stateRulings(context: PointContext, reading: Pick<Reading, 'slots'>, row: StateRow): Ruling[] | null {
  const own = contextWith(context, reading)
  const asked = [adapterSlot(row), ...(row.shown ? [shownSlot(row)] : []), ...(row.holds ? [lockSlot] : [])]
  const isOpen = asked.some((slot) => choiceIn(reading, slot.id) === null && isSlotAsked(slot, context))
  if (isOpen) return null
  const level = levels.includes(row) ? levelRuling(own, row) : []
  return [...outletRuling(own, row), ...shownRuling(own, row), ...level, ...(row.holds ? lockRuling(own) : [])]
}

/** The same context with the answers of the states in it. */
const contextWith = (context: PointContext, { slots: answers }: Pick<Reading, 'slots'>): PointContext =>
  Object.create(context, {
    reading: { value: { ...context.reading, slots: answers }, enumerable: true },
    slots: { value: stateSlots, enumerable: true },
  }) as PointContext

/** Questions of one state are answered together. */
export const groupOf = ({ id }: Slot): string | null =>
  id === lockSlot.id ? 'b' : (/^(?:adapter|shown|level)-(.+)$/.exec(id)?.[1] ?? null)

/** Everything that the answers are held against, all states of them. */
export const allRulings = (context: PointContext): Ruling[] => [
  ...rows.flatMap((row) => [...outletRuling(context, row), ...shownRuling(context, row)]),
  ...levels.flatMap((row) => levelRuling(context, row)),
  ...lockRuling(context),
]
