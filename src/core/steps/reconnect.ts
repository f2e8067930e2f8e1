/** DC switch on, the inverter starts, and loss of mains shuts it down. Source: IEC 62446-1:2016 6.6 (from memory). */
import { check, checklist } from './checks'
import type { Slot } from './step'

const slots: readonly Slot[] = [
  check('dc-switch-on', 1),
  check('starts', 2),
  check('mains-lost-stops', 3),
  check('restarts', 3),
]

export const reconnect = checklist<'inverter'>({
  id: 'reconnect',
  order: 'B10',
  appliesTo: 'inverter',
  station: 'inverter',
  tag: 'live',
  slots,
  gates: [
    { id: 'plugs-locked', hard: false, waitsFor: 'plugs-locked', until: 'done', on: 'strings' },
    { id: 'no-reversed-string', hard: true, waitsFor: 'pv-polarity', until: 'not-outside', on: 'strings' },
    { id: 'no-low-insulation', hard: false, waitsFor: 'pv-insulation', until: 'not-outside', on: 'strings' },
    { id: 'design-voltage', hard: false, waitsFor: 'design-voltage', until: 'not-outside', on: 'strings-array' },
    { id: 'design-current', hard: false, waitsFor: 'design-current', until: 'not-outside', on: 'strings-array' },
    { id: 'design-fuses', hard: false, waitsFor: 'design-fuses', until: 'not-outside', on: 'strings-array' },
  ],
  cautions: [
    { id: 'nobody-at-the-plugs', hard: true },
    { id: 'covers-on', hard: false },
  ],
  hookup: {
    drawing: 'inverter-on',
    leads: [
      { balloon: 1, code: 'dc-switch' },
      { balloon: 2, code: 'inverter-display' },
      { balloon: 3, code: 'ac-switch' },
    ],
  },
  minutes: 8,
  sources: ['iec-62446-functional'],
  working: () => [{ code: 'reconnect.rule', figures: {}, result: null, source: 'iec-62446-functional', decides: true }],
  example: {
    source: 'IEC 62446-1:2016 6.6 (from memory): an inverter that runs on without mains is a defect',
    part: { kind: 'inverter', tag: 'INV', maxInput_V: 1000 },
    reading: { slots: { 'mains-lost-stops': { choice: 'not-as-it-should' } }, conditions: null },
    verdict: 'outside',
  },
})
