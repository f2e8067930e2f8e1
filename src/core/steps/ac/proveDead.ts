/**
 * Proving dead: isolate, lock, tag; then the tester is proved, every pair looked at, and the tester proved again. Whatever
 * else feeds the place is off as well. Source: common practice; HSE GS38 (from memory).
 */
import type { PartData } from '../../plant/part'
import { checklist } from '../checks'
import { decisive } from '../slot'
import { exampleSupply } from '../worked'

const slots = [
  decisive('locked-off', 1),
  decisive('other-sources-off', 1, { since: 2 }),
  decisive('tester-proved', 2),
  decisive('all-pairs-dead', 3),
  decisive('tester-proved-again', 4),
]

export const proveDead = checklist<'supply'>({
  id: 'prove-dead',
  order: 'C1',
  appliesTo: 'supply',
  station: 'supply',
  tag: 'live',
  slots,
  effects: [{ state: 'dead', on: 'part', does: 'begin' }],
  gates: [],
  cautions: [
    { id: 'prove-dead-with-proved', hard: true },
    { id: 'other-sources', hard: true },
  ],
  hookup: {
    drawing: 'prove-dead',
    leads: [
      { balloon: 1, code: 'main-switch-locked' },
      { balloon: 2, code: 'proving-unit' },
      { balloon: 3, code: 'every-pair' },
      { balloon: 4, code: 'proving-unit-again' },
    ],
  },
  minutes: 3,
  sources: ['continuity-practice'],
  example: {
    source: 'common practice, no source: a tester is proved before and after',
    part: exampleSupply satisfies PartData,
    reading: {
      slots: Object.fromEntries(slots.map(({ id }) => [id, { choice: 'as-it-should' }])),
      conditions: null,
    },
    verdict: 'within',
  },
})
