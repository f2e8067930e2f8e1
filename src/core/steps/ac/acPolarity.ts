/** Polarity of a circuit: line to the switch, the fuse and the centre contact. Source: BS 7671:2018 643.6 (from memory). */
import { decide } from '../../verdict/judgement'
import { deadGate } from '../gates'
import { ruled } from '../holding'
import { choiceIn } from '../reading'
import { choiceSlot } from '../slot'
import type { ReadStep } from '../step'
import { exampleCircuit } from '../worked'
import { handled } from './circuitOff'

export const acPolarity: ReadStep<'circuit'> = {
  kind: 'read',
  id: 'ac-polarity',
  order: 'C6',
  appliesTo: 'circuit',
  station: 'board',
  protects: true,
  tag: 'dead',
  slots: [choiceSlot({ id: 'polarity', options: ['correct', 'reversed'], sound: ['correct'], balloon: 1 })],
  counts: 'latest',
  gates: [deadGate],
  cautions: [{ id: 'dead-before-touch', hard: true }],
  hookup: {
    drawing: 'ac-polarity',
    leads: [{ balloon: 1, code: 'line-at-accessories' }],
  },
  effects: [handled],
  minutes: 1,
  sources: ['bs7671-polarity'],
  mendingTouches: ['r1r2', 'ac-insulation'],
  judge(context) {
    const choice = choiceIn(context.reading, 'polarity')
    const verdict = choice === 'correct' ? 'within' : choice === 'reversed' ? 'outside' : 'not-yet'
    const line = {
      code: 'ac-polarity.rule',
      figures: { tag: context.part.data.tag },
      source: 'bs7671-polarity',
    } as const
    return decide([ruled(context, verdict, `ac-polarity.${verdict}`, line)])
  },
  example: {
    source: 'BS 7671:2018 643.6 (from memory)',
    part: exampleCircuit,
    reading: { slots: { polarity: { choice: 'reversed' } }, conditions: null },
    verdict: 'outside',
  },
}
