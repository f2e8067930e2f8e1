/** What a charge point is set to and what it has noted: read off its menu at the end. Common practice, no source. */
import { checklist } from '../checks'
import { check } from '../slot'
import { examplePoint, exampleServed } from './example'
import { pointGates } from './point'

export const pointSettings = checklist<'charge-point'>({
  id: 'point-settings',
  order: 'F14',
  appliesTo: 'charge-point',
  station: 'charge-point',
  tag: 'live',
  slots: [
    check('clock-set', 1),
    check('mode-set', 1),
    check('current-set', 1),
    check('import-limit-set', 2),
    check('metering-way', 2),
    check('thermal-clear', 3),
    check('energy-noted', 3),
    check('point-labels', 3),
  ],
  gates: pointGates,
  cautions: [{ id: 'factory-clock', hard: false }],
  hookup: {
    drawing: 'point-settings',
    leads: [
      { balloon: 1, code: 'point-menu' },
      { balloon: 2, code: 'metering-clamp' },
      { balloon: 3, code: 'point-display' },
    ],
  },
  minutes: 4,
  sources: ['point-practice'],
  example: {
    source: 'common practice, no source: a point that still has the factory’s date logs every charge wrongly',
    part: examplePoint,
    named: exampleServed,
    reading: { slots: { 'clock-set': { choice: 'not-as-it-should', note: 'still 1 January' } }, conditions: null },
    verdict: 'outside',
  },
})
