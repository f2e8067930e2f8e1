/**
 * Inspection of an electrical installation before its tests, supply off: intake, boards, routes, points. Asked line by
 * line is what the standards list; what only some plants have is asked where it is. Sources: BS 7671:2018 642.3,
 * IEC 60364-6:2016 6.4.2.3 (from memory).
 */
import { isPeriodicWork } from '../../plant/work'
import type { PartData } from '../../plant/part'
import type { PlantIndex } from '../../plant/plantIndex'
import { checklist } from '../checks'
import { type Asked, check } from '../slot'
import { exampleSite, exampleSupply } from '../worked'

const where =
  (has: (plant: PlantIndex) => boolean) =>
  (_part: PartData, _regime: unknown, { plant }: Asked): boolean =>
    has(plant)

const hasOtherSource = where(
  (plant) =>
    plant.ofKind('inverter').length > 0 ||
    plant.ofKind('supply').some(({ data }) => data.source !== undefined && data.source !== 'mains'),
)
const isPeriodic = where(isPeriodicWork)
const isNewWork = where((plant) => !isPeriodicWork(plant))

export const acInspection = checklist<'site'>({
  id: 'ac-inspection',
  order: 'A12',
  appliesTo: 'site',
  where: (plant) => plant.hasAcSide,
  sheets: ['electrical'],
  station: 'supply',
  tag: 'live',
  slots: [
    check('look-intake', 1),
    check('look-earthing', 1),
    check('look-bonding', 1),
    check('look-other-sources', 1, { only: hasOtherSource }),
    check('look-isolation', 1),
    check('look-board', 2),
    check('look-devices', 2),
    check('look-rcds', 2),
    check('look-surge', 2),
    check('look-arc', 2),
    check('look-terminals', 2),
    check('look-colours', 2),
    check('look-chart', 2),
    check('look-cables', 3),
    check('look-routes', 3),
    check('look-fire-barriers', 3),
    check('look-heat', 3),
    check('look-apart', 3),
    check('look-joints', 3),
    check('look-barriers', 4),
    check('look-accessories', 4),
    check('look-influences', 4),
    check('look-special-places', 4),
    check('look-access', 4),
    check('look-notices', 4),
    check('look-documents', 4, { only: isNewWork }),
    check('look-last-record', 4, { only: isPeriodic }),
    check('look-wear', 4, { only: isPeriodic }),
    check('look-overheated', 2, { only: isPeriodic }),
    check('look-changed-since', 4, { only: isPeriodic }),
  ],
  gates: [],
  cautions: [
    { id: 'look-before-lids', hard: false },
    { id: 'other-sources', hard: false },
  ],
  hookup: {
    drawing: 'ac-walk-round',
    leads: [
      { balloon: 1, code: 'look-at-intake' },
      { balloon: 2, code: 'look-at-boards' },
      { balloon: 3, code: 'look-along-routes' },
      { balloon: 4, code: 'look-at-points' },
    ],
  },
  minutes: 20,
  sources: ['bs7671-inspection'],
  example: {
    source: 'BS 7671:2018 642.3 (from memory): seals of penetrations are looked at; common practice, no source',
    part: exampleSite,
    named: { id: '00000000-0000-7000-8000-0000000000ac', data: exampleSupply },
    reading: {
      slots: { 'look-fire-barriers': { choice: 'not-as-it-should', note: 'open hole behind the board' } },
      conditions: null,
    },
    verdict: 'outside',
  },
})
