/**
 * A point on a supply whose neutral and protective conductor are one: where that is lost, its device must open all of it,
 * the protective conductor too. Source: BS 7671:2018+A2 722.411.4.1 (from memory).
 */
import { readValueOf } from '../../quantity/readValue'
import { atMost } from '../../verdict/compare'
import { causeOf } from '../../verdict/cause'
import { decide, type Ruling } from '../../verdict/judgement'
import { hold, notYet, ruled } from '../holding'
import { choiceIn, figureOf } from '../reading'
import { choiceSlot, numberSlot } from '../slot'
import type { ReadStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { atPoint, type PointContext } from './point'

const ALL = 'opens-all'
const MS_PER_S = 1000
const time = numberSlot('pen-time', 'disconnection-time', 'ms', 2)

function openedRuling(context: PointContext): Ruling[] {
  const seen = choiceIn(context.reading, 'pen-opened')
  if (seen === null) return []
  const line = { code: 'point-lost-pen.must-open', source: 'bs7671-point-earth' } as const
  return [ruled(context, seen === ALL ? 'within' : 'outside', `point-lost-pen.${seen}`, line)]
}

function timeRuling(context: PointContext): Ruling[] {
  const figure = figureOf(context, time)
  if (!figure) return []
  const { value, source } = context.limit('point.lost-pen')
  return [
    hold(context, {
      step: 'point-lost-pen',
      span: figure.span,
      text: figure.read.text,
      unit: 'ms',
      band: atMost(value * MS_PER_S),
      source,
      limit: { id: 'point.lost-pen', value: value * MS_PER_S },
      line: { code: 'point-lost-pen.time', figures: { most_s: value }, decimals: 0 },
    }),
  ]
}

export const pointLostPen: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-lost-pen',
  order: 'F13',
  protects: true,
  of: (part) => part.data.earthing === 'device-inside' || part.data.earthing === 'device-outside',
  slots: [
    choiceSlot({ id: 'pen-simulated', options: ['by-adapter', 'by-test-key'], sticky: true, balloon: 1 }),
    choiceSlot({
      id: 'pen-opened',
      options: [ALL, 'opens-live-only', 'opens-nothing'],
      sound: [ALL],
      balloon: 2,
    }),
    { ...time, when: { slot: 'pen-opened', is: [ALL, 'opens-live-only'] } },
  ],
  cautions: [
    { id: 'lost-pen-touch', hard: true },
    { id: 'maker-way-of-testing', hard: false },
  ],
  hookup: {
    drawing: 'point-lost-pen',
    leads: [
      { balloon: 1, code: 'pen-device' },
      { balloon: 2, code: 'all-conductors' },
    ],
  },
  minutes: 3,
  sources: ['bs7671-point-earth', 'point-practice'],
  judge(context) {
    const rulings = [...openedRuling(context), ...timeRuling(context)]
    return rulings.length > 0 ? decide(rulings) : notYet(context, 'point-lost-pen.no-reading')
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    return [causeOf('pen-device-dead', 'fits', 'change-pen-device', { tag: context.part.data.tag })]
  },
  example: {
    source: 'BS 7671:2018+A2 722.411.4.1 (from memory): the protective conductor too',
    part: examplePoint,
    named: exampleServed,
    reading: {
      slots: {
        'pen-simulated': { choice: 'by-adapter' },
        'pen-opened': { choice: 'opens-live-only' },
        'pen-time': readValueOf(640, 'ms', 0),
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
