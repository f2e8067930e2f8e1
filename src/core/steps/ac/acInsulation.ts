/**
 * Insulation of a circuit: pairs one by one, or line and neutral joined to the protective conductor, with the traps of
 * a false pass. Source: BS 7671:2018 643.3 and IEC 60364-6 table 6.1 (from memory); traps: common practice.
 */
import { acInsulationTest, isPerfect, pairsOf } from '../../circuit/insulation'
import { isPeriodicWork } from '../../plant/work'
import { readValueOf } from '../../quantity/readValue'
import { type Cause, causeOf } from '../../verdict/cause'
import { atLeast, type Band } from '../../verdict/compare'
import { decide, type Ruling } from '../../verdict/judgement'
import type { Decided, Figures } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import { deadGate } from '../gates'
import { but, hold, notYet, ruled } from '../holding'
import { choiceIn, figureOf, figuresOf, rising } from '../reading'
import { choiceSlot, type Column, isThreePhase, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleCircuit, exampleSupply } from '../worked'
import { handled } from './circuitOff'
import {
  BOARD_SLOT,
  isWholeBoard,
  othersOnBoard,
  WHOLE_BOARD,
  wholeBoardCauses,
  wholeBoardWorking,
} from './acWholeBoard'
import { supplyOf } from './shared'

type Context = StepContext<'circuit'>

/** Line and neutral apart, each against the protective conductor: across electronics that stay in nothing is read. */
const EACH = 'each-to-pe'
const JOINED = 'joined-to-pe'
const OUT = 'electronics-out'
const SETTINGS = ['v250', 'v500', 'v1000'] as const

/** Between live conductors, and to the protective conductor: the schedule has a heading for each. */
const LIVE: Column = { id: 'live', worst: 'lowest' }
const TO_EARTH: Column = { id: 'to-earth', worst: 'lowest' }

const insulation = (id: string, rest: Partial<NumberSlot>): NumberSlot => numberSlot(id, 'insulation', 'Mohm', 2, rest)
const pairSlot = (pair: string, phases: 1 | 3): NumberSlot =>
  insulation(pair.toLowerCase(), {
    of: { pair },
    column: pair.endsWith('-PE') ? TO_EARTH : LIVE,
    when: { slot: 'pairing', is: pair.endsWith('-PE') ? ['pair-by-pair', EACH] : ['pair-by-pair'] },
    only: (part) => pair === 'N-PE' || isThreePhase(part) === (phases === 3),
  })
const pairSlots: readonly NumberSlot[] = [
  ...pairsOf[1].map((pair) => pairSlot(pair, 1)),
  ...pairsOf[3].filter((pair) => pair !== 'N-PE').map((pair) => pairSlot(pair, 3)),
]
const joinedSlot = insulation(JOINED, {
  of: { pair: 'L+N-PE' },
  column: TO_EARTH,
  when: { slot: 'pairing', is: ['all-joined'] },
})
const boardSlot = insulation(BOARD_SLOT, {
  of: { pair: 'L+N-PE' },
  column: TO_EARTH,
  when: { slot: 'pairing', is: [WHOLE_BOARD] },
})
/**
 * Joined to earth, a fault between live conductors is not seen: where nothing would suffer it is read as well. What has
 * been at work for years showed such a fault by itself: a periodic inspection does without.
 */
const liveSlot = insulation('live-to-live', {
  of: { pair: 'L-N' },
  column: LIVE,
  since: 2,
  when: [
    { slot: 'pairing', is: ['all-joined', WHOLE_BOARD, EACH] },
    { slot: 'electronics', is: [OUT] },
  ],
  only: (_part, _regime, { plant }) => !isPeriodicWork(plant),
})
/** What the instrument delivered, the least of it where pairs were read one by one. */
const applied = numberSlot('applied', 'dc-voltage', 'V', 3, { optional: true })
const figureSlots = [...pairSlots, joinedSlot, boardSlot, liveSlot]

const slots: readonly Slot[] = [
  choiceSlot({ id: 'pairing', options: ['pair-by-pair', 'all-joined', WHOLE_BOARD, EACH], sticky: true, balloon: 2 }),
  choiceSlot({ id: 'devices', options: ['all-on', 'some-off'], sound: ['all-on'], sticky: true, balloon: 1 }),
  choiceSlot({
    id: 'tested-from',
    options: ['beyond-rcd', 'through-rcd'],
    sound: ['beyond-rcd'],
    sticky: true,
    balloon: 1,
    only: (part) => part.kind === 'circuit' && part.rcdId !== null,
  }),
  choiceSlot({
    id: 'earthing',
    options: ['earth-connected', 'earth-not-connected'],
    sound: ['earth-connected'],
    sticky: true,
    balloon: 2,
  }),
  choiceSlot({ id: 'electronics', options: [OUT, 'electronics-in'], sound: [OUT], sticky: true, balloon: 1 }),
  choiceSlot({ id: 'surge', options: ['none-there', 'disconnected', 'left-in'], sticky: true, balloon: 3 }),
  choiceSlot({ id: 'set-voltage', options: SETTINGS, sticky: true, stated: true, balloon: 3, since: 2 }),
  ...figureSlots,
  applied,
]

/** Nominal voltage between the conductors of a circuit, V: between lines where there are three. */
function nominalOf(context: Context): number | null {
  const supply = supplyOf(context)
  return supply && supply.data.nominal_V * (isThreePhase(context.part.data) ? Math.sqrt(3) : 1)
}

function testOf(context: Context, nominal_V: number) {
  return acInsulationTest(nominal_V, choiceIn(context.reading, 'surge') === 'left-in')
}

const bandOf = (context: Context, minimum_Mohm: number): Band =>
  atLeast(minimum_Mohm, minimum_Mohm * context.limit('close.insulation').value)

/** How it was tested: what decides nothing whatever was read. */
function testRulings(context: Context, testVoltage_V: number): Ruling[] {
  const { reading } = context
  const rulings: Ruling[] = []
  const say = (verdict: Decided, code: string, figures: Figures = {}): void => {
    const line = { code: `ac-insulation.${code}`, figures, source: 'bs7671-insulation' } as const
    rulings.push(ruled(context, verdict, `ac-insulation.${code}`, line, figures))
  }
  const set = choiceIn(reading, 'set-voltage')
  const set_V = set === null ? null : Number(set.slice(1))
  if (set_V !== null && set_V < testVoltage_V) say('not-yet', 'too-low-voltage', { set_V, volts: testVoltage_V })
  const put = figureOf(context, applied)
  // By the figure itself, and by what a bound proves: a worse instrument must not make it right.
  if (put && put.span.least < testVoltage_V)
    say('not-yet', 'applied-too-low', { applied: put.read.text, volts: testVoltage_V })
  const isPartOff = choiceIn(reading, 'devices') === 'some-off'
  if (isPartOff && figuresOf(context, figureSlots).some(({ read }) => isPerfect(read))) say('not-yet', 'open-ends')
  return rulings
}

/**
 * What lies behind a low figure, by where it is low: a load lies between live conductors and leaves the way to earth
 * alone; where these were read and are sound, it is none.
 */
function lowCauses(context: Context): Cause[] {
  const nominal_V = nominalOf(context)
  if (nominal_V === null) return []
  const { minimum_Mohm } = testOf(context, nominal_V)
  const read = figuresOf(context, figureSlots).map(({ slot, span }) => ({
    isLive: !slot.of!.pair!.endsWith('-PE'),
    isLow: span.least < minimum_Mohm,
  }))
  const live = read.filter(({ isLive }) => isLive)
  const isLow = (one: { isLow: boolean }): boolean => one.isLow
  const toEarth = read.some((one) => !one.isLive && one.isLow)
  const figures = { tag: context.part.data.tag }
  const load = causeOf('load-connected', live.some(isLow) && !toEarth ? 'fits' : 'may-fit', 'take-loads-out', figures)
  const others = [
    causeOf('damaged-cable', 'may-fit', 'halve-the-circuit', figures),
    causeOf('damp-accessory', 'may-fit', 'open-and-dry', figures),
  ]
  if (live.length > 0 && !live.some(isLow)) return others
  return toEarth ? [...others, load] : [load, ...others]
}

export const acInsulation: ReadStep<'circuit'> = {
  kind: 'read',
  id: 'ac-insulation',
  order: 'C5',
  appliesTo: 'circuit',
  station: 'board',
  protects: true,
  tag: 'dead',
  slots,
  readsOthers: true,
  counts: 'latest',
  gates: [deadGate],
  asksFor(context): Readonly<Record<string, string>> {
    const nominal_V = nominalOf(context)
    return nominal_V === null ? {} : { 'set-voltage': `v${testOf(context, nominal_V).testVoltage_V}` }
  },
  cautions: [
    { id: 'insulation-nobody-touches', hard: true },
    { id: 'electronics-out', hard: false },
    { id: 'earth-connected-for-insulation', hard: false },
    { id: 'discharge-after', hard: false },
  ],
  hookup: {
    drawing: 'ac-insulation',
    leads: [
      { balloon: 1, code: 'circuit-devices-on' },
      { balloon: 2, code: 'pair-under-test' },
      { balloon: 3, code: 'surge-devices' },
    ],
  },
  effects: [handled],
  minutes: 3,
  sources: ['bs7671-insulation', 'insulation-practice', 'house-perfect'],
  mendingTouches: ['r1r2', 'ac-polarity'],
  trap({ part, reading }) {
    const figures = { tag: part.data.tag }
    // Nothing leaks to an earth that is not there.
    if (choiceIn(reading, 'earthing') === 'earth-not-connected') return { code: 'ac-insulation.earth-off', figures }
    if (choiceIn(reading, 'tested-from') === 'through-rcd') return { code: 'ac-insulation.through-rcd', figures }
    const isPaired = choiceIn(reading, 'pairing') === 'pair-by-pair'
    if (choiceIn(reading, 'electronics') === 'electronics-in' && isPaired)
      return { code: 'ac-insulation.across-electronics', figures }
    return null
  },
  scaleBefore(context) {
    const nominal_V = nominalOf(context)
    return nominal_V === null
      ? null
      : {
          unit: 'Mohm',
          scale: 'log',
          measured: null,
          expected: null,
          band: bandOf(context, testOf(context, nominal_V).minimum_Mohm),
          source: 'bs7671-insulation',
        }
  },
  judge(context) {
    const nominal_V = nominalOf(context)
    if (nominal_V === null) return notYet(context, 'ac-insulation.no-supply')
    const { testVoltage_V, minimum_Mohm } = testOf(context, nominal_V)
    const before = (): WorkingLine[] => [
      {
        code: 'ac-insulation.voltage',
        figures: { nominal_V },
        result: { value: testVoltage_V, unit: 'V', decimals: 0 },
        source: 'bs7671-insulation',
      },
    ]
    const read = rising(figuresOf(context, figureSlots))
    if (read.length === 0) {
      const line = {
        code: 'ac-insulation.wanted',
        figures: { least: minimum_Mohm },
        source: 'bs7671-insulation',
      } as const
      return decide([ruled(context, 'not-yet', 'ac-insulation.no-reading', line, { volts: testVoltage_V })], { before })
    }
    const band = bandOf(context, minimum_Mohm)
    const limit = { id: 'ac.insulation', value: minimum_Mohm }
    const pairs = read.map((one) => {
      const pair = one.slot.of?.pair ?? ''
      const ruling = hold(context, {
        step: 'ac-insulation',
        span: one.span,
        text: one.read.text,
        slots: [one.slot.id],
        unit: 'Mohm',
        scale: 'log',
        band,
        source: 'bs7671-insulation',
        limit,
        line: {
          code: 'ac-insulation.least',
          figures: () => ({ pair, read: one.read.text }),
          decimals: 1,
        },
        figures: () => ({ volts: testVoltage_V, pair }),
      })
      // One low circuit makes the whole board low: which one it is, nobody knows yet.
      const isBoards = ruling.verdict === 'outside' && isWholeBoard(context.reading)
      return isBoards
        ? but(ruling, { verdict: 'not-yet', finding: { ...ruling.finding, code: 'ac-insulation.board-low' } })
        : ruling
    })
    const flags = choiceIn(context.reading, 'surge') === 'left-in' ? (['surge-left-in'] as const) : []
    return decide([...pairs, ...testRulings(context, testVoltage_V)], {
      flags: [...flags],
      before,
      after: () => wholeBoardWorking(context),
    })
  },
  sharedWith: (context) => (isWholeBoard(context.reading) ? othersOnBoard(context) : []),
  causes(context, judgement) {
    if (judgement.finding.code === 'ac-insulation.board-low') {
      const nominal_V = nominalOf(context)
      return nominal_V === null ? [] : wholeBoardCauses(context, testOf(context, nominal_V).minimum_Mohm)
    }
    if (judgement.verdict !== 'outside') return []
    return lowCauses(context)
  },
  example: {
    source: 'BS 7671:2018 643.3 (from memory): 500 V and 1 Mohm for 230 V; below 2 Mohm is close (common practice)',
    part: exampleCircuit,
    others: () => [exampleSupply],
    reading: {
      slots: {
        pairing: { choice: 'pair-by-pair' },
        devices: { choice: 'all-on' },
        earthing: { choice: 'earth-connected' },
        electronics: { choice: OUT },
        surge: { choice: 'none-there' },
        'set-voltage': { choice: 'v500' },
        'l-n': readValueOf(640, 'Mohm', 0),
        'l-pe': readValueOf(1.4, 'Mohm', 1),
        'n-pe': readValueOf(700, 'Mohm', 0),
      },
      conditions: null,
    },
    verdict: 'close',
  },
}
