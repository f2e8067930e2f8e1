/** Proving dead: tester proved, every pair dead, locked off, tester proved again. Source: common practice; HSE GS38. */
import { check, checklist } from './checks'
import type { Slot } from './step'
import { exampleSupply } from './worked'

const slots: readonly Slot[] = [
  check('tester-proved', 1),
  check('all-pairs-dead', 2),
  check('locked-off', 3),
  check('tester-proved-again', 4),
]

export const proveDead = checklist<'supply'>({
  id: 'prove-dead',
  order: 'C1',
  appliesTo: 'supply',
  station: 'supply',
  tag: 'live',
  slots,
  gates: [],
  cautions: [
    { id: 'prove-dead-with-proved', hard: true },
    { id: 'other-sources', hard: false },
  ],
  hookup: {
    drawing: 'prove-dead',
    leads: [
      { balloon: 1, code: 'proving-unit' },
      { balloon: 2, code: 'every-pair' },
      { balloon: 3, code: 'main-switch-locked' },
      { balloon: 4, code: 'proving-unit-again' },
    ],
  },
  minutes: 3,
  sources: ['continuity-practice'],
  working: () => [],
  example: {
    source: 'common practice, no source: a tester is proved before and after',
    part: exampleSupply,
    reading: {
      slots: Object.fromEntries(slots.map(({ id }) => [id, { choice: 'as-it-should' }])),
      conditions: null,
    },
    verdict: 'within',
  },
})
