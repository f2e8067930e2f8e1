/**
 * R1+R2 of a circuit: line and protective conductor joined at one end, read at the other with nulled leads. Held against
 * the conductors as entered; where nobody knows them, against what the circuit's device can bear.
 * Sources: BS 7671:2018 643.2; conductors IEC 60228 (from memory).
 */
import { conductor_mohmPerM, r1r2_ohm } from '../../circuit/conductors'
import { ringR1r2 } from '../../circuit/ring'
import type { CircuitData } from '../../plant/part'
import { readValueOf } from '../../quantity/readValue'
import type { SourceId } from '../../regime/sources'
import { causeOf } from '../../verdict/cause'
import { atMost } from '../../verdict/compare'
import { decide, type Ruling } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { deadGate, nulledGate } from '../gates'
import { hold, notYet, saying } from '../holding'
import { choiceIn, type Figure, figuresOf } from '../reading'
import { leadSetSlot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleCircuit } from '../worked'
import { handled } from './circuitOff'
import { deviceLimit } from './loopLimits'
import { ringEndsIn } from './ringEnds'
import { continuityWay, PROTECTIVE_ALONE, r1r2Slots, r2Slot } from './shared'

type Context = StepContext<'circuit'>

/** Whether the protective conductor was read by itself. */
const isAlone = ({ reading }: Pick<Context, 'reading'>): boolean =>
  choiceIn(reading, continuityWay.id) === PROTECTIVE_ALONE

/** What the conductors come to at 20 degC, ohm, a quarter of it in a ring; null where they are not entered. */
function conductorsOf(
  { line_mm2, protective_mm2, length_m, layout, metal }: CircuitData,
  alone: boolean,
): number | null {
  if (protective_mm2 === null || length_m === null) return null
  const each = alone ? conductor_mohmPerM(protective_mm2, metal) : null
  const whole = alone
    ? each && (each * length_m) / 1000
    : line_mm2 === null
      ? null
      : r1r2_ohm({ line_mm2, protective_mm2, length_m, metal })
  return whole !== null && layout === 'ring' ? whole / 4 : whole
}

/** What a ring's own ends make of it, ohm; null where it is none, or they were not read whole. */
function fromEnds({ part, counted }: Context, alone: boolean): number | null {
  const body = part.data.layout === 'ring' ? counted('ring-ends', part.id) : null
  const ends = body && ringEndsIn(body)
  if (alone) return ends?.protective.span.bound === 'exact' ? ends.protective.span.least / 4 : null
  const quarter = ends && ringR1r2(ends.line.span, ends.protective.span)
  return quarter?.bound === 'exact' ? quarter.least : null
}

type Most = { expected: number | null; value: number; source: SourceId; code: string; id: string }

/**
 * The most that a sound circuit reads: its conductors and what they may differ by, and a joint; else by its device, which
 * says nothing of a protective conductor by itself.
 */
function mostOf(context: Context): Most | null {
  const alone = isAlone(context)
  const expected = fromEnds(context, alone) ?? conductorsOf(context.part.data, alone)
  if (expected !== null) {
    const above = 1 + context.limit('ac.loop-above').value / 100
    const value = expected * above + context.limit('ac.joint').value
    return { expected, value, source: 'house-loop', code: 'r1r2.most', id: 'ac.loop-above' }
  }
  if (alone) return null
  const device = deviceLimit(context)
  return (
    device && { expected: null, value: device.close, source: device.source, code: 'r1r2.most-by-device', id: 'ac.zs' }
  )
}

/** The least that a sound circuit reads: below it another way helps, or it is shorter than entered. */
const leastOf = (context: Context, expected: number): number =>
  expected / (1 + context.limit('ac.loop-above').value / 100) - context.limit('ac.joint').value

/** Where the expected figure comes from: a ring's own ends, or the conductors as entered. */
function expectedLine(context: Context, expected: number): WorkingLine {
  const result = { value: expected, unit: 'ohm', decimals: 3 } as const
  const alone = isAlone(context)
  if (fromEnds(context, alone) !== null)
    return { code: 'r1r2.from-ends', figures: {}, result, source: 'bs7671-continuity' }
  const { line_mm2, protective_mm2, length_m, layout, metal } = context.part.data
  return {
    code: `r1r2.${alone ? 'alone' : 'conductors'}${layout === 'ring' ? '-ring' : ''}`,
    figures: {
      line: conductor_mohmPerM(line_mm2 ?? 0, metal) ?? 0,
      protective: conductor_mohmPerM(protective_mm2 ?? 0, metal) ?? 0,
      length_m: length_m ?? 0,
    },
    result,
    source: 'iec-60228',
  }
}

/** One line against the most; one that reads too little for its conductors is never better than close. */
function rulingOf(context: Context, { read, span, slot }: Figure, most: Most): Ruling {
  const { above_pct, joint_ohm } = {
    above_pct: context.limit('ac.loop-above').value,
    joint_ohm: context.limit('ac.joint').value,
  }
  const ruling = hold(context, {
    step: most.expected === null ? 'r1r2-by-device' : 'r1r2',
    span,
    text: read.text,
    slots: [slot.id],
    unit: 'ohm',
    band: atMost(most.value),
    source: most.source,
    expected: most.expected === null ? null : { value: most.expected, uncertainty: 0 },
    limit: { id: most.id, value: most.value },
    line: { code: most.code, figures: most.expected === null ? {} : { above_pct, joint_ohm }, decimals: 3 },
    figures: { expected: most.expected ?? 0 },
  })
  if (most.expected === null || ruling.verdict === 'outside' || ruling.verdict === 'not-yet') return ruling
  // By the figure itself: a worse instrument must not make it right.
  return span.most < leastOf(context, most.expected) ? saying(ruling, 'r1r2.too-low', {}, 'close') : ruling
}

export const r1r2: ReadStep<'circuit'> = {
  kind: 'read',
  id: 'r1r2',
  order: 'C4',
  appliesTo: 'circuit',
  station: 'board',
  protects: true,
  tag: 'dead',
  slots: [continuityWay, ...r1r2Slots, r2Slot, leadSetSlot],
  stands: 'highest',
  nulled: true,
  readsOthers: true,
  counts: 'latest',
  gates: [deadGate, nulledGate],
  cautions: [
    { id: 'dead-before-touch', hard: true },
    { id: 'null-belongs-to-leads', hard: false },
  ],
  hookup: {
    drawing: 'r1r2-joined',
    leads: [
      { balloon: 1, code: 'link-at-board' },
      { balloon: 2, code: 'far-end-l-pe' },
    ],
  },
  variants: [
    {
      slot: continuityWay.id,
      is: PROTECTIVE_ALONE,
      hookup: {
        drawing: 'r2-long-lead',
        leads: [
          { balloon: 1, code: 'long-lead-at-board' },
          { balloon: 2, code: 'far-end-pe' },
        ],
      },
    },
  ],
  effects: [handled],
  minutes: 2,
  sources: ['bs7671-continuity', 'iec-60228', 'house-loop', 'house-joint'],
  mendingTouches: ['ring-ends', 'ac-insulation', 'ac-polarity', 'zs'],
  expect: (context) => {
    const expected = mostOf(context)?.expected ?? null
    return expected === null ? null : { value: expected, uncertainty: 0 }
  },
  scaleBefore(context) {
    const most = mostOf(context)
    return (
      most && {
        unit: 'ohm',
        scale: 'linear',
        measured: null,
        expected: most.expected === null ? null : { value: most.expected, uncertainty: 0 },
        band: atMost(most.value),
        source: most.source,
      }
    )
  },
  judge(context) {
    const read = figuresOf(context, isAlone(context) ? [r2Slot] : r1r2Slots).sort((a, b) => b.span.most - a.span.most)
    const most = mostOf(context)
    const before = () => (most === null || most.expected === null ? [] : [expectedLine(context, most.expected)])
    if (read.length === 0) return notYet(context, 'r1r2.no-reading', {}, before)
    if (!most) return notYet(context, 'r1r2.no-conductors', { read: read[0]!.read.text })
    return decide(
      read.map((one) => rulingOf(context, one, most)),
      { before },
    )
  },
  causes(context, judgement) {
    const figures = { tag: context.part.data.tag }
    if (judgement.finding.code === 'r1r2.too-low')
      return [
        causeOf('shorter-than-entered', 'may-fit', 'check-length', figures),
        causeOf('parallel-path', 'may-fit', 'look-for-parallel-path', figures),
      ]
    if (judgement.verdict !== 'outside') return []
    return [
      causeOf('loose-terminal', 'fits', 'halve-the-circuit', figures),
      causeOf('longer-than-entered', 'may-fit', 'check-length', figures),
      causeOf('leads-not-nulled', 'may-fit', 'null-again', figures),
    ]
  },
  example: {
    source: 'IEC 60228 (from memory): 20 m of 2.5 and 1.5 mm2 is 0.390 ohm at 20 degC',
    part: exampleCircuit,
    reading: { slots: { r1r2: readValueOf(0.4, 'ohm', 2), 'lead-set': { choice: 'set-a' } }, conditions: null },
    verdict: 'within',
  },
}
