/**
 * Close-out: every opened point closed, labels, sensors fetched back. A place without modules has no sensors and no
 * inverter: its list is of its own. Handbook 2 G; common practice, no source.
 */
import { checklist, hasModules } from '../checks'
import { check } from '../slot'
import { exampleSite } from '../worked'

const shared = {
  appliesTo: 'site',
  tag: 'live',
  gates: [],
  minutes: 10,
} as const

export const closeOut = checklist<'site'>({
  ...shared,
  id: 'close-out',
  order: 'G1',
  where: hasModules,
  station: 'inverter',
  slots: [
    check('sensors-back', 1),
    check('points-closed', 2),
    check('adapters-removed', 2),
    check('labels-on', 3),
    check('settings-noted', 3),
    check('handover', 4),
    check('papers-drawn', 4, { since: 5 }),
    check('papers-running', 4, { since: 5 }),
    check('papers-emergency', 4, { since: 5 }),
  ],
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
  sources: ['iec-62446-inspection', 'rating-plate'],
  example: {
    source: 'handbook 2 G: fetch the sensors back before the scaffold is struck; common practice, no source',
    part: exampleSite,
    reading: { slots: { 'sensors-back': { choice: 'not-as-it-should', note: 'still on the roof' } }, conditions: null },
    verdict: 'outside',
  },
})

export const closeOutAc = checklist<'site'>({
  ...shared,
  id: 'close-out-ac',
  order: 'G2',
  where: (plant) => !hasModules(plant),
  station: 'supply',
  slots: [
    check('points-closed', 2),
    check('test-links-out', 2),
    check('labels-on', 3),
    check('handover', 4),
    check('papers-board', 4, { since: 5 }),
    check('papers-running', 4, { since: 5 }),
  ],
  cautions: [{ id: 'links-out-before-power', hard: false }],
  hookup: {
    drawing: 'close-out-ac',
    leads: [
      { balloon: 2, code: 'opened-points' },
      { balloon: 3, code: 'at-the-board' },
      { balloon: 4, code: 'with-the-customer' },
    ],
  },
  sources: ['rating-plate'],
  example: {
    source: 'common practice, no source: links and leads of the tests are taken out',
    part: exampleSite,
    named: {
      id: '00000000-0000-7000-8000-0000000000ab',
      data: {
        kind: 'supply',
        tag: 'Supply',
        arrangement: 'TN-S',
        phases: 1,
        nominal_V: 230,
        declaredZe_ohm: null,
        faultLevel_kA: null,
      },
    },
    reading: { slots: { 'test-links-out': { choice: 'not-as-it-should', note: 'link in DB1' } }, conditions: null },
    verdict: 'outside',
  },
})
