/**
 * Prospective currents at a board with its earthing in place, against what every device there can break, and at the
 * origin against Ze. Sources: BS 7671:2018 434.1 and 643.7.3 (from memory); three phases: common practice.
 */
import { faultCurrents } from '../../loop/faultCurrent'
import { readValueOf } from '../../quantity/readValue'
import { scaled, type Span } from '../../quantity/span'
import { causeOf } from '../../verdict/cause'
import { atMost, compare, atLeast } from '../../verdict/compare'
import { decide, type Ruling } from '../../verdict/judgement'
import type { Decided } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import { liveGates } from '../gates'
import { hold, notYet, ruled } from '../holding'
import { type Figure, figureOf, figuresOf, highestOf, lowestOf } from '../reading'
import { isThreePhase, lineSlots, type NumberSlot, numberSlot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleBoard, exampleCircuit, exampleSupply } from '../worked'
import {
  besidesRulings,
  earthLoop,
  isGrave,
  loopsBesides,
  type OwnFigures,
  shareLines,
  voltsBesides,
} from './pressBesides'
import { measuredZe, supplyOf } from './shared'

type Context = StepContext<'board'>

/** What a loop and a current read with two instruments may differ by at these currents, per cent [D]. */
const AGREE_PCT = 15

/** Of one line the conductors are told: one press may give both. */
const between = (pair: string, [one, ...lines]: readonly NumberSlot[]): readonly NumberSlot[] => [
  { ...one!, of: { pair } },
  ...lines,
]
const pefcSlots = between('L-PE', lineSlots('pefc', 'fault-current', 'A', 1, {}, 'PE'))
const psccSlots = between('L-N', lineSlots('pscc', 'fault-current', 'A', 2, {}, 'N'))
/** Between two lines: instruments that can show it straight away. */
const lineLineSlots = ['l1-l2', 'l1-l3', 'l2-l3'].map((pair) =>
  numberSlot(`line-line-${pair}`, 'fault-current', 'A', 2, {
    of: { pair: pair.toUpperCase() },
    only: isThreePhase,
    optional: true,
  }),
)

/** Every current that can flow here: as read, and of three lines together, which is worked out. */
function currentsOf(
  context: Context,
): { spans: { span: Span; text: string }[]; pefc: Figure; pscc: Figure; lineLine: Figure | null } | null {
  const [pefcs, psccs, lineLines] = [pefcSlots, psccSlots, lineLineSlots].map((slots) => figuresOf(context, slots))
  const [pefc, pscc, lineLine] = [highestOf(pefcs!), highestOf(psccs!), highestOf(lineLines!)]
  if (!pefc || !pscc) return null
  const phases = context.part.data.phases ?? supplyOf(context)?.data.phases ?? 1
  const of = ({ read, span }: Figure) => ({ span, text: read.text })
  const three = (span: Span, factor: number) => {
    const value = scaled(span, factor)
    return { span: value, text: value.least.toFixed(0) }
  }
  const worked =
    phases === 1 ? [] : [three(pscc.span, 2), ...(lineLine ? [three(lineLine.span, 2 / Math.sqrt(3))] : [])]
  return { spans: [...worked, ...[...pefcs!, ...psccs!, ...lineLines!].map(of)], pefc, pscc, lineLine }
}

/** What the devices on this board can break, A: the weakest known, and the first of which nobody knows it. */
function breakingOf({ part, plant }: Context): { weakest_A: number | null; unknown: string | null } {
  const circuits = plant.circuitsOf(part)
  const known = circuits.flatMap(({ data }) => (data.breaking_kA === null ? [] : [1000 * data.breaking_kA]))
  return {
    weakest_A: known.length === 0 ? null : Math.min(...known),
    unknown: circuits.find(({ data }) => data.breaking_kA === null)?.data.tag ?? null,
  }
}

/** At the origin parallel paths can only add to what Ze alone gives: less is a matter of contact or leads. */
function againstZe(context: Context): Ruling | null {
  const supply = supplyOf(context)
  const ze = measuredZe(context)
  const lowest = lowestOf(figuresOf(context, pefcSlots))
  if (context.part.data.boardId !== null || !supply || ze?.span.bound !== 'exact' || !lowest || ze.read.value === 0)
    return null
  const { nominal_V } = supply.data
  const gives_A = nominal_V / ze.read.value
  const isBelow = compare(lowest.span, atLeast(gives_A * (1 - AGREE_PCT / 100))).verdict === 'outside'
  const verdict: Decided = isBelow ? 'not-yet' : 'within'
  const figures = { nominal_V, ze: ze.read.text }
  const result = { value: gives_A, unit: 'A', decimals: 0 } as const
  return ruled(
    context,
    verdict,
    'fault-current.below-ze',
    { code: 'fault-current.from-ze', figures, result, source: 'bs7671-ze' },
    { least: gives_A, pefc: lowest.read.text },
  )
}

export const faultCurrentStep: ReadStep<'board'> = {
  kind: 'read',
  id: 'fault-current',
  order: 'E7',
  appliesTo: 'board',
  station: 'board',
  protects: true,
  tag: 'live',
  slots: [...pefcSlots, ...psccSlots, ...lineLineSlots, earthLoop, ...loopsBesides, ...voltsBesides],
  stands: 'highest',
  readsOthers: true,
  counts: 'latest',
  effects: [{ state: 'dead', on: 'supply', does: 'end' }],
  gates: liveGates,
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
  judge(context) {
    const found = currentsOf(context)
    if (!found) return notYet(context, 'fault-current.no-reading')
    const { spans, pefc, pscc } = found
    const ipf = spans.reduce((most, one) => (one.span.least > most.span.least ? one : most))
    const figures = { ipf_kA: ipf.span.least / 1000, pefc: pefc.read.text, pscc: pscc.read.text }
    const { weakest_A, unknown } = breakingOf(context)
    const besides = besidesRulings(context, ownOf(context, found))
    if (weakest_A === null)
      return isGrave(besides) ? decide(besides) : notYet(context, 'fault-current.no-device', figures)
    const rulings: Ruling[] = [ipf, ...spans.filter((one) => one !== ipf)].map(({ span, text }) =>
      hold(context, {
        step: 'fault-current',
        span,
        text,
        unit: 'A',
        scale: 'log',
        band: atMost(weakest_A),
        source: 'bs7671-fault-current',
        limit: { id: 'ac.breaking', value: weakest_A },
        line: { code: 'fault-current.breaking', decimals: 0 },
        figures: { ...figures, limit_kA: weakest_A / 1000 },
      }),
    )
    // One device of which nobody knows what it breaks may be the weakest of all.
    if (unknown !== null) {
      const line = {
        code: 'fault-current.breaking-unknown',
        figures: { circuit: unknown },
        source: 'bs7671-fault-current',
      } as const
      rulings.push(ruled(context, 'not-yet', 'fault-current.device-unknown', line, { ...figures, circuit: unknown }))
    }
    const ze = againstZe(context)
    rulings.push(...besides)
    return decide(ze ? [...rulings, ze] : rulings, {
      before: () => currentLines(context, found),
      after: () => shareLines(context, ownOf(context, found).lineEarth),
    })
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    return [causeOf('device-too-weak', 'fits', 'stronger-device', { tag: context.part.data.tag })]
  },
  example: {
    source: 'computed: PEFC 1180 A and PSCC 1240 A give an Ipf of 1240 A, below a 6 kA device',
    part: exampleBoard,
    others: () => [exampleSupply, exampleCircuit],
    reading: {
      slots: { pefc: readValueOf(1180, 'A', 0), pscc: readValueOf(1240, 'A', 0) },
      conditions: null,
    },
    verdict: 'within',
  },
}

/** What one press showed at a board of one line. */
const ownOf = (context: Context, { pefc, pscc }: { pefc: Figure; pscc: Figure }): OwnFigures => ({
  lineEarth: figureOf(context, earthLoop),
  ...(isThreePhase(context.part.data) ? {} : { pefc, pscc }),
})

/** Which of the currents is the highest, and what flows between two lines. */
function currentLines(
  context: Context,
  { pefc, pscc, lineLine }: NonNullable<ReturnType<typeof currentsOf>>,
): WorkingLine[] {
  const supply = supplyOf(context)
  const nominal_V = supply?.data.nominal_V ?? null
  if (nominal_V === null) return []
  const currents = faultCurrents({
    lineEarth_ohm: nominal_V / pefc.read.value,
    lineNeutral_ohm: nominal_V / pscc.read.value,
    lineLine_ohm: lineLine && (Math.sqrt(3) * nominal_V) / lineLine.read.value,
    nominal_V,
    phases: context.part.data.phases ?? supply!.data.phases,
  })
  const amps = (value: number): WorkingLine['result'] => ({ value, unit: 'A', decimals: 0 })
  const three = currents.threePhase_A
  const lines: WorkingLine[] = [
    {
      code: three === null ? 'fault-current.ipf' : 'fault-current.ipf-three',
      figures: { pefc: pefc.read.text, pscc: pscc.read.text, three: three ?? 0 },
      result: amps(currents.ipf_A),
      source: three === null ? 'bs7671-fault-current' : 'fault-current-practice',
    },
  ]
  if (currents.lineLine_A !== null)
    lines.push({
      code: lineLine ? 'fault-current.line-line-read' : 'fault-current.line-line',
      figures: { pscc: pscc.read.text, read: lineLine?.read.text ?? '' },
      result: amps(currents.lineLine_A),
      source: 'fault-current-practice',
    })
  return lines
}
