/**
 * DC switch on, the inverter starts, and loss of mains shuts it down. Nothing is switched on before the inverter's own
 * circuit was proved dead and its earth is back. Sources: IEC 62446-1:2016 6.6, BS 7671:2018 643.1 (from memory).
 */
import type { Part } from '../../plant/part'
import type { PlantIndex } from '../../plant/plantIndex'
import { checklist } from '../checks'
import { provedOn } from '../gates'
import { check, decisive } from '../slot'
import type { GateRule, Hookup } from '../step'

const hasAc = (_: Part, plant: PlantIndex): boolean => plant.hasAcSide
const only = <G extends GateRule>(gate: G, applies: GateRule['only']): G => ({
  ...gate,
  ...(applies ? { only: applies } : {}),
})

/** Where the AC side is in this plant, its own tests prove it; else somebody says that they were done, and by whom. */
const circuitGates: readonly GateRule[] = [
  ...provedOn('inverter-circuit').map((gate) => only(gate, hasAc)),
  only({ id: 'earth-back', hard: true, state: 'earth-on', on: 'supply-of-inverter' } as const, hasAc),
  only(
    { id: 'ac-side-proved', hard: true, waitsFor: 'ac-proved', until: 'done' } as const,
    (part, plant) => !hasAc(part, plant),
  ),
]

const atTheInverter: Hookup = {
  drawing: 'inverter-on',
  leads: [
    { balloon: 1, code: 'dc-switch' },
    { balloon: 2, code: 'inverter-display' },
    { balloon: 3, code: 'ac-switch' },
  ],
}

export const reconnect = checklist<'inverter'>({
  id: 'reconnect',
  order: 'B14',
  appliesTo: 'inverter',
  station: 'inverter',
  tag: 'live',
  slots: [
    check('dc-switch-on', 1),
    check('ac-on', 3, { since: 3 }),
    check('starts', 2),
    check('mains-lost-stops', 3),
    check('restarts', 3),
    check('monitoring-on', 2, { since: 4 }),
    check('alarm-seen', 2, { since: 4 }),
  ],
  effects: [
    { state: 'isolated', on: 'site', does: 'end' },
    { state: 'dead', on: 'supply-of-inverter', does: 'end' },
  ],
  gates: [
    ...circuitGates,
    { id: 'plugs-locked', hard: false, state: 'plugs-locked', on: 'strings' },
    { id: 'surge-back', hard: false, state: 'surge-in', on: 'surge-protection' },
    { id: 'strings-polarity', hard: true, waitsFor: 'pv-polarity', until: 'done', on: 'strings' },
    { id: 'no-low-insulation', hard: false, waitsFor: 'pv-insulation', until: 'not-outside', on: 'strings' },
    { id: 'design-voltage', hard: false, waitsFor: 'design-voltage', until: 'not-outside', on: 'strings-array' },
    { id: 'design-current', hard: false, waitsFor: 'design-current', until: 'not-outside', on: 'strings-array' },
    { id: 'design-fuses', hard: false, waitsFor: 'design-fuses', until: 'not-outside', on: 'strings-array' },
  ],
  cautions: [
    { id: 'nobody-at-the-plugs', hard: true },
    { id: 'covers-on', hard: false },
  ],
  hookup: atTheInverter,
  minutes: 8,
  sources: ['iec-62446-functional'],
  example: {
    source: 'IEC 62446-1:2016 6.6 (from memory): an inverter that runs on without mains is a defect',
    part: { kind: 'inverter', tag: 'INV', maxInput_V: 1000 },
    reading: {
      slots: { 'mains-lost-stops': { choice: 'not-as-it-should', note: 'runs on for a minute' } },
      conditions: null,
    },
    verdict: 'outside',
  },
})

/** The AC side of a plant that is not in this record: whoever switches on says that it was tested, and where that stands. */
export const acProved = checklist<'inverter'>({
  id: 'ac-proved',
  order: 'B13',
  appliesTo: 'inverter',
  where: (plant) => !plant.hasAcSide,
  station: 'inverter',
  tag: 'live',
  slots: [decisive('ac-dead-tests-done', 3), decisive('ac-earth-in-place', 3)],
  gates: [],
  cautions: [{ id: 'earth-back-before-power', hard: true }],
  hookup: atTheInverter,
  minutes: 1,
  sources: ['bs7671-continuity'],
  example: {
    source: 'BS 7671:2018 643.1 (from memory): continuity, insulation and polarity before anything is energised',
    part: { kind: 'inverter', tag: 'INV', maxInput_V: 1000 },
    reading: {
      slots: { 'ac-dead-tests-done': { choice: 'as-it-should' }, 'ac-earth-in-place': { choice: 'as-it-should' } },
      conditions: null,
    },
    verdict: 'within',
  },
})
