/** The electrode's conductor is back and its pit closed, before anything is energised. Source: common practice. */
import { deadGate } from './acShared'
import { check, checklist } from './checks'
import type { Slot } from './step'
import { exampleElectrode } from './worked'

const slots: readonly Slot[] = [
  check('electrode-conductor-back', 1),
  check('electrode-clamp-tight', 2),
  check('electrode-pit-marked', 3),
]

export const electrodeBack = checklist<'electrode'>({
  id: 'electrode-back',
  order: 'D2',
  appliesTo: 'electrode',
  station: 'electrode',
  tag: 'dead',
  slots,
  gates: [deadGate, { id: 'electrode-read', hard: false, waitsFor: 'electrode', until: 'done' }],
  cautions: [{ id: 'earth-back-before-power', hard: true }],
  hookup: {
    drawing: 'electrode-back',
    leads: [
      { balloon: 1, code: 'earthing-conductor' },
      { balloon: 2, code: 'electrode-clamp' },
      { balloon: 3, code: 'pit-lid' },
    ],
  },
  minutes: 2,
  sources: ['bs7671-electrode', 'electrode-practice'],
  working: () => [],
  example: {
    source: 'common practice, no source',
    part: exampleElectrode,
    reading: {
      slots: { 'electrode-conductor-back': { choice: 'not-as-it-should' } },
      conditions: null,
    },
    verdict: 'outside',
  },
})
