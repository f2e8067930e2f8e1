/** The earthing conductor is back on its terminal: nothing else is done with the supply on before this. */
import { checklist } from '../checks'
import { check, decisive } from '../slot'
import { exampleSupply } from '../worked'

export const earthBack = checklist<'supply'>({
  id: 'earth-back',
  order: 'E5',
  appliesTo: 'supply',
  station: 'supply',
  tag: 'dead',
  slots: [decisive('earthing-conductor-back', 1), check('covers-back', 2)],
  effects: [{ state: 'earth-on', on: 'part', does: 'begin' }],
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
