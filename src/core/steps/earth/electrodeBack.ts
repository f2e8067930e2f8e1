/** The electrode's conductor is back and its pit closed, before anything is energised. Source: common practice. */
import { checklist } from '../checks'
import { deadGate } from '../gates'
import { check, decisive } from '../slot'
import type { Order } from '../step'
import { exampleElectrode } from '../worked'

/** By spikes it goes back before Ze; by the loop with the earthing conductor, after it. */
const backStep = (id: string, order: Order, testedBy: 'spikes' | 'loop', waitsFor: string) =>
  checklist<'electrode'>({
    id,
    order,
    appliesTo: 'electrode',
    of: ({ data }) => (data.testedBy ?? 'spikes') === testedBy,
    station: 'electrode',
    tag: 'dead',
    slots: [
      decisive('electrode-conductor-back', 1),
      decisive('electrode-clamp-tight', 2),
      check('electrode-pit-marked', 3),
    ],
    effects: [{ state: 'electrode-on', on: 'part', does: 'begin' }],
    gates: [deadGate, { id: 'electrode-read', hard: false, waitsFor, until: 'done' }],
    cautions: [{ id: 'earth-back-before-power', hard: true }],
    hookup: {
      drawing: 'electrode-back',
      leads: [
        { balloon: 1, code: 'earthing-conductor' },
        { balloon: 2, code: 'electrode-clamp' },
        { balloon: 3, code: 'pit-lid' },
      ],
    },
    minutes: 2,
    sources: ['bs7671-electrode', 'electrode-practice'],
    example: {
      source: 'common practice, no source',
      part: { ...exampleElectrode, testedBy },
      reading: {
        slots: { 'electrode-conductor-back': { choice: 'not-as-it-should', note: 'still off' } },
        conditions: null,
      },
      verdict: 'outside',
    },
  })

export const electrodeBack = backStep('electrode-back', 'D2', 'spikes', 'electrode')
export const electrodeLoopBack = backStep('electrode-loop-back', 'E4', 'loop', 'electrode-loop')
