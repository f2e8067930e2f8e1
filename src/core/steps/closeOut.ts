/** Close-out: every opened point closed, labels, sensors fetched back. Handbook 2 G; common practice, no source. */
import { check, checklist } from './checks'
import type { Slot } from './step'
import { exampleSite } from './worked'

const slots: readonly Slot[] = [
  check('sensors-back', 1),
  check('points-closed', 2),
  check('adapters-removed', 2),
  check('labels-on', 3),
  check('settings-noted', 3),
  check('handover', 4),
]

export const closeOut = checklist<'site'>({
  id: 'close-out',
  order: 'G1',
  appliesTo: 'site',
  station: 'inverter',
  tag: 'live',
  slots,
  gates: [],
  cautions: [
    { id: 'fetch-before-scaffold', hard: false },
    { id: 'work-at-height', hard: false },
  ],
  hookup: {
    drawing: 'close-out',
    leads: [
      { balloon: 1, code: 'sensors-and-logger' },
      { balloon: 2, code: 'opened-points' },
      { balloon: 3, code: 'at-the-inverter' },
      { balloon: 4, code: 'with-the-customer' },
    ],
  },
  minutes: 10,
  sources: ['iec-62446-inspection', 'rating-plate'],
  working: () => [
    { code: 'checks.rule', figures: { count: slots.length }, result: null, source: 'rating-plate', decides: true },
  ],
  example: {
    source: 'handbook 2 G: fetch the sensors back before the scaffold is struck; common practice, no source',
    part: exampleSite,
    reading: { slots: { 'sensors-back': { choice: 'not-as-it-should' } }, conditions: null },
    verdict: 'outside',
  },
})
