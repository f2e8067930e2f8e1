/** Plugs locked and tugged, and polarity once more after reconnection. Handbook 2 B9; IEC 62446-1:2016 6.3 (from memory). */
import { check, checklist } from './checks'
import type { Slot } from './step'
import { exampleString } from './worked'

const slots: readonly Slot[] = [check('locked-and-tugged', 1), check('polarity-again', 2), check('test-leads-off', 3)]

export const plugsLocked = checklist<'string'>({
  id: 'plugs-locked',
  order: 'B9',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live-in-daylight',
  slots,
  gates: [
    { id: 'insulation-first', hard: false, waitsFor: 'pv-insulation', until: 'done' },
    { id: 'reversed-polarity', hard: true, waitsFor: 'pv-polarity', until: 'not-outside' },
  ],
  cautions: [
    { id: 'switch-stays-off', hard: true },
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
  working: ({ part }) => [
    {
      code: 'plugs-locked.rule',
      figures: { tag: part.data.tag },
      result: null,
      source: 'iec-62446-polarity',
      decides: true,
    },
  ],
  example: {
    source: 'handbook 2 B9: polarity once more after reconnection; common practice, no source',
    part: exampleString(8),
    reading: { slots: { 'polarity-again': { choice: 'not-as-it-should' } }, conditions: null },
    verdict: 'outside',
  },
})
