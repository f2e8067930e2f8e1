/**
 * Prospective currents at a board with its earthing in place, against what every device there can break, and against
 * Ze. Sources: BS 7671:2018 434.1 and 643.7.3 (from memory); three phases: common practice.
 */
import { belowWhatZeGives, faultCurrents } from '../loop/faultCurrent'
import { type ReadValue, readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import type { WorkingLine } from '../verdict/working'
import {
  highestIn,
  isThreePhase,
  judgeMeasured,
  lineSlots,
  liveGates,
  measuredZe,
  notYet,
  numberSlot,
  readingsIn,
  saying,
  soundCircuits,
} from './acShared'
import type { Step, StepContext } from './step'
import { exampleBoard, exampleCircuit, exampleSupply } from './worked'

/** What a loop and a current read with two instruments may differ by at these currents, per cent [D]. */
const AGREE_PCT = 15

const pefcSlots = lineSlots('pefc', 'fault-current', 'A', 1)
const psccSlots = lineSlots('pscc', 'fault-current', 'A', 2)
/** Between two lines: instruments that can show it straight away. */
const lineLineSlots = ['l1-l2', 'l1-l3', 'l2-l3'].map((pair) =>
  numberSlot(`line-line-${pair}`, 'fault-current', 'A', 2, { only: isThreePhase, optional: true }),
)

/** Currents of a board: the highest line to earth, to neutral, and between lines where they were read. */
function currentsOf({ part, plant }: StepContext<'board'>, reading: Pick<Body<'reading'>, 'slots'>) {
  const [pefc, pscc] = [highestIn(reading, pefcSlots), highestIn(reading, psccSlots)]
  if (!pefc || !pscc) return null
  const nominal_V = plant.supply?.data.nominal_V ?? 230
  const lineLine = highestIn(reading, lineLineSlots)
  const found = faultCurrents({
    lineEarth_ohm: nominal_V / pefc.value,
    lineNeutral_ohm: nominal_V / pscc.value,
    lineLine_ohm: lineLine && (Math.sqrt(3) * nominal_V) / lineLine.value,
    nominal_V,
    phases: part.data.phases ?? plant.supply?.data.phases ?? 1,
  })
  return { pefc, pscc, lineLine, nominal_V, ...found }
}

/** The line whose PEFC lies under what Ze alone gives; the lowest of them. */
const lowestPefc = (reading: Pick<Body<'reading'>, 'slots'>): ReadValue =>
  [...readingsIn(reading, pefcSlots).values()].reduce((least, one) => (one.value < least.value ? one : least))

/** The weakest breaking capacity on this board, A; null where none is entered. */
function weakest({ part, plant }: StepContext<'board'>): number | null {
  const known = plant.circuitsOf(part).flatMap(({ data }) => (data.breaking_kA === null ? [] : [data.breaking_kA]))
  return known.length === 0 ? null : 1000 * Math.min(...known)
}

export const faultCurrentStep: Step<'board'> = {
  id: 'fault-current',
  order: 'E3',
  appliesTo: 'board',
  station: 'board',
  tag: 'live',
  slots: [...pefcSlots, ...psccSlots, ...lineLineSlots],
  stands: 'highest',
  needsConditions: false,
  counts: 'latest',
  gates: [...liveGates, ...soundCircuits],
  cautions: [
    { id: 'finger-guarded', hard: true },
    { id: 'fault-current-flows', hard: false },
  ],
  hookup: {
    drawing: 'fault-current',
    leads: [
      { balloon: 1, code: 'line-earth' },
      { balloon: 2, code: 'line-neutral' },
    ],
  },
  minutes: 3,
  sources: ['bs7671-fault-current', 'fault-current-practice'],
  inputs: () => '',
  judge(context, reading) {
    const found = currentsOf(context, reading)
    if (!found) return notYet('fault-current.no-reading', context)
    const figures = { ipf: found.ipf_A, pefc: found.pefc.text, pscc: found.pscc.text }
    const most = weakest(context)
    if (most === null) return notYet('fault-current.no-device', context, figures)
    const judged = judgeMeasured(context, {
      step: 'fault-current',
      read: readValueOf(found.ipf_A, 'A', 0),
      reading,
      unit: 'A',
      scale: 'log',
      band: { low: null, high: most, closeLow: null, closeHigh: null },
      source: 'bs7671-fault-current',
      limit: { id: 'ac.breaking', value: most },
      figures,
    })
    const measured = measuredZe(context)
    const lowest = lowestPefc(reading)
    if (!measured || !belowWhatZeGives(lowest.value, measured.value, found.nominal_V, AGREE_PCT)) return judged
    const said = { least: found.nominal_V / measured.value, pefc: lowest.text }
    return judged.verdict === 'outside' ? judged : saying(judged, 'fault-current.below-ze', said, 'not-yet')
  },
  working(context, reading): WorkingLine[] {
    const found = currentsOf(context, reading)
    const most = weakest(context)
    const measured = measuredZe(context)
    if (!found) return []
    return [
      {
        code: found.threePhase_A === null ? 'fault-current.ipf' : 'fault-current.ipf-three',
        figures: { pefc: found.pefc.text, pscc: found.pscc.text, three: found.threePhase_A ?? 0 },
        result: { value: found.ipf_A, unit: 'A', decimals: 0 },
        source: found.threePhase_A === null ? 'bs7671-fault-current' : 'fault-current-practice',
      },
      ...(found.lineLine_A === null
        ? []
        : [
            {
              code: found.lineLine ? 'fault-current.line-line-read' : 'fault-current.line-line',
              figures: { pscc: found.pscc.text, read: found.lineLine?.text ?? '' },
              result: { value: found.lineLine_A, unit: 'A' as const, decimals: 0 },
              source: 'fault-current-practice' as const,
            },
          ]),
      ...(measured
        ? [
            {
              code: 'fault-current.from-ze',
              figures: { nominal_V: found.nominal_V, ze: measured.text },
              result: { value: found.nominal_V / measured.value, unit: 'A' as const, decimals: 0 },
              source: 'bs7671-ze' as const,
            },
          ]
        : []),
      ...(most === null
        ? []
        : [
            {
              code: 'fault-current.breaking',
              figures: {},
              result: { value: most, unit: 'A' as const, decimals: 0 },
              source: 'bs7671-fault-current' as const,
              decides: true,
            },
          ]),
    ]
  },
  causes(context, _, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    return [
      { code: 'device-too-weak', figures, fit: 'fits', predicted: null, next: { code: 'stronger-device', figures } },
    ]
  },
  example: {
    source: 'common practice, no source: PEFC 799 A and PSCC 759 A give an Ipf of 799 A, below a 6 kA device',
    part: exampleBoard,
    others: () => [exampleSupply, exampleCircuit],
    reading: {
      slots: { pefc: readValueOf(799, 'A', 0), pscc: readValueOf(759, 'A', 0) },
      conditions: null,
    },
    verdict: 'within',
  },
}
