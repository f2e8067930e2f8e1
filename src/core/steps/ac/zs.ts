/**
 * Zs at the far end of a circuit, measured or put together from Ze and R1+R2, against what its device needs and against
 * its sum. Sources: BS 7671:2018 411.4.4, tables 41.1 to 41.5; IEC 60364-6 annex D (from memory); 80 %: common practice.
 */
import { readValueOf } from '../../quantity/readValue'
import { type Span, standingFor, sumOf, widened } from '../../quantity/span'
import { causeOf } from '../../verdict/cause'
import { atMost, compare } from '../../verdict/compare'
import { decide, type Judgement, type Ruling } from '../../verdict/judgement'
import { type Figures, type Finding, gravest } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import { electrodeSpanOf } from '../earth/electrodeRead'
import { liveGates } from '../gates'
import { hold, notYet, ruled, saying } from '../holding'
import { choiceIn, type Figure, figureOf, figuresOf } from '../reading'
import {
  besidesRulings,
  currentsBesides,
  isGrave,
  jointCauses,
  loopsBesides,
  shareLines,
  voltsBesides,
} from './pressBesides'
import { choiceSlot, isThreePhase, lineSlots, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleCircuit, exampleSupply } from '../worked'
import { handled } from './circuitOff'
import { deviceLimit, inTime_s, type LoopLimit, rcdLimit } from './loopLimits'
import { soundLoop } from './soundLoop'
import { isTt, measuredR1r2, measuredZe, supplyOf } from './shared'

type Context = StepContext<'circuit'>

/** A loop of more than this times its sum is a broken conductor, whoever stands in (house rule 16). */
const FAR_ABOVE = 2

/** Three-lead low current; two leads where there is no neutral; two leads at high current; put together by a sum. */
const METHODS = ['non-trip', 'two-lead-low', 'high-current', 'calculated'] as const
const LOW: readonly string[] = ['non-trip', 'two-lead-low']
const measured = { slot: 'loop-method', is: [...LOW, 'high-current'] }
const repeated = { slot: 'loop-method', is: LOW }
const repeat = (id: string): NumberSlot =>
  numberSlot(id, 'loop-impedance', 'ohm', 2, { when: repeated, optional: true, only: (part) => !isThreePhase(part) })
const figureSlots: readonly NumberSlot[] = [
  ...lineSlots('zs', 'loop-impedance', 'ohm', 2, { when: measured }, 'PE'),
  repeat('zs-2'),
  repeat('zs-3'),
]
const slots: readonly Slot[] = [
  choiceSlot({ id: 'loop-method', options: METHODS, sticky: true, balloon: 1 }),
  ...figureSlots,
  ...[...loopsBesides, ...currentsBesides, ...voltsBesides].map((slot) => ({ ...slot, when: measured })),
]

type Sum = { ze: Figure; r1r2: Figure; span: Span }

/** The sum that a sound circuit reads: Ze and R1+R2 as they were measured. */
function sumIn(context: Context): Sum | null {
  const ze = measuredZe(context)
  const own = measuredR1r2(context)
  return ze && own ? { ze, r1r2: own, span: sumOf([ze.span, own.span]) } : null
}

const isCalculated = ({ reading }: Context): boolean => choiceIn(reading, 'loop-method') === 'calculated'

/** A limit of a loop; where a residual current device gives it, with its rating. */
type RatedLimit = LoopLimit & { rated_mA?: number }

type Judged = { span: Span; text: string; slots: readonly string[] }

/** The loop whose press gave the others too: the first one, of one line. */
const lineEarthOf = (context: Context): Figure | null =>
  isThreePhase(context.part.data) || isCalculated(context) ? null : figureOf(context, figureSlots[0]!)

/** What every comparison of a loop takes: looked up once. */
type Loop = { context: Context; sum: Sum | null; judged: readonly Judged[] }

function loopIn(context: Context): Loop {
  const sum = sumIn(context)
  return { context, sum, judged: judgedFigures(context, sum) }
}

/** What is judged: the highest of repeats, half their spread as uncertainty; each line by itself; or the sum. */
function judgedFigures(context: Context, sum: Sum | null): Judged[] {
  if (isCalculated(context)) {
    return sum ? [{ span: sum.span, text: standingFor(sum.span).toFixed(3), slots: [] }] : []
  }
  const read = figuresOf(context, figureSlots)
  if (read.length > 1) read.sort((a, b) => b.span.most - a.span.most)
  const judged = read.map(({ span, read: { text }, slot }) => ({ span, text, slots: [slot.id] }))
  if (judged.length < 2) return judged
  const [highest, ...others] = judged
  // Lines differ by what they are, not by what nobody knows of them.
  if (isThreePhase(context.part.data)) return judged
  return [{ ...highest!, span: widened(highest!.span, spreadOf(read)) }, ...others]
}

/** Half of what repeats lie apart; nothing where one of them is a bound, which decides by itself. */
function spreadOf(read: readonly Figure[]): number {
  if (read.length < 2 || read.some(({ span }) => span.bound !== 'exact')) return 0
  const values = read.map((one) => one.read.value)
  return (Math.max(...values) - Math.min(...values)) / 2
}

/** What the limit of a loop is worked out from; a regime that lacks any of it shows here and not where it is written out. */
function limitFigures(context: Context, { rated_mA = 0 }: RatedLimit): () => Figures {
  const factor = context.limit('ac.voltage-factor').value
  const touch_V = context.limit('earth.touch-voltage').value
  return () => {
    const { device, rating_A } = context.part.data
    const nominal_V = supplyOf(context)?.data.nominal_V ?? 0
    return { factor, nominal_V, device: `${device ?? ''}${rating_A ?? ''}`, rated_mA, touch_V }
  }
}

function againstLimit({ context, sum, judged }: Loop, limit: RatedLimit): Ruling[] {
  const code = `zs.limit-${limit.code}`
  const decimals = limit.code === 'rcd' ? 0 : 3
  const ofLine = limitFigures(context, limit)
  const ofSentence = (): Figures => (sum ? { sum: standingFor(sum.span) } : {})
  return judged.map(({ span, text, slots }) =>
    hold(context, {
      step: 'zs',
      span,
      text,
      slots,
      unit: 'ohm',
      scale: limit.code === 'rcd' ? 'log' : 'linear',
      band: atMost(limit.value, limit.close),
      source: limit.source,
      limit: { id: limit.id, value: limit.value },
      expected: sum && !isCalculated(context) ? { value: standingFor(sum.span), uncertainty: sum.span.whisker } : null,
      line: { code, figures: ofLine, decimals },
      figures: ofSentence,
    }),
  )
}

/** How a measured loop lies to Ze + (R1+R2): near it, above it, or so far that a conductor is broken. */
function againstSum({ context, sum, judged }: Loop): Ruling[] {
  if (!sum || isCalculated(context)) return []
  const { value: above_pct } = context.limit('ac.loop-above')
  const { value: joint_ohm, source } = context.limit('ac.joint')
  const most = sum.span.most * (1 + above_pct / 100) + joint_ohm
  const far = sum.span.most * FAR_ABOVE + joint_ohm
  const line: Parameters<typeof ruled>[3] = {
    code: 'zs.most-by-sum',
    figures: { above_pct, joint_ohm },
    source,
    result: { value: most, unit: 'ohm', decimals: 3 },
  }
  return judged.map(({ span, text, slots }) => {
    // What is only perhaps so far above it, by its own uncertainty, is not called broken.
    const { least, bound, whisker } = span
    const lower = {
      least: least - whisker,
      most: bound === 'exact' ? span.most - whisker : span.most,
      bound,
      whisker: 0,
    }
    const isFar = compare(lower, atMost(far)).verdict === 'outside'
    // Above it, or so near below that its own uncertainty may be above: both want a second look.
    const near = compare(span, atMost(most))
    const verdict = isFar ? 'outside' : near.verdict === 'outside' ? 'close' : near.verdict
    const code = isFar
      ? 'zs.far-above-sum'
      : verdict === 'not-yet'
        ? 'zs.not-yet'
        : near.closeBy
          ? 'zs.perhaps-above-sum'
          : 'zs.above-sum'
    return ruled(context, verdict, code, line, { read: text, sum: standingFor(sum.span), limit: most }, slots)
  })
}

/** Less than what lies before it: parallel paths can help, and so can a bad contact; it is said, and looked at. */
function belowPath({ context, sum, judged }: Loop): Ruling[] {
  const ze = isTt(context) ? null : (sum?.ze ?? measuredZe(context))
  const before = isTt(context) ? electrodeSpanOf(context) : ze && { span: ze.span, text: ze.read.text }
  if (!before || before.span.bound !== 'exact' || isCalculated(context)) return []
  const code = isTt(context) ? 'zs.below-electrode' : 'zs.below-ze'
  return (
    judged
      // By the figure itself: a worse instrument must not make it right.
      .filter(({ span }) => span.most + before.span.whisker < before.span.least)
      .map(({ text, slots }) => {
        const figures = { read: text, before: before.text }
        return ruled(context, 'close', code, { code, figures, source: 'loop-practice' }, figures, slots)
      })
  )
}

/** Whether the loop lies near its sum: only then may a residual current device stand in. */
function isNearSum(loop: Loop): boolean {
  if (!loop.sum) return false
  const rulings = againstSum(loop)
  return rulings.length === 0 || gravest(rulings.map((one) => one.verdict)) === 'within'
}

/** The rulings of the device that disconnects, by the arrangement of the supply. */
function byDevice(loop: Loop): Ruling[] {
  const { context } = loop
  const rcd = isTt(context) ? rcdLimit(context) : null
  if (rcd) {
    const rulings = againstLimit(loop, rcd)
    // Without a sum nobody knows whether the protective conductor is whole.
    if (isCalculated(context) || loop.sum) return rulings
    const line = { code: 'zs.no-sum-for-rcd', source: 'bs7671-zs' } as const
    return [...rulings, ruled(context, 'not-yet', 'zs.no-sum-for-rcd', line, { rcd_mA: rcd.rated_mA })]
  }
  const own = deviceLimit(context)
  const rulings = own ? againstLimit(loop, own) : []
  const mayStandIn = context.regime.schools['loop.rcd-stands-in'] === 'near-the-sum' && !isTt(context)
  const isDecided = own !== null && gravest(rulings.map((one) => one.verdict)) !== 'outside'
  const standIn = !isDecided && mayStandIn && context.part.data.device !== null ? rcdLimit(context) : null
  if (standIn && isNearSum(loop)) {
    // By touch voltage the residual current device disconnects in time; that is worth a second look, never plainly within.
    return againstLimit(loop, standIn).map((one) =>
      one.verdict === 'within' || one.verdict === 'close'
        ? saying(one, own ? 'zs.rcd-stands-in' : 'zs.rcd-stands-in-unknown', { device: own?.value ?? 0 }, 'close')
        : one,
    )
  }
  return rulings
}

/** Why there is no limit: no device entered, no supply, or no table for it. */
function noLimit(context: Context, read: string): Judgement {
  const { device, rating_A } = context.part.data
  if (!supplyOf(context)) return notYet(context, 'zs.no-supply', { read })
  if (device === null || rating_A === null) return notYet(context, 'zs.no-device', { read })
  return notYet(context, 'zs.no-table', { read, device: `${device}${rating_A}`, seconds: inTime_s(context) ?? 0 })
}

export const zs: ReadStep<'circuit'> = {
  kind: 'read',
  id: 'zs',
  order: 'E8',
  appliesTo: 'circuit',
  station: 'board',
  protects: true,
  tag: 'live',
  slots,
  stands: 'highest',
  readsOthers: true,
  counts: 'latest',
  effects: [
    handled,
    { state: 'dead', on: 'supply', does: 'end', when: (reading) => choiceIn(reading, 'loop-method') !== 'calculated' },
  ],
  gates: liveGates,
  cautions: [
    { id: 'fault-current-flows', hard: true },
    { id: 'finger-guarded', hard: false },
    { id: 'medical-and-it-off', hard: false },
  ],
  hookup: {
    drawing: 'zs-far-end',
    leads: [
      { balloon: 1, code: 'farthest-point' },
      { balloon: 2, code: 'line-earth' },
    ],
  },
  minutes: 2,
  sources: ['bs7671-zs', 'bs7671-disconnection', 'loop-practice', 'bs7671-electrode', 'house-loop', 'house-far-above'],
  mendingTouches: ['r1r2', 'ring-ends', 'ac-polarity', 'ac-insulation'],
  trap(context): Finding | null {
    const method = choiceIn(context.reading, 'loop-method')
    const [nearest] = context.plant.rcdsOf(context.part)
    const { tag } = context.part.data
    if (method === 'high-current' && nearest) return { code: 'zs.would-trip', figures: { tag, rcd: nearest.data.tag } }
    return method === 'calculated' && !sumIn(context) ? { code: 'zs.no-sum', figures: { tag } } : null
  },
  expect: (context) => {
    const sum = sumIn(context)
    return sum && sum.span.bound === 'exact' ? { value: sum.span.least, uncertainty: sum.span.whisker } : null
  },
  scaleBefore(context) {
    const most = mostBefore(context)
    const sum = sumIn(context)
    if (!most) return null
    return {
      unit: 'ohm',
      scale: most.code === 'rcd' ? 'log' : 'linear',
      measured: null,
      expected: sum && { value: standingFor(sum.span), uncertainty: sum.span.whisker },
      band: atMost(most.value, most.close),
      source: most.source,
    }
  },
  judge(context) {
    const loop = loopIn(context)
    const [first] = loop.judged
    const before = (): WorkingLine[] => sumLines(context, loop.sum)
    if (!first) return notYet(context, 'zs.no-reading', {}, () => [...before(), ...mostLine(context)])
    const rulings = byDevice(loop)
    const lineEarth = lineEarthOf(context)
    const besides = besidesRulings(context, { lineEarth })
    if (rulings.length === 0 && !isGrave(besides)) return noLimit(context, first.text)
    const after = () => [...coldLine(context), ...shareLines(context, lineEarth)]
    return decide([...rulings, ...againstSum(loop), ...belowPath(loop), ...besides], { before, after })
  },
  sound: soundLoop,
  causes(context, judgement) {
    if (judgement.verdict !== 'outside' && !judgement.finding.code.endsWith('above-sum')) return []
    const figures = { tag: context.part.data.tag }
    const sum = sumIn(context)
    return [
      ...(sum ? jointCauses(context, lineEarthOf(context), standingFor(sum.span)) : []),
      causeOf('loose-terminal', 'may-fit', 'halve-the-circuit', figures),
      causeOf('light-contact', 'may-fit', 'press-firmly', figures),
      causeOf('device-too-big', 'may-fit', 'look-at-device', figures),
    ]
  },
  example: {
    source: 'BS 7671:2018 table 41.3 (from memory): a B32 allows 1.37 ohm, so 0.72 is within',
    part: exampleCircuit,
    others: () => [exampleSupply],
    reading: {
      slots: { 'loop-method': { choice: 'non-trip' }, zs: readValueOf(0.72, 'ohm', 2) },
      conditions: null,
    },
    verdict: 'within',
  },
}

/** The sum that it should be, what repeats differ by, and the time in which a fault must be off. */
function sumLines(context: Context, sum: Sum | null): WorkingLine[] {
  const lines: WorkingLine[] = []
  const ohms = (value: number): WorkingLine['result'] => ({ value, unit: 'ohm', decimals: 3 })
  if (sum)
    lines.push({
      code: 'zs.sum',
      figures: { ze: sum.ze.read.text, r1r2: sum.r1r2.read.text },
      result: ohms(standingFor(sum.span)),
      source: 'bs7671-zs',
    })
  const repeats = isThreePhase(context.part.data) || isCalculated(context) ? [] : figuresOf(context, figureSlots)
  const spread = spreadOf(repeats)
  if (repeats.length > 1 && spread > 0)
    lines.push({
      code: 'zs.repeats',
      figures: { count: repeats.length },
      result: ohms(spread),
      source: 'loop-practice',
    })
  const seconds = inTime_s(context)
  if (seconds !== null)
    lines.push({
      code: `zs.in-time-${context.part.data.role ?? 'final'}`,
      figures: { seconds: String(seconds), arrangement: supplyOf(context)!.data.arrangement },
      result: null,
      source: 'bs7671-disconnection',
    })
  return lines
}

/** What the loop is held against as long as nothing is read: by touch voltage on TT, else by its device. */
const mostBefore = (context: Context): RatedLimit | null =>
  (isTt(context) ? rcdLimit(context) : null) ?? deviceLimit(context)

/** The most that the loop may be, as long as nothing is read. */
function mostLine(context: Context): WorkingLine[] {
  const most = mostBefore(context)
  if (!most) return []
  const result = { value: most.value, unit: 'ohm', decimals: most.code === 'rcd' ? 0 : 3 } as const
  return [{ code: `zs.limit-${most.code}`, figures: limitFigures(context, most)(), result, source: most.source }]
}

/** What a cold measurement may read, where the device decides. */
function coldLine(context: Context): WorkingLine[] {
  const limit = isTt(context) && rcdLimit(context) ? null : deviceLimit(context)
  if (!limit) return []
  const { value, source } = context.limit('ac.cold-share')
  return [
    {
      code: 'zs.cold',
      figures: { share_pct: value },
      result: { value: limit.close, unit: 'ohm', decimals: 3 },
      source,
    },
  ]
}
