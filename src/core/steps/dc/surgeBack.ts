/**
 * Surge protection back in its base: it was taken out for the insulation test, and nothing protects the inverter while it
 * is out. Handbook 2 B9 and 5; common practice, no source.
 */
import { checklist } from '../checks'
import { isolatedGate } from '../gates'
import { check, decisive } from '../slot'

export const surgeBack = checklist<'surge-protection'>({
  id: 'surge-back',
  order: 'B11',
  appliesTo: 'surge-protection',
  station: 'dc-switch',
  tag: 'live-in-daylight',
  slots: [decisive('surge-seated', 1), check('surge-flag-sound', 2), check('surge-earth-tight', 3)],
  effects: [{ state: 'surge-in', on: 'part', does: 'begin' }],
  gates: [
    isolatedGate,
    { id: 'insulation-read', hard: false, waitsFor: 'pv-insulation', until: 'done', on: 'strings' },
  ],
  cautions: [
    { id: 'base-is-live', hard: true },
    { id: 'not-dead', hard: false },
  ],
  hookup: {
    drawing: 'surge-in-base',
    leads: [
      { balloon: 1, code: 'press-home' },
      { balloon: 2, code: 'status-window' },
      { balloon: 3, code: 'earth-of-surge' },
    ],
  },
  minutes: 2,
  sources: ['rating-plate'],
  example: {
    source:
      'handbook 5: surge protection is disconnected for the test, and its reconnection is a line; common practice, no source',
    part: { kind: 'surge-protection', tag: 'SPD1', ratedVoltage_V: 1000 },
    reading: {
      slots: { 'surge-flag-sound': { choice: 'not-as-it-should', note: 'its window is red' } },
      conditions: null,
    },
    verdict: 'outside',
  },
})
