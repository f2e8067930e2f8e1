/** The test button of a residual current device, last. Source: BS 7671:2018 643.10 (from memory). */
import { checklist } from '../checks'
import { liveGates } from '../gates'
import { check } from '../slot'
import { exampleRcd } from '../worked'

export const rcdButton = checklist<'rcd'>({
  id: 'rcd-button',
  order: 'E10',
  appliesTo: 'rcd',
  station: 'rcd',
  protects: true,
  tag: 'live',
  slots: [check('button-trips', 1), check('resets-again', 2)],
  effects: [{ state: 'dead', on: 'supply', does: 'end' }],
  gates: [...liveGates, { id: 'trips-first', hard: false, waitsFor: 'rcd-trips', until: 'done' }],
  cautions: [{ id: 'button-is-no-test', hard: false }],
  hookup: {
    drawing: 'rcd-button',
    leads: [
      { balloon: 1, code: 'test-button' },
      { balloon: 2, code: 'reset-lever' },
    ],
  },
  minutes: 1,
  sources: ['bs7671-functional'],
  example: {
    source: 'BS 7671:2018 643.10 (from memory)',
    part: exampleRcd,
    reading: {
      slots: {
        'button-trips': { choice: 'as-it-should' },
        'resets-again': { choice: 'not-as-it-should', note: 'will not latch' },
      },
      conditions: null,
    },
    verdict: 'outside',
  },
})
