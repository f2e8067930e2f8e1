/**
 * Where strings meet: each one's polarity before it is joined to the others. One reversed string among many drives its
 * current back through the rest, and the meter between the two sees both. Source: IEC 62446-1:2016 6.3 (from memory).
 */
import { checklist } from '../checks'
import { isolatedGate } from '../gates'
import { check } from '../slot'

export const combinerPolarity = checklist<'combiner'>({
  id: 'combiner-polarity',
  order: 'B5',
  appliesTo: 'combiner',
  station: 'strings',
  tag: 'live-in-daylight',
  slots: [
    check('all-fuses-out', 1),
    check('against-a-known-one', 2, { since: 2 }),
    check('all-alike', 2),
    check('joined-after', 3),
  ],
  gates: [
    isolatedGate,
    { id: 'strings-polarity', hard: true, waitsFor: 'pv-polarity', until: 'done', on: 'strings' },
    { id: 'design-fuses', hard: false, waitsFor: 'design-fuses', until: 'not-outside', on: 'strings-array' },
  ],
  cautions: [
    { id: 'reversed-string-burns', hard: true },
    { id: 'meter-sees-both', hard: true },
    { id: 'live-in-daylight', hard: false },
  ],
  hookup: {
    drawing: 'combiner-open',
    leads: [
      { balloon: 1, code: 'carriers-out' },
      { balloon: 2, code: 'each-string' },
      { balloon: 3, code: 'bus-bar' },
    ],
  },
  minutes: 5,
  sources: ['iec-62446-combiner'],
  example: {
    source: 'IEC 62446-1:2016 6.3 (from memory): a string unlike the others stops the joining',
    part: { kind: 'combiner', tag: 'C1', inverterId: null },
    reading: { slots: { 'all-alike': { choice: 'not-as-it-should', note: 'string 3 is reversed' } }, conditions: null },
    verdict: 'outside',
  },
})
