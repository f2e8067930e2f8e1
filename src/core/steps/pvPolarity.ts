/** Polarity of a string at its plugs. Source: IEC 62446-1:2016 6.3 (from memory). A reversed string stops everything. */
import type { StringData } from '../plant/part'
import type { Step } from './step'
import { choiceIn } from './stringReading'
import { exampleString } from './worked'

export const pvPolarity: Step<'string'> = {
  id: 'pv-polarity',
  order: 'B4',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live-in-daylight',
  slots: [
    {
      kind: 'choice',
      id: 'polarity',
      measures: 'dc-polarity',
      options: ['correct', 'reversed'],
      sound: ['correct'],
      balloon: 1,
    },
  ],
  needsConditions: false,
  counts: 'latest',
  gates: [
    { id: 'isolated', hard: true, waitsFor: 'safe-isolation', until: 'done', on: 'site' },
    { id: 'design-kit', hard: false, waitsFor: 'design-kit', until: 'not-outside', on: 'array' },
  ],
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
  inputs: () => '',
  judge(context, reading) {
    const choice = choiceIn(reading, 'polarity')
    const verdict = choice === 'correct' ? 'within' : choice === 'reversed' ? 'outside' : 'not-yet'
    return {
      verdict,
      finding: { code: `pv-polarity.${verdict}`, figures: { tag: context.part.data.tag } },
      flags: [],
      rule: null,
      comparable: null,
      referred: null,
      limits: [],
    }
  },
  working: (context) => [
    {
      code: 'pv-polarity.rule',
      figures: { tag: context.part.data.tag },
      result: null,
      source: 'iec-62446-polarity',
      decides: true,
    },
  ],
  causes(context, reading) {
    if (choiceIn(reading, 'polarity') !== 'reversed') return []
    const figures = { tag: context.part.data.tag }
    return [
      { code: 'plugs-crossed', figures, fit: 'fits', predicted: null, next: { code: 'follow-the-marks', figures } },
      { code: 'leads-crossed', figures, fit: 'may-fit', predicted: null, next: { code: 'check-the-leads', figures } },
    ]
  },
  example: {
    source: 'IEC 62446-1:2016 6.3 (from memory)',
    part: exampleString(11) satisfies StringData,
    reading: { slots: { polarity: { choice: 'reversed' } }, conditions: null },
    verdict: 'outside',
  },
}
