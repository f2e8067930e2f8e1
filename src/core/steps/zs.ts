/**
 * Zs at the far end of a circuit, measured or put together from Ze and R1+R2, against what its device needs.
 * Sources: BS 7671:2018 411.4.4, tables 41.2 to 41.5; IEC 60364-6 annex D (from memory); 80 %: common practice.
 */
import { electrodeLimit_ohm } from '../earth/electrode'
import { disconnection_s, maxZs_ohm } from '../loop/maxZs'
import type { PartData } from '../plant/part'
import { type ReadValue, readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import type { SourceId } from '../regime/sources'
import type { Finding } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import {
  choiceSlot,
  highestIn,
  isThreePhase,
  judgeMeasured,
  lineSlots,
  liveGates,
  measuredR1r2,
  measuredZe,
  notYet,
  numberSlot,
  readingsIn,
  saying,
} from './acShared'
import type { Judgement, NumberSlot, Slot, Step, StepContext } from './step'
import { choiceIn } from './stringReading'
import { exampleCircuit } from './worked'

type Context = StepContext<'circuit'>
type Reading = Pick<Body<'reading'>, 'slots'>

const measured = { slot: 'loop-method', is: ['non-trip', 'high-current'] }
const repeated = { slot: 'loop-method', is: ['non-trip'] }
const onePhase = (part: PartData): boolean => !isThreePhase(part)
const figureSlots: readonly NumberSlot[] = [
  ...lineSlots('zs', 'loop-impedance', 'ohm', 2, { when: measured }),
  numberSlot('zs-2', 'loop-impedance', 'ohm', 2, { when: repeated, optional: true, only: onePhase }),
  numberSlot('zs-3', 'loop-impedance', 'ohm', 2, { when: repeated, optional: true, only: onePhase }),
]
const slots: readonly Slot[] = [
  choiceSlot({ id: 'loop-method', options: ['non-trip', 'high-current', 'calculated'], sticky: true, balloon: 1 }),
  ...figureSlots,
]

/** The sum that a sound circuit reads, ohm: Ze and R1+R2 as they were measured. */
function sumOf(context: Context): { ze: ReadValue; r1r2: ReadValue; value: number } | null {
  const ze = measuredZe(context)
  const own = measuredR1r2(context)
  return ze && own ? { ze, r1r2: own, value: ze.value + own.value } : null
}

/** What is judged: the highest of repeats, half their spread as uncertainty; the highest line; or the sum. */
function figureOf(context: Context, reading: Reading): { read: ReadValue; spread: number } | null {
  if (choiceIn(reading, 'loop-method') === 'calculated') {
    const sum = sumOf(context)
    return sum && { read: readValueOf(sum.value, 'ohm', 2), spread: 0 }
  }
  const read = highestIn(reading, figureSlots)
  if (!read) return null
  // Lines differ by what they are, not by what nobody knows of them.
  if (isThreePhase(context.part.data)) return { read, spread: 0 }
  const lowest = Math.min(...[...readingsIn(reading, figureSlots).values()].map((one) => one.value))
  return { read, spread: (read.value - lowest) / 2 }
}

type Limit = { value: number; close: number; source: SourceId; code: 'device' | 'device-iec' | 'rcd'; id: string }

/** What the overcurrent device allows; null without one. */
function deviceLimit({ part, plant, regime }: Context): Limit | null {
  const { device, rating_A } = part.data
  if (device === null || rating_A === null) return null
  const factor = regime.limits['ac.voltage-factor']
  const value = maxZs_ohm(device, rating_A, {
    nominal_V: plant.supply?.data.nominal_V ?? 230,
    voltageFactor: factor.value,
    role: part.data.role ?? 'final',
  })
  if (value === null) return null
  const close = (value * regime.limits['ac.cold-share'].value) / 100
  const isIec = factor.source === 'iec-60364-6-zs'
  return { value, close, source: factor.source, code: isIec ? 'device-iec' : 'device', id: 'ac.zs' }
}

/** What the nearest residual current device allows by touch voltage; null without one. */
function rcdLimit({ part, plant, regime }: Context): Limit | null {
  const [nearest] = plant.rcdsOf(part)
  if (!nearest) return null
  const value = electrodeLimit_ohm(nearest.data.rated_mA, regime.limits['earth.touch-voltage'].value)
  const close = Math.min(value, regime.limits['earth.unstable'].value)
  return { value, close, source: 'bs7671-electrode', code: 'rcd', id: 'earth.ra' }
}

/** In TT the residual current device decides; elsewhere the overcurrent device where there is one. */
function limitOf(context: Context): Limit | null {
  const isTt = context.plant.supply?.data.arrangement === 'TT'
  return isTt ? (rcdLimit(context) ?? deviceLimit(context)) : (deviceLimit(context) ?? rcdLimit(context))
}

function judgeAgainst(context: Context, reading: Body<'reading'>, limit: Limit): Judgement | null {
  const found = figureOf(context, reading)
  if (!found) return null
  const sum = sumOf(context)
  const isSum = choiceIn(reading, 'loop-method') === 'calculated'
  return judgeMeasured(context, {
    step: 'zs',
    read: found.read,
    reading,
    unit: 'ohm',
    scale: limit.code === 'rcd' ? 'log' : 'linear',
    band: { low: null, high: limit.value, closeLow: null, closeHigh: limit.close },
    source: limit.source,
    limit: { id: limit.id, value: limit.value },
    expected: sum && !isSum ? { value: sum.value, uncertainty: 0 } : null,
    spread: found.spread,
    figures: sum ? { sum: sum.value } : {},
  })
}

const trapOf: NonNullable<Step<'circuit'>['trap']> = (context, reading): Finding | null => {
  const method = choiceIn(reading, 'loop-method')
  const [nearest] = context.plant.rcdsOf(context.part)
  const { tag } = context.part.data
  if (method === 'high-current' && nearest) return { code: 'zs.would-trip', figures: { tag, rcd: nearest.data.tag } }
  return method === 'calculated' && !sumOf(context) ? { code: 'zs.no-sum', figures: { tag } } : null
}

/** What the figure says besides its limit: against Ze, and against the sum. */
function compared(context: Context, judged: Judgement, value: number): Judgement {
  const ze = measuredZe(context)
  const whisker = judged.rule?.measured?.whisker ?? 0
  const sum = sumOf(context)
  if (judged.verdict === 'outside') return judged
  // Beside an electrode everything that stands in the ground helps; on a network's earth hardly anything can so much.
  const isTt = context.plant.supply?.data.arrangement === 'TT'
  if (ze && !isTt && value + whisker < ze.value) return saying(judged, 'zs.below-ze', { ze: ze.text }, 'close')
  if (!sum) return judged
  const { limits } = context.regime
  const most = sum.value * (1 + limits['ac.loop-above'].value / 100) + limits['ac.joint'].value
  return value - whisker > most ? saying(judged, 'zs.above-sum', {}, 'close') : judged
}

export const zs: Step<'circuit'> = {
  id: 'zs',
  order: 'E4',
  appliesTo: 'circuit',
  station: 'board',
  tag: 'live',
  slots,
  stands: 'highest',
  needsConditions: false,
  counts: 'latest',
  gates: [
    ...liveGates,
    { id: 'ac-insulation', hard: false, waitsFor: 'ac-insulation', until: 'done' },
    { id: 'ac-polarity', hard: true, waitsFor: 'ac-polarity', until: 'not-outside' },
  ],
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
  sources: ['bs7671-zs', 'bs7671-disconnection', 'loop-practice', 'bs7671-electrode', 'house-loop'],
  inputs: ({ data }) => JSON.stringify([data.device, data.rating_A, data.rcdId, data.role ?? 'final']),
  trap: trapOf,
  expect: (context) => {
    const sum = sumOf(context)
    return sum && { value: sum.value, uncertainty: 0 }
  },
  judge(context, reading) {
    const trapped = trapOf(context, reading)
    const found = figureOf(context, reading)
    if (!found) return trapped ? notYet(trapped.code, context, trapped.figures) : notYet('zs.no-reading', context)
    const limit = limitOf(context)
    if (!limit) return notYet('zs.no-device', context, { read: found.read.text })
    const judged = judgeAgainst(context, reading, limit)!
    if (trapped) return saying(judged, trapped.code, trapped.figures, 'not-yet')
    const other = judged.verdict === 'outside' && limit.code !== 'rcd' ? rcdLimit(context) : null
    const standsIn = other && judgeAgainst(context, reading, other)
    if (standsIn && standsIn.verdict !== 'outside')
      return saying(standsIn, 'zs.rcd-stands-in', { device: limit.value }, 'close')
    return compared(context, judged, found.read.value)
  },
  working(context, reading) {
    const limit = limitOf(context)
    const sum = sumOf(context)
    const { device, rating_A } = context.part.data
    const lines: WorkingLine[] = []
    if (sum)
      lines.push({
        code: 'zs.sum',
        figures: { ze: sum.ze.text, r1r2: sum.r1r2.text },
        result: { value: sum.value, unit: 'ohm', decimals: 2 },
        source: 'bs7671-zs',
      })
    const found = figureOf(context, reading)
    if (found && found.spread > 0)
      lines.push({
        code: 'zs.repeats',
        figures: { count: readingsIn(reading, figureSlots).size },
        result: { value: found.spread, unit: 'ohm', decimals: 3 },
        source: 'loop-practice',
      })
    if (!limit) return lines
    const [nearest] = context.plant.rcdsOf(context.part)
    const isTt = context.plant.supply?.data.arrangement === 'TT'
    const role = context.part.data.role ?? 'final'
    lines.push({
      code: `zs.in-time-${role}`,
      figures: { seconds: disconnection_s(role, isTt), arrangement: context.plant.supply?.data.arrangement ?? '' },
      result: null,
      source: 'bs7671-disconnection',
    })
    lines.push({
      code: `zs.limit-${limit.code}`,
      figures: {
        factor: context.regime.limits['ac.voltage-factor'].value,
        nominal_V: context.plant.supply?.data.nominal_V ?? 230,
        device: `${device ?? ''}${rating_A ?? ''}`,
        rated_mA: nearest?.data.rated_mA ?? 0,
        touch_V: context.regime.limits['earth.touch-voltage'].value,
      },
      result: { value: limit.value, unit: 'ohm', decimals: limit.code === 'rcd' ? 0 : 3 },
      source: limit.source,
      decides: true,
    })
    if (limit.code !== 'rcd')
      lines.push({
        code: 'zs.cold',
        figures: { share_pct: context.regime.limits['ac.cold-share'].value },
        result: { value: limit.close, unit: 'ohm', decimals: 3 },
        source: 'loop-practice',
      })
    return lines
  },
  causes(context, _, judgement) {
    if (judgement.verdict !== 'outside' && judgement.finding.code !== 'zs.above-sum') return []
    const figures = { tag: context.part.data.tag }
    return [
      {
        code: 'loose-terminal',
        figures,
        fit: 'may-fit',
        predicted: null,
        next: { code: 'halve-the-circuit', figures },
      },
      { code: 'light-contact', figures, fit: 'may-fit', predicted: null, next: { code: 'press-firmly', figures } },
      { code: 'device-too-big', figures, fit: 'may-fit', predicted: null, next: { code: 'look-at-device', figures } },
    ]
  },
  example: {
    source: 'BS 7671:2018 table 41.3 (from memory): a B32 allows 1.37 ohm, so 0.8 is within',
    part: exampleCircuit,
    reading: {
      slots: { 'loop-method': { choice: 'non-trip' }, zs: readValueOf(0.8, 'ohm', 2) },
      conditions: null,
    },
    verdict: 'within',
  },
}
