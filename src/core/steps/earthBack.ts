/** The earthing conductor is back on its terminal: nothing else is done with the supply on before this. */
import { check, checklist } from './checks'
import type { Slot } from './step'
import { exampleSupply } from './worked'

const slots: readonly Slot[] = [check('earthing-conductor-back', 1), check('covers-back', 2)]

export const earthBack = checklist<'supply'>({
  id: 'earth-back',
  order: 'E2',
  appliesTo: 'supply',
  station: 'supply',
  tag: 'live',
  slots,
  gates: [],
  cautions: [{ id: 'earth-back-before-power', hard: true }],
  hookup: {
    drawing: 'earth-back',
    leads: [
      { balloon: 1, code: 'earthing-conductor' },
      { balloon: 2, code: 'covers' },
    ],
  },
  minutes: 1,
  sources: ['bs7671-ze'],
  working: () => [],
  example: {
    source: 'common practice, no source',
    part: exampleSupply,
    reading: {
      slots: { 'earthing-conductor-back': { choice: 'as-it-should' }, 'covers-back': { choice: 'as-it-should' } },
      conditions: null,
    },
    verdict: 'within',
  },
})
