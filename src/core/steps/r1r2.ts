/**
 * R1+R2 of a circuit: line and protective conductor joined at one end, read at the other with nulled leads.
 * Sources: BS 7671:2018 643.2; conductors IEC 60228 (from memory).
 */
import { conductor_mohmPerM, r1r2_ohm } from '../circuit/conductors'
import { ringR1r2_ohm } from '../circuit/ring'
import type { CircuitData } from '../plant/part'
import { readValueOf } from '../quantity/readValue'
import type { WorkingLine } from '../verdict/working'
import { deadGate, highestIn, judgeMeasured, notYet, nulledGate, r1r2Slots, readingsIn, saying } from './acShared'
import { leadSetSlot } from './leadSetSlot'
import { ringEndsIn } from './ringEnds'
import type { Step, StepContext } from './step'
import { exampleCircuit } from './worked'

/** What the conductors come to at 20 degC, ohm, a quarter of it in a ring; null where they are not entered. */
function conductorsOf({ line_mm2, protective_mm2, length_m, layout }: CircuitData): number | null {
  if (line_mm2 === null || protective_mm2 === null || length_m === null) return null
  const whole = r1r2_ohm({ line_mm2, protective_mm2, length_m })
  return whole !== null && layout === 'ring' ? whole / 4 : whole
}

/** What a ring's own ends make of it, ohm; null where it is none, or they were not read whole. */
function fromEnds({ part, counted }: StepContext<'circuit'>): number | null {
  const body = part.data.layout === 'ring' ? counted('ring-ends', part.id) : null
  const ends = body && ringEndsIn(body)
  if (!ends || [ends.line, ends.protective].some((one) => one.bound !== 'exact')) return null
  return ringR1r2_ohm({ line_ohm: ends.line.value, protective_ohm: ends.protective.value })
}

/** The most that a sound circuit reads: its conductors and what they may differ by, and a joint. */
function most(context: StepContext<'circuit'>): { expected: number; value: number } | null {
  const { part, regime } = context
  const expected = fromEnds(context) ?? conductorsOf(part.data)
  if (expected === null) return null
  const above = 1 + regime.limits['ac.loop-above'].value / 100
  return { expected, value: expected * above + regime.limits['ac.joint'].value }
}

/** Where the expected figure comes from: a ring's own ends, or the conductors as entered. */
function expectedLine(context: StepContext<'circuit'>, expected: number): WorkingLine {
  const result = { value: expected, unit: 'ohm', decimals: 3 } as const
  if (fromEnds(context) !== null) return { code: 'r1r2.from-ends', figures: {}, result, source: 'bs7671-continuity' }
  const { line_mm2, protective_mm2, length_m, layout } = context.part.data
  return {
    code: layout === 'ring' ? 'r1r2.conductors-ring' : 'r1r2.conductors',
    figures: {
      line: conductor_mohmPerM(line_mm2 ?? 0) ?? 0,
      protective: conductor_mohmPerM(protective_mm2 ?? 0) ?? 0,
      length_m: length_m ?? 0,
    },
    result,
    source: 'iec-60228',
  }
}

export const r1r2: Step<'circuit'> = {
  id: 'r1r2',
  order: 'C3',
  appliesTo: 'circuit',
  station: 'board',
  tag: 'dead',
  slots: [...r1r2Slots, leadSetSlot],
  stands: 'highest',
  nulled: true,
  needsConditions: false,
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
  minutes: 2,
  sources: ['bs7671-continuity', 'iec-60228', 'house-loop', 'house-joint'],
  inputs: ({ data }) => JSON.stringify([data.line_mm2, data.protective_mm2, data.length_m, data.layout ?? 'radial']),
  expect: (context) => {
    const found = most(context)
    return found && { value: found.expected, uncertainty: 0 }
  },
  judge(context, reading) {
    const read = highestIn(reading, r1r2Slots)
    if (!read) return notYet('r1r2.no-reading', context)
    const limit = most(context)
    if (!limit) return notYet('r1r2.no-conductors', context, { read: read.text })
    const judged = judgeMeasured(context, {
      step: 'r1r2',
      read,
      reading,
      unit: 'ohm',
      band: { low: null, high: limit.value, closeLow: null, closeHigh: null },
      source: 'house-loop',
      expected: { value: limit.expected, uncertainty: 0 },
      limit: { id: 'ac.loop-above', value: limit.value },
      figures: { expected: limit.expected },
    })
    if (judged.verdict !== 'within') return judged
    // Half of what the conductors have: another way for the current, or another cable than was entered.
    const short = [...readingsIn(reading, r1r2Slots).values()].find(
      (one) => one.bound === 'exact' && one.value < limit.expected / 2,
    )
    return short ? saying(judged, 'r1r2.too-low', { read: short.text }, 'close') : judged
  },
  working(context) {
    const limit = most(context)
    if (!limit) return []
    const { regime } = context
    const lines: WorkingLine[] = [
      expectedLine(context, limit.expected),
      {
        code: 'r1r2.most',
        figures: {
          above_pct: regime.limits['ac.loop-above'].value,
          joint_ohm: regime.limits['ac.joint'].value,
        },
        result: { value: limit.value, unit: 'ohm', decimals: 3 },
        source: 'house-loop',
        decides: true,
      },
    ]
    return lines
  },
  causes(context, _, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    return [
      { code: 'loose-terminal', figures, fit: 'fits', predicted: null, next: { code: 'halve-the-circuit', figures } },
      {
        code: 'longer-than-entered',
        figures,
        fit: 'may-fit',
        predicted: null,
        next: { code: 'check-length', figures },
      },
      { code: 'leads-not-nulled', figures, fit: 'may-fit', predicted: null, next: { code: 'null-again', figures } },
    ]
  },
  example: {
    source: 'IEC 60228 (from memory): 20 m of 2.5 and 1.5 mm2 is 0.390 ohm at 20 degC',
    part: exampleCircuit,
    reading: { slots: { r1r2: readValueOf(0.4, 'ohm', 2) }, conditions: null },
    verdict: 'within',
  },
}
