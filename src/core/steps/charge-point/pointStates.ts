/**
 * The states that an adapter makes in the car's place: what must happen at each, seen by two witnesses, the adapter at
 * the outlet and the point's own lamp or display. Source: IEC 61851-1:2017 annex A (from memory).
 */
import type { PartData } from '../../plant/part'
import { type PilotState, pilotBand } from '../../pilot/state'
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { decide, type Ruling } from '../../verdict/judgement'
import { hold, notYet, ruled } from '../holding'
import { choiceIn, figureOf } from '../reading'
import { type ChoiceSlot, choiceSlot, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { ReadStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { atPoint, hasSocket, isNotVentilated, isVentilated, modelOf, type PointContext } from './point'

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
type Row = {
  state: PilotState
  /** How the state is made a second time: back in A after the outlet was live. */
  id: string
  outlet: typeof OFF | typeof LIVE
  /** What the point may show then; null where nobody asks. */
  shown: readonly Shows[] | null
  ask: Ask
}

const rows: readonly Row[] = [
  { state: 'A', id: 'a', outlet: OFF, shown: ['shows-ready'], ask: {} },
  { state: 'B', id: 'b', outlet: OFF, shown: ['shows-waiting', 'shows-ready'], ask: {} },
  { state: 'C', id: 'c', outlet: LIVE, shown: ['shows-charging'], ask: {} },
  { state: 'D', id: 'd', outlet: LIVE, shown: ['shows-charging'], ask: { only: isVentilated } },
  { state: 'D', id: 'd-refused', outlet: OFF, shown: null, ask: { only: isNotVentilated, optional: true } },
  { state: 'A', id: 'a-again', outlet: OFF, shown: null, ask: {} },
  { state: 'F', id: 'f', outlet: OFF, shown: null, ask: { optional: true } },
]

const adapterSlot = ({ id, outlet, ask }: Row): ChoiceSlot =>
  choiceSlot({ ...outletSlot(`adapter-${id}`, outlet), balloon: 1, ...ask })
const shownSlot = ({ id, shown, ask }: Row): ChoiceSlot =>
  choiceSlot({ id: `shown-${id}`, options: shows, sound: shown ?? shows, balloon: 3, ...ask })
const levelSlot = ({ id, ask: { only } }: Row): NumberSlot =>
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
const slots: readonly Slot[] = [
  ...rows.flatMap((row) => [
    adapterSlot(row),
    ...(row.shown ? [shownSlot(row)] : []),
    ...(row.id === 'b' ? [lockSlot] : []),
  ]),
  ...levels.map(levelSlot),
]

const source = 'iec-61851-states'

/** The outlet as the adapter saw it. */
function outletRuling(context: PointContext, { id, state, outlet }: Row): Ruling[] {
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
function shownRuling(context: PointContext, { id, state, shown }: Row): Ruling[] {
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

function levelRuling(context: PointContext, row: Row): Ruling[] {
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

/** The states in the order in which the knob goes through them, for whoever draws them. */
export const stateRows = (part: PartData): readonly Row[] =>
  rows.filter(({ ask }) => !ask.only || part.kind !== 'charge-point' || part.ventilated === (ask.only === isVentilated))

export const pointStates: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-states',
  order: 'F3',
  slots,
  kit: () => ['ev-adapter'],
  cautions: [
    { id: 'outlet-becomes-live', hard: true },
    { id: 'finger-guarded', hard: false },
  ],
  hookup: {
    drawing: 'point-states',
    leads: [
      { balloon: 1, code: 'adapter-outlet' },
      { balloon: 2, code: 'pilot-level' },
      { balloon: 3, code: 'point-display' },
      { balloon: 4, code: 'plug-lock' },
    ],
  },
  minutes: 4,
  sources: ['iec-61851-states', 'iec-61851-pilot', 'point-practice'],
  mendingTouches: ['point-pilot-short', 'point-earth-lost'],
  judge(context) {
    const rulings = [
      ...rows.flatMap((row) => [...outletRuling(context, row), ...shownRuling(context, row)]),
      ...levels.flatMap((row) => levelRuling(context, row)),
      ...lockRuling(context),
    ]
    return rulings.length > 0 ? decide(rulings) : notYet(context, 'point-states.no-reading')
  },
  causes(context, judgement) {
    const figures = { tag: context.part.data.tag }
    const { code } = judgement.finding
    if (code === 'point-states.welded' || code === 'point-states.live-when-off')
      return [causeOf('contactor-welded', 'fits', 'open-breaker-and-snag', figures)]
    if (code === 'point-states.dead-when-live')
      return [
        causeOf('point-not-released', 'may-fit', 'see-pin-and-limit', figures),
        causeOf('pilot-wire', 'may-fit', 'look-at-pilot-wire', figures),
      ]
    if (code === 'point-states.no-lock') return [causeOf('lock-motor', 'fits', 'look-at-lock', figures)]
    return []
  },
  example: {
    source:
      'IEC 61851-1:2017 annex A (from memory): in state B the car is connected and has not asked: the outlet is off',
    part: examplePoint,
    named: exampleServed,
    reading: {
      slots: {
        'adapter-a': { choice: OFF },
        'level-a': readValueOf(11.9, 'V', 1),
        'adapter-b': { choice: LIVE },
        'shown-b': { choice: 'shows-waiting' },
        'plug-lock': { choice: 'plug-held' },
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
