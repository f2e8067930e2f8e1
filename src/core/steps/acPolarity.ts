/** Polarity of a circuit: line to the switch, the fuse and the centre contact. Source: BS 7671:2018 643.6 (from memory). */
import { choiceSlot, deadGate } from './acShared'
import { plain } from './checks'
import type { Step } from './step'
import { choiceIn } from './stringReading'
import { exampleCircuit } from './worked'

export const acPolarity: Step<'circuit'> = {
  id: 'ac-polarity',
  order: 'C5',
  appliesTo: 'circuit',
  station: 'board',
  tag: 'dead',
  slots: [choiceSlot({ id: 'polarity', options: ['correct', 'reversed'], sound: ['correct'], balloon: 1 })],
  needsConditions: false,
  counts: 'latest',
  gates: [deadGate],
  cautions: [{ id: 'dead-before-touch', hard: true }],
  hookup: {
    drawing: 'ac-polarity',
    leads: [{ balloon: 1, code: 'line-at-accessories' }],
  },
  minutes: 1,
  sources: ['bs7671-polarity'],
  inputs: () => '',
  judge(context, reading) {
    const choice = choiceIn(reading, 'polarity')
    const verdict = choice === 'correct' ? 'within' : choice === 'reversed' ? 'outside' : 'not-yet'
    return plain(verdict, { code: `ac-polarity.${verdict}`, figures: { tag: context.part.data.tag } })
  },
  working: () => [],
  example: {
    source: 'BS 7671:2018 643.6 (from memory)',
    part: exampleCircuit,
    reading: { slots: { polarity: { choice: 'reversed' } }, conditions: null },
    verdict: 'outside',
  },
}
