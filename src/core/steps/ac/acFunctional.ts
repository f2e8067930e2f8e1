/** Functional checks of a board: switching, interlocks, rotation, labels. Source: BS 7671:2018 643.9, 643.10 (from memory). */
import { checklist } from '../checks'
import { liveGates } from '../gates'
import { check, isThreePhase } from '../slot'
import { exampleBoard } from '../worked'

const slots = [
  check('switches-work', 1),
  check('arc-button', 1, { since: 4 }),
  check('surge-window', 3, { since: 4 }),
  check('rotation', 2, { only: isThreePhase }),
  check('board-labels', 3),
  check('covers-back', 4),
]

export const acFunctional = checklist<'board'>({
  id: 'ac-functional',
  order: 'E11',
  appliesTo: 'board',
  station: 'board',
  tag: 'live',
  slots,
  effects: [{ state: 'dead', on: 'supply', does: 'end' }],
  gates: liveGates,
  cautions: [{ id: 'finger-guarded', hard: false }],
  hookup: {
    drawing: 'board-checks',
    leads: [
      { balloon: 1, code: 'every-switch' },
      { balloon: 2, code: 'phase-rotation' },
      { balloon: 3, code: 'labels-at-board' },
      { balloon: 4, code: 'covers' },
    ],
  },
  minutes: 3,
  sources: ['bs7671-functional'],
  example: {
    source: 'BS 7671:2018 643.10 (from memory)',
    part: { ...exampleBoard, phases: 3 },
    reading: {
      slots: Object.fromEntries(slots.map(({ id }) => [id, { choice: 'as-it-should' }])),
      conditions: null,
    },
    verdict: 'within',
  },
})
