/**
 * The protective earth of a plug before anything else: at every position of the adapter's knob, for a point may put a
 * potential on it in one state and not in another. Handbook 11; common practice, no source; 50 V: IEC 60364-4-41 (from
 * memory).
 */
import { readValueOf } from '../../quantity/readValue'
import { atMost } from '../../verdict/compare'
import { causeOf } from '../../verdict/cause'
import { decide, type Ruling } from '../../verdict/judgement'
import { hold, notYet, ruled } from '../holding'
import { choiceIn, figureOf } from '../reading'
import { type ChoiceSlot, choiceSlot, type NumberSlot, numberSlot } from '../slot'
import type { ReadStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { atPoint, isVentilated, type PointContext, plugGates } from './point'

const GLOVED = 'thumb-gloved'
const LAMP = 'lamp-lit'
const DARK = 'no-lamp'

type Position = { state: string; pad: ChoiceSlot; volts: NumberSlot }
const positions: readonly Position[] = ['a', 'b', 'c', 'd', 'e'].map((state) => {
  const pad = `pad-${state}`
  const only = state === 'd' ? { only: isVentilated } : {}
  const options = [DARK, LAMP, 'volts-shown']
  return {
    state: state.toUpperCase(),
    pad: choiceSlot({ id: pad, options, sound: [DARK, 'volts-shown'], balloon: 2, ...only }),
    // What the potential is that a lamp warns of; an adapter which shows volts has no lamp.
    volts: numberSlot(`earth-volts-${state}`, 'ac-voltage', 'V', 2, {
      when: { slot: pad, is: [LAMP, 'volts-shown'] },
      ...only,
    }),
  }
})

/** One position of the knob: a lamp stops all work, whatever the volts turn out to be. */
function rulingsAt(context: PointContext, { state, pad, volts }: Position): Ruling[] {
  const seen = choiceIn(context.reading, pad.id)
  const figure = figureOf(context, volts)
  const touch = context.limit('earth.touch-voltage')
  const line = { code: 'point-pretest.stop', figures: { most_V: touch.value }, source: 'point-practice' } as const
  if (seen === LAMP)
    return [
      figure
        ? ruled(context, 'outside', 'point-pretest.lamp-volts', line, { state, read: figure.read.text })
        : ruled(context, 'outside', 'point-pretest.lamp', line, { state }),
    ]
  if (seen === DARK) return [ruled(context, 'within', 'point-pretest.dark', line, { state })]
  if (!figure) return []
  return [
    hold(context, {
      step: 'point-pretest',
      span: figure.span,
      text: figure.read.text,
      unit: 'V',
      band: atMost(touch.value),
      source: touch.source,
      limit: { id: 'earth.touch-voltage', value: touch.value },
      line: { code: 'point-pretest.touch', decimals: 0 },
      figures: { state },
    }),
  ]
}

export const pointPretest: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-pretest',
  order: 'F2',
  gates: plugGates,
  effects: [...atPoint.effects, { state: 'point-felt', on: 'part', does: 'begin' }],
  slots: [
    choiceSlot({ id: 'thumb', options: ['thumb-bare', GLOVED], sound: ['thumb-bare'], balloon: 1 }),
    ...positions.map(({ pad }) => pad),
    ...positions.map(({ volts }) => volts),
  ],
  stands: 'highest',
  kit: () => ['ev-adapter'],
  cautions: [
    { id: 'pretest-stops-all', hard: true },
    { id: 'bare-thumb', hard: false },
  ],
  hookup: {
    drawing: 'point-pretest',
    leads: [
      { balloon: 1, code: 'touch-pad' },
      { balloon: 2, code: 'knob-each-position' },
    ],
  },
  minutes: 2,
  sources: ['point-practice', 'iec-60364-4-electrode'],
  trap: ({ part, reading }) =>
    choiceIn(reading, 'thumb') === GLOVED ? { code: 'point-pretest.gloved', figures: { tag: part.data.tag } } : null,
  judge(context) {
    const rulings = positions.flatMap((one) => rulingsAt(context, one))
    return rulings.length > 0 ? decide(rulings) : notYet(context, 'point-pretest.no-reading')
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    return [
      causeOf('point-earth-open', 'may-fit', 'earth-to-plug', figures),
      causeOf('point-earth-live', 'may-fit', 'isolate-and-trace', figures),
      causeOf('pen-lost-now', 'may-fit', 'ask-the-network', figures),
    ]
  },
  example: {
    source: 'IEC 60364-4-41 (from memory): 50 V may be touched; common practice: any lamp stops the work',
    part: examplePoint,
    named: exampleServed,
    reading: {
      slots: {
        thumb: { choice: 'thumb-bare' },
        'pad-a': { choice: DARK },
        'pad-b': { choice: 'volts-shown' },
        'earth-volts-b': readValueOf(96, 'V', 0),
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
