/** Inspection of a charge point before it is opened: where it stands and how it was put there. Handbook 12; BS 7671 section 722 (from memory). */
import { checklist } from '../checks'
import { check } from '../slot'
import { examplePoint, exampleServed } from './example'

export const pointInspection = checklist<'charge-point'>({
  id: 'point-inspection',
  order: 'A13',
  appliesTo: 'charge-point',
  station: 'charge-point',
  tag: 'live',
  slots: [
    check('point-height', 1),
    check('point-impact', 1),
    check('point-weather', 1),
    check('point-plug', 2),
    check('point-reach', 2),
    check('point-own-circuit', 3),
    check('point-isolator', 3),
    check('point-load-plan', 3),
    check('point-earth-way', 4),
    check('point-clear-of-metal', 4, {
      only: (part) => part.kind === 'charge-point' && part.earthing === 'own-electrode',
    }),
    check('point-notices', 1),
  ],
  gates: [],
  cautions: [{ id: 'look-before-lids', hard: false }],
  hookup: {
    drawing: 'point-inspection',
    leads: [
      { balloon: 1, code: 'point-itself' },
      { balloon: 2, code: 'plug-and-place' },
      { balloon: 3, code: 'circuit-of-point' },
      { balloon: 4, code: 'earth-of-point' },
    ],
  },
  minutes: 5,
  sources: ['bs7671-point'],
  example: {
    source:
      'BS 7671:2018+A2 722 (from memory): a point on its own electrode stands clear of metal on the supply’s earth',
    part: { ...examplePoint, earthing: 'own-electrode' },
    named: exampleServed,
    reading: {
      slots: { 'point-clear-of-metal': { choice: 'not-as-it-should', note: 'lamp post within reach' } },
      conditions: null,
    },
    verdict: 'outside',
  },
})
