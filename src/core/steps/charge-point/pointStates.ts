/**
 * The states that an adapter makes in the car's place: what must happen at each, seen by two witnesses, the adapter at
 * the outlet and the point's own lamp or display. Source: IEC 61851-1:2017 annex A (from memory).
 */
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { decide } from '../../verdict/judgement'
import { notYet, ruled } from '../holding'
import type { ReadStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { plugPanel } from './plugPanel'
import { atPoint, modelRulings, type PointContext } from './point'
import { allRulings, groupOf, LIVE, OFF, stateSlots } from './stateRows'

/** What is said where nothing is wrong in any state. */
const asTheyMust = (context: PointContext) =>
  ruled(context, 'within', 'point-states.as-they-must', { code: 'point-states.all', source: 'iec-61851-states' })

export const pointStates: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-states',
  order: 'F3',
  slots: stateSlots,
  stands: 'none',
  groupOf,
  panel: (context, verdictOf) => plugPanel('point-states', context, verdictOf),
  kit: () => ['ev-adapter'],
  cautions: [
    { id: 'outlet-becomes-live', hard: true },
    { id: 'finger-guarded', hard: false },
  ],
  hookup: {
    drawing: 'point-states',
    leads: [
      { balloon: 1, code: 'adapter-outlet' },
      { balloon: 2, code: 'pilot-level' },
      { balloon: 3, code: 'point-display' },
      { balloon: 4, code: 'plug-lock' },
    ],
  },
  minutes: 4,
  sources: ['iec-61851-states', 'iec-61851-pilot', 'point-practice'],
  mendingTouches: ['point-pilot-short', 'point-earth-lost'],
  judge(context) {
    const rulings = [...allRulings(context), ...modelRulings(context)]
    if (Object.keys(context.reading.slots).length === 0) return notYet(context, 'point-states.no-reading')
    const isSound = rulings.every((one) => one.verdict === 'within')
    return decide(isSound ? [asTheyMust(context), ...rulings] : rulings)
  },
  causes(context, judgement) {
    const figures = { tag: context.part.data.tag }
    const { code } = judgement.finding
    if (code === 'point-states.welded' || code === 'point-states.live-when-off')
      return [causeOf('contactor-welded', 'fits', 'open-breaker-and-snag', figures)]
    if (code === 'point-states.dead-when-live')
      return [
        causeOf('point-not-released', 'may-fit', 'see-pin-and-limit', figures),
        causeOf('pilot-wire', 'may-fit', 'look-at-pilot-wire', figures),
      ]
    if (code === 'point-states.no-lock') return [causeOf('lock-motor', 'fits', 'look-at-lock', figures)]
    return []
  },
  example: {
    source:
      'IEC 61851-1:2017 annex A (from memory): in state B the car is connected and has not asked: the outlet is off',
    part: examplePoint,
    named: exampleServed,
    reading: {
      slots: {
        'adapter-a': { choice: OFF },
        'level-a': readValueOf(11.9, 'V', 1),
        'adapter-b': { choice: LIVE },
        'shown-b': { choice: 'shows-waiting' },
        'plug-lock': { choice: 'plug-held' },
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
