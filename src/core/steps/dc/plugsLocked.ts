/** Plugs locked and tugged, and polarity once more after reconnection. Handbook 2 B9; IEC 62446-1:2016 6.3 (from memory). */
import { checklist } from '../checks'
import { notReversed } from '../gates'
import { decisive } from '../slot'
import { exampleString } from '../worked'

export const plugsLocked = checklist<'string'>({
  id: 'plugs-locked',
  order: 'B12',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live-in-daylight',
  slots: [decisive('locked-and-tugged', 1), decisive('polarity-again', 2), decisive('test-leads-off', 3)],
  effects: [{ state: 'plugs-locked', on: 'part', does: 'begin' }],
  gates: [{ id: 'insulation-first', hard: false, waitsFor: 'pv-insulation', until: 'done' }, notReversed],
  cautions: [
    { id: 'switch-stays-off', hard: true },
    { id: 'tees-now', hard: false },
    { id: 'live-in-daylight', hard: false },
  ],
  hookup: {
    drawing: 'plugs-locked',
    leads: [
      { balloon: 1, code: 'click-and-tug' },
      { balloon: 2, code: 'at-the-switch' },
      { balloon: 3, code: 'adapters-away' },
    ],
  },
  minutes: 1,
  sources: ['iec-62446-polarity', 'rating-plate'],
  example: {
    source: 'handbook 2 B9: polarity once more after reconnection; common practice, no source',
    part: exampleString(8),
    reading: {
      slots: { 'polarity-again': { choice: 'not-as-it-should', note: 'crossed at the switch' } },
      conditions: null,
    },
    verdict: 'outside',
  },
})
