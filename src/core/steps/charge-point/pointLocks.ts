/**
 * Lock, PIN and tamper function off before a charge point is tested, and on again before anybody signs for it: between
 * the two the place is in a state of its own. Common practice, no source.
 */
import { checklist } from '../checks'
import { check, decisive } from '../slot'
import { exampleChargePoint } from '../worked'
import { exampleServed } from './example'
import { hasSocket } from './point'

const shared = { appliesTo: 'charge-point', station: 'charge-point', tag: 'live', sources: ['point-practice'] } as const

export const pointLocksOff = checklist<'charge-point'>({
  ...shared,
  id: 'point-locks-off',
  order: 'F1',
  slots: [decisive('pin-off', 1), decisive('lock-off', 2, { only: hasSocket }), decisive('tamper-off', 3)],
  effects: [
    { state: 'point-open', on: 'part', does: 'begin' },
    { state: 'point-secured', on: 'part', does: 'end' },
  ],
  gates: [],
  cautions: [{ id: 'point-locks-back', hard: false }],
  hookup: {
    drawing: 'point-locks-off',
    leads: [
      { balloon: 1, code: 'point-settings' },
      { balloon: 2, code: 'plug-lock' },
      { balloon: 3, code: 'point-cover' },
    ],
  },
  minutes: 3,
  example: {
    source: 'common practice, no source: a point that waits for its card answers to no adapter',
    part: exampleChargePoint,
    named: exampleServed,
    reading: { slots: { 'pin-off': { choice: 'not-as-it-should', note: 'PIN not known' } }, conditions: null },
    verdict: 'outside',
  },
})

export const pointLocksOn = checklist<'charge-point'>({
  ...shared,
  id: 'point-locks-on',
  order: 'F15',
  neverLeftOut: true,
  slots: [
    decisive('pin-changed', 1),
    decisive('lock-on', 2, { only: hasSocket }),
    decisive('tamper-on', 3),
    check('point-left-ready', 4),
  ],
  effects: [
    { state: 'point-secured', on: 'part', does: 'begin' },
    { state: 'point-open', on: 'part', does: 'end' },
  ],
  gates: [],
  cautions: [{ id: 'factory-pin', hard: false }],
  hookup: {
    drawing: 'point-locks-on',
    leads: [
      { balloon: 1, code: 'point-settings' },
      { balloon: 2, code: 'plug-lock' },
      { balloon: 3, code: 'point-cover' },
      { balloon: 4, code: 'point-display' },
    ],
  },
  minutes: 3,
  example: {
    source: 'common practice, no source: what was switched off for the tests is on again',
    part: exampleChargePoint,
    named: exampleServed,
    reading: { slots: { 'tamper-on': { choice: 'not-as-it-should', note: 'cover switch broken' } }, conditions: null },
    verdict: 'outside',
  },
})
