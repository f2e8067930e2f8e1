/**
 * Ze: the loop outside the installation, its earthing conductor off so that pipes and structure do not help.
 * Source: BS 7671:2018 643.7.2 and 313.1 (from memory); typical declared maxima: common practice.
 */
import { electrodeLimit_ohm } from '../earth/electrode'
import { readValueOf } from '../quantity/readValue'
import type { SourceId } from '../regime/sources'
import { choiceSlot, highestIn, judgeMeasured, notYet, ratedOf, saying, zeSlots } from './acShared'
import type { Step, StepContext } from './step'
import { choiceIn } from './stringReading'
import { exampleSupply } from './worked'

/** What networks declare where nobody asked them, ohm. */
const TYPICAL_ohm = { 'TN-C-S': 0.35, 'TN-S': 0.8 } as const

type Limit = { value: number; close: number | null; source: SourceId; code: 'declared' | 'typical' | 'tt' }

/** The most that Ze may be; null in TT without a residual current device. */
function limitOf({ part, plant, regime }: StepContext<'supply'>): Limit | null {
  const { arrangement, declaredZe_ohm } = part.data
  if (arrangement !== 'TT') {
    if (declaredZe_ohm !== null) return { value: declaredZe_ohm, close: null, source: 'bs7671-ze', code: 'declared' }
    return { value: TYPICAL_ohm[arrangement], close: null, source: 'loop-practice', code: 'typical' }
  }
  const touch = regime.limits['earth.touch-voltage'].value
  const limits = ratedOf(plant.ofKind('rcd')).map((rated) => electrodeLimit_ohm(rated, touch))
  if (limits.length === 0) return null
  const close = regime.limits['earth.unstable'].value
  return { value: Math.min(...limits), close, source: 'bs7671-electrode', code: 'tt' }
}

const trapOf: NonNullable<Step<'supply'>['trap']> = (context, reading) =>
  choiceIn(reading, 'earthing-conductor') === 'earth-still-on'
    ? { code: 'ze.earth-still-on', figures: { tag: context.part.data.tag } }
    : null

export const ze: Step<'supply'> = {
  id: 'ze',
  order: 'E1',
  appliesTo: 'supply',
  station: 'supply',
  tag: 'live',
  slots: [
    choiceSlot({
      id: 'earthing-conductor',
      options: ['earth-off', 'earth-still-on'],
      sound: ['earth-off'],
      balloon: 1,
    }),
    ...zeSlots,
  ],
  stands: 'highest',
  needsConditions: false,
  counts: 'latest',
  gates: [{ id: 'electrode-back', hard: true, waitsFor: 'electrode-back', until: 'done', on: 'electrodes' }],
  cautions: [
    { id: 'all-dead-downstream', hard: true },
    { id: 'finger-guarded', hard: true },
    { id: 'earth-clip-first', hard: false },
  ],
  hookup: {
    drawing: 'ze-at-origin',
    leads: [
      { balloon: 1, code: 'earthing-conductor-off' },
      { balloon: 2, code: 'incoming-line' },
    ],
  },
  minutes: 4,
  sources: ['bs7671-ze', 'loop-practice'],
  inputs: ({ data }) => `${data.arrangement}|${data.declaredZe_ohm}`,
  trap: trapOf,
  judge(context, reading) {
    const read = highestIn(reading, zeSlots)
    if (!read) return notYet('ze.no-reading', context)
    const limit = limitOf(context)
    if (!limit) return notYet('ze.no-device', context, { read: read.text })
    const judged = judgeMeasured(context, {
      step: 'ze',
      read,
      reading,
      unit: 'ohm',
      scale: limit.code === 'tt' ? 'log' : 'linear',
      band: { low: null, high: limit.value, closeLow: null, closeHigh: limit.close },
      source: limit.source,
      limit: { id: 'ac.ze', value: limit.value },
    })
    const trapped = trapOf(context, reading)
    return trapped ? saying(judged, trapped.code, {}, 'not-yet') : judged
  },
  working(context) {
    const limit = limitOf(context)
    if (!limit) return []
    return [
      {
        code: `ze.limit-${limit.code}`,
        figures: { arrangement: context.part.data.arrangement },
        result: { value: limit.value, unit: 'ohm', decimals: 2 },
        source: limit.source,
        decides: true,
      },
    ]
  },
  causes(context, _, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    return [
      { code: 'light-contact', figures, fit: 'may-fit', predicted: null, next: { code: 'press-firmly', figures } },
      { code: 'network-earth', figures, fit: 'may-fit', predicted: null, next: { code: 'ask-the-network', figures } },
    ]
  },
  example: {
    source: 'supply industry, common practice: TN-C-S declares 0.35 ohm',
    part: exampleSupply,
    reading: {
      slots: { 'earthing-conductor': { choice: 'earth-off' }, ze: readValueOf(0.21, 'ohm', 2) },
      conditions: null,
    },
    verdict: 'within',
  },
}
