/**
 * Ze: the loop outside the installation, its earthing conductor off so that pipes and structure do not help.
 * Source: BS 7671:2018 643.7.2 and 313.1 (from memory); typical declared maxima: common practice.
 */
import { electrodeLimit_ohm } from '../../earth/electrode'
import { readValueOf } from '../../quantity/readValue'
import type { SourceId } from '../../regime/sources'
import { causeOf } from '../../verdict/cause'
import { atMost } from '../../verdict/compare'
import { decide } from '../../verdict/judgement'
import { deadGate, spikedElectrodesBack } from '../gates'
import { hold, notYet } from '../holding'
import { choiceIn, figuresOf } from '../reading'
import { choiceSlot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleSupply } from '../worked'
import { besidesRulings, isGrave, voltsBesides } from './pressBesides'
import { ratedOn, zeSlots } from './shared'

/** What networks declare where nobody asked them, ohm. */
const TYPICAL_ohm = { 'TN-C-S': 0.35, 'TN-S': 0.8 } as const

type Limit = { value: number; close: number | null; source: SourceId; code: 'declared' | 'typical' | 'tt' }

/** The most that Ze may be; null in TT without a residual current device, and where no network declares it. */
function limitOf(context: StepContext<'supply'>): Limit | null {
  const { arrangement, declaredZe_ohm } = context.part.data
  if (arrangement !== 'TT') {
    if (declaredZe_ohm !== null) return { value: declaredZe_ohm, close: null, source: 'bs7671-ze', code: 'declared' }
    // What networks usually declare says nothing of a generator or a battery.
    if ((context.part.data.source ?? 'mains') !== 'mains') return null
    return { value: TYPICAL_ohm[arrangement], close: null, source: 'loop-practice', code: 'typical' }
  }
  const touch = context.limit('earth.touch-voltage')
  const limits = ratedOn(context.plant, context.part).map((rated) => electrodeLimit_ohm(rated, touch.value))
  if (limits.length === 0) return null
  return { value: Math.min(...limits), close: context.limit('earth.unstable').value, source: touch.source, code: 'tt' }
}

const OFF = 'earth-off'

export const ze: ReadStep<'supply'> = {
  kind: 'read',
  id: 'ze',
  order: 'E2',
  appliesTo: 'supply',
  station: 'supply',
  protects: true,
  tag: 'live',
  slots: [
    choiceSlot({ id: 'earthing-conductor', options: [OFF, 'earth-still-on'], sound: [OFF], balloon: 1 }),
    ...zeSlots,
    ...voltsBesides,
  ],
  stands: 'highest',
  counts: 'latest',
  effects: [
    {
      state: 'earth-on',
      on: 'part',
      does: 'end',
      when: (reading) => choiceIn(reading, 'earthing-conductor') !== 'earth-still-on',
    },
  ],
  gates: [deadGate, spikedElectrodesBack],
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
  trap: ({ part, reading }) =>
    choiceIn(reading, 'earthing-conductor') === 'earth-still-on'
      ? { code: 'ze.earth-still-on', figures: { tag: part.data.tag } }
      : null,
  judge(context) {
    const read = figuresOf(context, zeSlots).sort((a, b) => b.span.most - a.span.most)
    if (read.length === 0) return notYet(context, 'ze.no-reading')
    const limit = limitOf(context)
    const besides = besidesRulings(context, { lineEarth: null })
    if (!limit) {
      if (isGrave(besides)) return decide(besides)
      const code = context.part.data.arrangement === 'TT' ? 'ze.no-device' : 'ze.nothing-declared'
      return notYet(context, code, { read: read[0]!.read.text })
    }
    return decide([
      ...read.map((one) =>
        hold(context, {
          step: 'ze',
          span: one.span,
          text: one.read.text,
          unit: 'ohm',
          scale: limit.code === 'tt' ? 'log' : 'linear',
          band: atMost(limit.value, limit.close),
          source: limit.source,
          limit: { id: 'ac.ze', value: limit.value },
          line: {
            code: `ze.limit-${limit.code}`,
            figures: { arrangement: context.part.data.arrangement },
            decimals: 2,
          },
        }),
      ),
      ...besides,
    ])
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    return [
      causeOf('light-contact', 'may-fit', 'press-firmly', figures),
      ...((context.part.data.source ?? 'mains') === 'mains'
        ? [causeOf('network-earth', 'may-fit', 'ask-the-network', figures)]
        : [causeOf('own-earth', 'may-fit', 'look-at-source-earth', figures)]),
    ]
  },
  example: {
    source: 'supply industry, common practice: TN-C-S declares 0.35 ohm',
    part: exampleSupply,
    reading: {
      slots: { 'earthing-conductor': { choice: OFF }, ze: readValueOf(0.21, 'ohm', 2) },
      conditions: null,
    },
    verdict: 'within',
  },
}
