/** Inspection before anything is measured. Source: IEC 62446-1:2016 5.2 (from memory); the list is handbook 12. */
import { checklist, hasModules } from '../checks'
import { check } from '../slot'
import { exampleSite } from '../worked'

export const siteInspection = checklist<'site'>({
  id: 'inspection',
  order: 'A1',
  appliesTo: 'site',
  where: hasModules,
  sheets: ['pv'],
  station: 'modules',
  tag: 'live-in-daylight',
  slots: [
    check('mounting', 1),
    check('dc-cable', 1),
    check('no-cable-loops', 1),
    check('connectors-mated', 1),
    check('polarity-marks', 1),
    check('bonding', 2),
    check('switch-for-dc', 3),
    check('fuse-ratings', 3),
    check('surge-protection', 3),
    check('crimped-ends', 3, { since: 3 }),
    check('conductor-colours', 3, { since: 3 }),
    check('torque', 3, { since: 3 }),
    check('functional-earth', 3, { since: 4 }),
    check('module-electronics', 1, { since: 4 }),
    check('lightning', 2, { since: 4 }),
    check('inverter-place', 3),
    check('rcd-type', 4),
    check('labels', 4),
    check('label-cables', 1, { since: 4 }),
    check('label-dual-supply', 4, { since: 4 }),
    check('label-shutdown', 4, { since: 4 }),
    check('diagram', 4),
    check('kit-in-date', 4, { knows: 'kit' }),
  ],
  gates: [],
  cautions: [
    { id: 'work-at-height', hard: false },
    { id: 'live-in-daylight', hard: false },
  ],
  hookup: {
    drawing: 'walk-round',
    leads: [
      { balloon: 1, code: 'on-the-roof' },
      { balloon: 2, code: 'frames-and-rails' },
      { balloon: 3, code: 'at-the-inverter' },
      { balloon: 4, code: 'at-the-board' },
    ],
  },
  minutes: 15,
  sources: ['iec-62446-inspection'],
  example: {
    source: 'handbook 12: a line that is not as it should be is a defect; common practice, no source',
    part: exampleSite,
    reading: { slots: { labels: { choice: 'not-as-it-should' } }, conditions: null },
    verdict: 'outside',
  },
})
