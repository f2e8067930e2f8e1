/** Polarity of a string at its plugs. Source: IEC 62446-1:2016 6.2 (from memory). A reversed string stops everything. */
import { causeOf } from '../../verdict/cause'
import { decide } from '../../verdict/judgement'
import { isolatedGate } from '../gates'
import { ruled } from '../holding'
import { choiceIn } from '../reading'
import { choiceSlot } from '../slot'
import type { ReadStep } from '../step'
import { exampleString } from '../worked'

export const pvPolarity: ReadStep<'string'> = {
  kind: 'read',
  id: 'pv-polarity',
  order: 'B4',
  appliesTo: 'string',
  station: 'strings',
  protects: true,
  tag: 'live-in-daylight',
  slots: [
    choiceSlot({
      id: 'polarity',
      measures: 'dc-polarity',
      told: (sign) => (sign < 0 ? 'reversed' : 'correct'),
      options: ['correct', 'reversed'],
      sound: ['correct'],
      balloon: 1,
    }),
  ],
  counts: 'latest',
  effects: [{ state: 'plugs-locked', on: 'part', does: 'end' }],
  gates: [isolatedGate],
  cautions: [
    { id: 'no-load-before-parting', hard: true },
    { id: 'live-in-daylight', hard: false },
    { id: 'leads-rated', hard: false },
  ],
  hookup: {
    drawing: 'string-polarity',
    wiring: 'string-to-voltmeter',
    leads: [
      { balloon: 1, code: 'red-to-plus' },
      { balloon: 2, code: 'black-to-minus' },
    ],
  },
  minutes: 1,
  sources: ['iec-62446-polarity'],
  mendingTouches: ['plugs-locked'],
  judge(context) {
    const choice = choiceIn(context.reading, 'polarity')
    const verdict = choice === 'correct' ? 'within' : choice === 'reversed' ? 'outside' : 'not-yet'
    return decide([
      ruled(context, verdict, `pv-polarity.${verdict}`, {
        code: 'pv-polarity.rule',
        figures: { tag: context.part.data.tag },
        source: 'iec-62446-polarity',
      }),
    ])
  },
  causes(context) {
    if (choiceIn(context.reading, 'polarity') !== 'reversed') return []
    const figures = { tag: context.part.data.tag }
    return [
      causeOf('plugs-crossed', 'fits', 'follow-the-marks', figures),
      causeOf('leads-crossed', 'may-fit', 'check-the-leads', figures),
    ]
  },
  example: {
    source: 'IEC 62446-1:2016 6.2 (from memory)',
    part: exampleString(11),
    reading: { slots: { polarity: { choice: 'reversed' } }, conditions: null },
    verdict: 'outside',
  },
}
