/**
 * A ring final circuit: line, neutral and protective conductor each read from end to end, then cross-connected and read
 * at every point. End to end a bridged ring looks sound; cross-connected its points differ. An open ring still feeds
 * every socket, and may be overloaded. Source: BS 7671:2018 643.2 (from memory); how far: a joint, house rule 9.
 */
import { conductor_mohmPerM } from '../../circuit/conductors'
import { apart, ringR1r2 } from '../../circuit/ring'
import type { CircuitData } from '../../plant/part'
import { readValueOf } from '../../quantity/readValue'
import { scaled, type Span, standingFor } from '../../quantity/span'
import { causeOf } from '../../verdict/cause'
import { atMost } from '../../verdict/compare'
import { decide, type Ruling } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { deadGate, nulledGate } from '../gates'
import { hold, notYet, ruled, saying } from '../holding'
import { type Figure, figureOf, figuresIn } from '../reading'
import { leadSetSlot, numberSlot } from '../slot'
import type { ReadStep, Reading, StepContext } from '../step'
import { exampleCircuit } from '../worked'
import { handled } from './circuitOff'

type Context = StepContext<'circuit'>

const end = (id: string) => numberSlot(id, 'continuity', 'ohm', 2)
const endSlots = [end('ring-r1'), end('ring-rn'), end('ring-r2')] as const
const crossed = (id: string) => numberSlot(id, 'continuity', 'ohm', 2, { since: 2 })
/** Lowest and highest of all points, line and neutral crossed, then line and protective conductor. */
const crossSlots = {
  'l-n': [crossed('cross-l-n-lowest'), crossed('cross-l-n-highest')],
  'l-pe': [crossed('cross-l-pe-lowest'), crossed('cross-l-pe-highest')],
} as const

export type RingEnds = { line: Figure; neutral: Figure; protective: Figure }

const named = (figures: readonly Figure[]): RingEnds | null => {
  const [line, neutral, protective] = endSlots.map((slot) => figures.find((one) => one.slot.id === slot.id))
  return line && neutral && protective ? { line, neutral, protective } : null
}

/** The three readings of another step's ring, null until all are there. */
export const ringEndsIn = (reading: Reading): RingEnds | null => named(figuresIn(reading, endSlots))

const areaRatio = ({ line_mm2, protective_mm2 }: CircuitData): number | null =>
  line_mm2 === null || protective_mm2 === null ? null : line_mm2 / protective_mm2

/** What the line should read from end to end, by its length and area; null where they are not entered. */
function lineOf({ line_mm2, length_m, metal }: CircuitData): number | null {
  const each = line_mm2 === null ? null : conductor_mohmPerM(line_mm2, metal)
  return each === null || length_m === null ? null : (each * length_m) / 1000
}

type Differs = { of: string; span: Span; slots: readonly string[]; figures: Record<string, number | string> }

function difference(context: Context, { of, span, slots, figures }: Differs): Ruling {
  const most = context.limit('ac.joint')
  const ruling = hold(context, {
    step: 'ring-ends',
    span,
    text: standingFor(span).toFixed(3),
    slots,
    unit: 'ohm',
    band: atMost(most.value),
    source: most.source,
    limit: { id: 'ac.joint', value: most.value },
    line: { code: `ring-ends.apart-${of}`, figures: { apart: standingFor(span) }, decimals: 2 },
    figures,
  })
  return ruling.verdict === 'outside' ? saying(ruling, `ring-ends.${of}-differs`) : ruling
}

/** Ends against the line, and the points of the ring against each other. */
function rulingsOf(context: Context, { line, neutral, protective }: RingEnds): Ruling[] {
  const ratio = areaRatio(context.part.data)
  const figures = { line: line.read.text }
  const rulings = [
    difference(context, {
      of: 'neutral',
      span: apart(neutral.span, line.span),
      slots: [neutral.slot.id],
      figures: { ...figures, other: neutral.read.text, expected: line.read.value },
    }),
  ]
  if (ratio !== null) {
    const should = scaled(line.span, ratio)
    rulings.push(
      difference(context, {
        of: 'protective',
        span: apart(protective.span, should),
        slots: [protective.slot.id],
        figures: { ...figures, other: protective.read.text, expected: standingFor(should) },
      }),
    )
  }
  for (const [pair, [low, high]] of Object.entries(crossSlots)) {
    const [least, most] = [figureOf(context, low), figureOf(context, high)]
    if (!least || !most) continue
    rulings.push(
      difference(context, {
        of: `crossed-${pair}`,
        span: apart(most.span, least.span),
        slots: [low.id, high.id],
        figures: { ...figures, least: least.read.text, most: most.read.text },
      }),
    )
  }
  return rulings
}

export const ringEnds: ReadStep<'circuit'> = {
  kind: 'read',
  id: 'ring-ends',
  order: 'C3',
  appliesTo: 'circuit',
  of: ({ data }) => data.layout === 'ring',
  station: 'board',
  protects: true,
  tag: 'dead',
  slots: [...endSlots, ...crossSlots['l-n'], ...crossSlots['l-pe'], leadSetSlot],
  stands: 'highest',
  nulled: true,
  ofNewWork: true,
  counts: 'latest',
  gates: [deadGate, nulledGate],
  cautions: [
    { id: 'dead-before-touch', hard: true },
    { id: 'null-belongs-to-leads', hard: false },
  ],
  hookup: {
    drawing: 'ring-ends',
    leads: [
      { balloon: 1, code: 'both-ends-out' },
      { balloon: 2, code: 'end-to-end' },
    ],
  },
  effects: [handled],
  minutes: 6,
  sources: ['bs7671-continuity', 'iec-60228', 'house-joint'],
  mendingTouches: ['r1r2', 'ac-insulation', 'ac-polarity', 'zs'],
  expect: ({ part }) => {
    const value = lineOf(part.data)
    return value === null ? null : { value, uncertainty: 0 }
  },
  judge(context) {
    const ends = ringEndsIn(context.reading)
    if (!ends) return notYet(context, 'ring-ends.no-reading')
    const { line, neutral, protective } = ends
    const open = [line, neutral, protective].find((one) => one.span.bound === 'more-than')
    const before = (): WorkingLine[] => sumOfRing(context, ends)
    if (open) {
      const figures = { read: open.read.text }
      const said = ruled(
        context,
        'outside',
        'ring-ends.open',
        { code: 'ring-ends.open', figures, source: 'bs7671-continuity' },
        figures,
      )
      return decide([said], { before })
    }
    return decide(rulingsOf(context, ends), { before })
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    const isOpen = judgement.finding.code === 'ring-ends.open'
    const isBridged = judgement.finding.code.startsWith('ring-ends.crossed')
    return [
      causeOf(
        isOpen ? 'ring-open' : isBridged ? 'ring-bridged' : 'loose-terminal',
        isOpen ? 'fits' : 'may-fit',
        'halve-the-circuit',
        figures,
      ),
      causeOf('ring-crossed', 'may-fit', 'sort-the-ends', figures),
    ]
  },
  example: {
    source:
      'IEC 60228 (from memory): 54 m of 2.5 mm2 is 0.40 ohm, of 1.5 mm2 0.65 ohm; joints of 0.05 ohm: house rule 9',
    part: { ...exampleCircuit, layout: 'ring', length_m: 54 },
    reading: {
      slots: {
        'ring-r1': readValueOf(0.4, 'ohm', 2),
        'ring-rn': readValueOf(0.41, 'ohm', 2),
        'ring-r2': readValueOf(0.66, 'ohm', 2),
        'cross-l-n-lowest': readValueOf(0.2, 'ohm', 2),
        'cross-l-n-highest': readValueOf(0.21, 'ohm', 2),
        'cross-l-pe-lowest': readValueOf(0.26, 'ohm', 2),
        'cross-l-pe-highest': readValueOf(0.28, 'ohm', 2),
        'lead-set': { choice: 'set-a' },
      },
      conditions: null,
    },
    verdict: 'within',
  },
}

function sumOfRing({ part }: Context, { line, protective }: RingEnds): WorkingLine[] {
  const expected = lineOf(part.data)
  const ratio = areaRatio(part.data)
  const { line_mm2, length_m, metal } = part.data
  const lines: WorkingLine[] = []
  const ohms = (value: number): WorkingLine['result'] => ({ value, unit: 'ohm', decimals: 3 })
  if (expected !== null)
    lines.push({
      code: 'ring-ends.line',
      figures: { each: conductor_mohmPerM(line_mm2!, metal)!, length_m: length_m! },
      result: ohms(expected),
      source: 'iec-60228',
    })
  if (ratio !== null && line.span.bound === 'exact')
    lines.push({
      code: 'ring-ends.protective',
      figures: { line: line.read.text, ratio },
      result: ohms(line.read.value * ratio),
      source: 'bs7671-continuity',
    })
  const quarter = ringR1r2(line.span, protective.span)
  if (quarter.bound === 'exact')
    lines.push({
      code: 'ring-ends.quarter',
      figures: { line: line.read.text, protective: protective.read.text },
      result: ohms(quarter.least),
      source: 'bs7671-continuity',
    })
  return lines
}
