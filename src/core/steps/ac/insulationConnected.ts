/**
 * Insulation once everything is connected again: line and neutral together to the protective conductor, at 250 V so that
 * nothing electronic suffers. Source: BS 7671:2018+A2 643.3 (from memory, in doubt).
 */
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { atLeast } from '../../verdict/compare'
import { decide } from '../../verdict/judgement'
import { deadGate } from '../gates'
import { hold, notYet, ruled } from '../holding'
import { choiceIn, figureOf } from '../reading'
import { choiceSlot, numberSlot } from '../slot'
import type { ReadStep } from '../step'
import { exampleBoard, exampleSupply } from '../worked'

const SET = 'v250'
const LEAST_Mohm = 1
const connected = numberSlot('connected', 'insulation', 'Mohm', 1, { of: { pair: 'L+N-PE' } })

export const insulationConnected: ReadStep<'board'> = {
  kind: 'read',
  id: 'insulation-connected',
  order: 'C7',
  appliesTo: 'board',
  // Other documents know no such test.
  of: (_part, _plant, { schools }) => schools.cites !== 'international',
  station: 'board',
  protects: true,
  tag: 'dead',
  slots: [
    choiceSlot({ id: 'connected-at', options: [SET, 'v500'], sound: [SET], stated: true, sticky: true, balloon: 2 }),
    connected,
  ],
  counts: 'latest',
  leftOutAs: ['nothing-was-taken-out'],
  ofNewWork: true,
  gates: [deadGate],
  asksFor: () => ({ 'connected-at': SET }),
  cautions: [
    { id: 'insulation-nobody-touches', hard: true },
    { id: 'not-above-250', hard: true },
    { id: 'discharge-after', hard: false },
  ],
  hookup: {
    drawing: 'insulation-connected',
    leads: [
      { balloon: 1, code: 'all-live-to-earth' },
      { balloon: 2, code: 'tester-at-250' },
    ],
  },
  minutes: 2,
  sources: ['bs7671-connected'],
  judge(context) {
    const figure = figureOf(context, connected)
    if (!figure) return notYet(context, 'insulation-connected.no-reading')
    const ruling = hold(context, {
      step: 'insulation-connected',
      span: figure.span,
      text: figure.read.text,
      unit: 'Mohm',
      scale: 'log',
      band: atLeast(LEAST_Mohm, LEAST_Mohm * context.limit('close.insulation').value),
      source: 'bs7671-connected',
      limit: { id: 'ac.insulation', value: LEAST_Mohm },
      line: { code: 'insulation-connected.least', decimals: 1 },
      slots: [connected.id],
    })
    if (choiceIn(context.reading, 'connected-at') !== 'v500') return decide([ruling])
    const line = { code: 'insulation-connected.too-high', source: 'bs7671-connected' } as const
    return decide([ruling, ruled(context, 'close', 'insulation-connected.too-high', line)])
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    return [
      causeOf('equipment-leaks', 'fits', 'unplug-one-by-one', figures),
      causeOf('surge-conducts', 'may-fit', 'take-surge-out', figures),
    ]
  },
  example: {
    source: 'BS 7671:2018+A2 643.3 (from memory, in doubt): 250 V and 1 Mohm once equipment is connected',
    part: exampleBoard,
    others: () => [exampleSupply],
    reading: {
      slots: { 'connected-at': { choice: SET }, connected: readValueOf(0.6, 'Mohm', 2) },
      conditions: null,
    },
    verdict: 'outside',
  },
}
