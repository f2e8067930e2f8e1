/**
 * Insulation of a circuit: pairs one by one, or line and neutral joined to the protective conductor, with the traps of
 * a false pass. Source: BS 7671:2018 643.3 and IEC 60364-6 table 6.1 (from memory); traps: common practice.
 */
import { acInsulationTest, judgeAcInsulation, pairsOf } from '../circuit/insulation'
import { insulationBand } from '../pv/insulation'
import { type ReadValue, readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import type { WorkingLine } from '../verdict/working'
import { choiceSlot, deadGate, isThreePhase, judgeMeasured, notYet, numberSlot, readingsIn, saying } from './acShared'
import {
  BOARD_SLOT,
  isWholeBoard,
  othersOnBoard,
  WHOLE_BOARD,
  wholeBoardCauses,
  wholeBoardWorking,
} from './acWholeBoard'
import type { NumberSlot, Slot, Step, StepContext } from './step'
import { choiceIn } from './stringReading'
import { exampleCircuit } from './worked'

const JOINED = 'joined-to-pe'
const pairSlot = (pair: string, phases: 1 | 3): NumberSlot =>
  numberSlot(pair.toLowerCase(), 'insulation', 'Mohm', 2, {
    when: { slot: 'pairing', is: ['pair-by-pair'] },
    only: (part) => pair === 'N-PE' || isThreePhase(part) === (phases === 3),
  })
const pairSlots: readonly NumberSlot[] = [
  ...pairsOf[1].map((pair) => pairSlot(pair, 1)),
  ...pairsOf[3].filter((pair) => pair !== 'N-PE').map((pair) => pairSlot(pair, 3)),
]
const joinedSlot = numberSlot(JOINED, 'insulation', 'Mohm', 2, { when: { slot: 'pairing', is: ['all-joined'] } })

const boardSlot = numberSlot(BOARD_SLOT, 'insulation', 'Mohm', 2, { when: { slot: 'pairing', is: [WHOLE_BOARD] } })

const slots: readonly Slot[] = [
  choiceSlot({ id: 'pairing', options: ['pair-by-pair', 'all-joined', WHOLE_BOARD], sticky: true, balloon: 2 }),
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
  choiceSlot({
    id: 'electronics',
    options: ['electronics-out', 'electronics-in'],
    sound: ['electronics-out'],
    sticky: true,
    balloon: 1,
  }),
  choiceSlot({ id: 'surge', options: ['none-there', 'disconnected', 'left-in'], sticky: true, balloon: 3 }),
  ...pairSlots,
  joinedSlot,
  boardSlot,
]

/** Readings by pair; what was read joined, or of a whole board, stands for all live conductors to earth. */
function pairsIn(reading: Pick<Body<'reading'>, 'slots'>): Record<string, ReadValue> {
  const named = (id: string): string => (id === JOINED || id === BOARD_SLOT ? 'L+N-PE' : id.toUpperCase())
  const found = readingsIn(reading, [...pairSlots, joinedSlot, boardSlot])
  return Object.fromEntries([...found].map(([id, read]) => [named(id), read]))
}

function testOf({ plant }: StepContext<'circuit'>, reading: Pick<Body<'reading'>, 'slots'>) {
  return acInsulationTest(plant.supply?.data.nominal_V ?? 230, choiceIn(reading, 'surge') === 'left-in')
}

/** Set-ups that read well or badly whatever the cable is like. */
const trapOf: NonNullable<Step<'circuit'>['trap']> = ({ part }, reading) => {
  const figures = { tag: part.data.tag }
  // Nothing leaks to an earth that is not there.
  if (choiceIn(reading, 'earthing') === 'earth-not-connected') return { code: 'ac-insulation.earth-off', figures }
  if (choiceIn(reading, 'tested-from') === 'through-rcd') return { code: 'ac-insulation.through-rcd', figures }
  const isPaired = choiceIn(reading, 'pairing') === 'pair-by-pair'
  if (choiceIn(reading, 'electronics') === 'electronics-in' && isPaired)
    return { code: 'ac-insulation.across-electronics', figures }
  return null
}

export const acInsulation: Step<'circuit'> = {
  id: 'ac-insulation',
  order: 'C4',
  appliesTo: 'circuit',
  station: 'board',
  tag: 'dead',
  slots,
  needsConditions: false,
  counts: 'latest',
  gates: [deadGate],
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
  minutes: 3,
  sources: ['bs7671-insulation', 'insulation-practice', 'house-perfect'],
  inputs: () => '',
  trap: trapOf,
  judge(context, reading) {
    const test = testOf(context, reading)
    const factor = context.regime.limits['close.insulation'].value
    const devicesOn = choiceIn(reading, 'devices') !== 'some-off'
    const found = judgeAcInsulation(pairsIn(reading), test.minimum_Mohm, devicesOn, factor)
    if (!found.lowest) return notYet('ac-insulation.no-reading', context, { volts: test.testVoltage_V })
    const judged = judgeMeasured(context, {
      step: 'ac-insulation',
      read: found.lowest,
      reading,
      unit: 'Mohm',
      scale: 'log',
      band: insulationBand(test.minimum_Mohm, factor),
      source: 'bs7671-insulation',
      limit: { id: 'ac.insulation', value: test.minimum_Mohm },
      figures: { volts: test.testVoltage_V },
    })
    const flags = choiceIn(reading, 'surge') === 'left-in' ? (['surge-left-in'] as const) : []
    const trapped = trapOf(context, reading)
    if (trapped) return { ...saying(judged, trapped.code, {}, 'not-yet'), flags: [...flags] }
    if (found.perfectOnOpenEnds)
      return { ...saying(judged, 'ac-insulation.open-ends', {}, 'not-yet'), flags: [...flags] }
    // One low circuit makes the whole board low: which one it is, nobody knows yet.
    if (found.verdict === 'outside' && isWholeBoard(reading))
      return { ...saying(judged, 'ac-insulation.board-low', {}, 'not-yet'), flags: [...flags] }
    return { ...judged, verdict: found.verdict, flags: [...flags] }
  },
  sharedWith: (context, reading) => (isWholeBoard(reading) ? othersOnBoard(context) : []),
  working(context, reading): WorkingLine[] {
    const test = testOf(context, reading)
    return [
      {
        code: 'ac-insulation.voltage',
        figures: { nominal_V: context.plant.supply?.data.nominal_V ?? 230 },
        result: { value: test.testVoltage_V, unit: 'V', decimals: 0 },
        source: 'bs7671-insulation',
      },
      {
        code: 'ac-insulation.least',
        figures: {},
        result: { value: test.minimum_Mohm, unit: 'Mohm', decimals: 1 },
        source: 'bs7671-insulation',
        decides: true,
      },
      ...wholeBoardWorking(context, reading),
    ]
  },
  causes(context, reading, judgement) {
    if (judgement.finding.code === 'ac-insulation.board-low')
      return wholeBoardCauses(context, reading, testOf(context, reading).minimum_Mohm)
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    return [
      { code: 'load-connected', figures, fit: 'may-fit', predicted: null, next: { code: 'take-loads-out', figures } },
      { code: 'damaged-cable', figures, fit: 'may-fit', predicted: null, next: { code: 'halve-the-circuit', figures } },
      { code: 'damp-accessory', figures, fit: 'may-fit', predicted: null, next: { code: 'open-and-dry', figures } },
    ]
  },
  example: {
    source: 'BS 7671:2018 643.3 (from memory): 500 V and 1 Mohm for 230 V; below 2 Mohm is close (common practice)',
    part: exampleCircuit,
    reading: {
      slots: {
        pairing: { choice: 'pair-by-pair' },
        devices: { choice: 'all-on' },
        surge: { choice: 'none-there' },
        'l-n': readValueOf(640, 'Mohm', 0),
        'l-pe': readValueOf(1.4, 'Mohm', 1),
        'n-pe': readValueOf(700, 'Mohm', 0),
      },
      conditions: null,
    },
    verdict: 'close',
  },
}
