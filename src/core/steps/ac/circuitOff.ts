/**
 * A circuit that is not sound stays off, locked and tagged, so that the rest of its board can be switched on and tested: a
 * state of the circuit for this visit, which ends as soon as somebody works on it again. Common practice, no source.
 */
import { checklist } from '../checks'
import { deadGate } from '../gates'
import { check, decisive } from '../slot'
import { exampleCircuit } from '../worked'

export const circuitOff = checklist<'circuit'>({
  id: 'circuit-off',
  order: 'C8',
  appliesTo: 'circuit',
  onNeedOf: ['ring-ends', 'r1r2', 'ac-insulation', 'ac-polarity'],
  station: 'board',
  tag: 'dead',
  slots: [decisive('off-locked', 1), decisive('off-line-out', 1), decisive('off-tagged', 2), check('off-told', 3)],
  effects: [{ state: 'kept-off', on: 'part', does: 'begin' }],
  gates: [deadGate],
  cautions: [
    { id: 'dead-before-touch', hard: true },
    { id: 'off-until-proved', hard: true },
  ],
  hookup: {
    drawing: 'circuit-off',
    leads: [
      { balloon: 1, code: 'line-out-of-device' },
      { balloon: 2, code: 'lock-and-tag' },
      { balloon: 3, code: 'who-uses-it' },
    ],
  },
  minutes: 3,
  sources: ['continuity-practice'],
  example: {
    source: 'common practice, no source: a device that anybody can switch on again keeps nothing off',
    part: exampleCircuit,
    reading: { slots: { 'off-locked': { choice: 'not-as-it-should', note: 'no lock fits' } }, conditions: null },
    verdict: 'outside',
  },
})

/** Whoever reads a circuit has its cable in hand: whether it is off still is said anew. */
export const handled = { state: 'kept-off', on: 'part', does: 'end' } as const
