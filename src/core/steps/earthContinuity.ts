/**
 * Earth continuity: main earthing terminal to the frame or rail of each row. Rails which are not bonded by design are
 * left out with that reason. Source: IEC 62446-1:2016 6.1 (from memory).
 */
import { COPPER_ohm_mm2_per_m, continuityExpected } from '../pv/continuity'
import { readValueOf } from '../quantity/readValue'
import { readingUncertainty } from '../quantity/uncertainty'
import { type Band, judge } from '../verdict/judge'
import type { WorkingLine } from '../verdict/working'
import { plain } from './checks'
import { leadSetSlot } from './leadSetSlot'
import type { Step, StepContext } from './step'
import { numberIn } from './stringReading'

type Allowed = { value: number; expected_ohm: number | null; school: 'set-limit' | 'by-conductor' }

/** The most that is allowed, and what the conductor and its joints come to where they are known. */
function allowed({ part, regime }: StepContext<'row'>): Allowed {
  const { conductor } = part.data
  const expected_ohm = conductor ? continuityExpected(conductor, regime.limits['pv.continuity-joint'].value) : null
  const school = regime.schools['pv.continuity-judged']
  if (school === 'by-conductor' && expected_ohm !== null) return { value: expected_ohm, expected_ohm, school }
  return { value: regime.limits['pv.continuity'].value, expected_ohm, school: 'set-limit' }
}

export const earthContinuity: Step<'row'> = {
  id: 'earth-continuity',
  order: 'B3',
  appliesTo: 'row',
  station: 'modules',
  tag: 'live-in-daylight',
  slots: [{ kind: 'number', id: 'resistance', measures: 'continuity', unit: 'ohm', balloon: 2 }, leadSetSlot],
  nulled: true,
  needsConditions: false,
  counts: 'latest',
  gates: [{ id: 'leads-nulled', hard: false, waitsFor: 'lead-null', until: 'done', on: 'site', sameVisit: true }],
  cautions: [
    { id: 'earth-stays-connected', hard: false },
    { id: 'work-at-height', hard: false },
  ],
  hookup: {
    drawing: 'earth-to-row',
    leads: [
      { balloon: 1, code: 'main-earth-terminal' },
      { balloon: 2, code: 'rail-bare-metal' },
    ],
  },
  minutes: 2,
  sources: ['iec-62446-continuity', 'continuity-practice', 'house-joint'],
  inputs: (part) => JSON.stringify(part.data.conductor),
  expect(context) {
    const { expected_ohm } = allowed(context)
    return expected_ohm === null ? null : { value: expected_ohm, uncertainty: 0 }
  },
  judge(context, reading) {
    const read = numberIn(reading, 'resistance')
    const { tag } = context.part.data
    if (!read) return plain('not-yet', { code: 'earth-continuity.no-reading', figures: { tag } })
    const most = allowed(context)
    const band: Band = { low: null, high: most.value, closeLow: null, closeHigh: null }
    const whisker = readingUncertainty(read, reading.instrument?.accuracy ?? null)
    const { verdict } = judge(read, band, whisker)
    const { source } = context.regime.limits['pv.continuity']
    const { expected_ohm } = most
    const id = most.school === 'set-limit' ? 'pv.continuity' : 'pv.continuity-joint'
    return {
      ...plain(verdict, {
        code: `earth-continuity.${verdict}`,
        figures: { read: read.text, limit: most.value, tag },
      }),
      rule: {
        unit: 'ohm',
        scale: 'linear',
        measured: { value: read.value, bound: read.bound, whisker, text: read.text },
        expected: expected_ohm === null ? null : { value: expected_ohm, uncertainty: 0 },
        band,
        source,
      },
      limits: [{ id, value: most.value, unit: 'ohm', source: context.regime.limits[id].source }],
    }
  },
  working(context) {
    const { conductor } = context.part.data
    const most = allowed(context)
    const lines: WorkingLine[] = []
    if (conductor && most.expected_ohm !== null) {
      const joint_ohm = context.regime.limits['pv.continuity-joint'].value
      lines.push({
        code: 'earth-continuity.conductor',
        figures: { rho: COPPER_ohm_mm2_per_m, ...conductor, joint_ohm },
        result: { value: most.expected_ohm, unit: 'ohm', decimals: 3 },
        source: 'house-joint',
        decides: most.school === 'by-conductor',
      })
    }
    if (most.school === 'set-limit') {
      lines.push({
        code: 'earth-continuity.limit',
        figures: {},
        result: { value: most.value, unit: 'ohm', decimals: 2 },
        source: context.regime.limits['pv.continuity'].source,
        decides: true,
      })
    }
    return lines
  },
  causes(context, reading, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    const nulled = reading.slots['lead-set'] !== undefined
    return [
      { code: 'poor-joint', figures, fit: 'fits', predicted: null, next: { code: 'work-along-the-bonding', figures } },
      { code: 'paint-or-anodising', figures, fit: 'may-fit', predicted: null, next: { code: 'bare-metal', figures } },
      {
        code: 'leads-not-nulled',
        figures,
        fit: nulled ? 'does-not-fit' : 'may-fit',
        predicted: null,
        next: { code: 'null-again', figures },
      },
    ]
  },
  example: {
    source: 'computed: 20 m of 6 mm2 copper is 0.057 ohm; two joints of 0.05 ohm make 0.157; a set limit of 1 ohm',
    part: {
      kind: 'row',
      tag: 'R1',
      arrayId: null,
      conductor: { length_m: 20, area_mm2: 6, joints: 2 },
    },
    reading: { slots: { resistance: readValueOf(0.16, 'ohm', 2) }, conditions: null },
    verdict: 'within',
  },
}
