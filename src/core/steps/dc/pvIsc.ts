/** Short-circuit current of a string, with light and warmth of the same moment. Source: IEC 62446-1:2016 6.5 (from memory). */
import { currentCauses } from '../../diagnosis/currentCauses'
import { hidesItsCells } from '../../plant/moduleElectronics'
import { readValueOf } from '../../quantity/readValue'
import { isolatedGate, notReversed } from '../gates'
import { numberSlot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleConditions, exampleString } from '../worked'
import { sisterGroupOf } from './sisterGroup'
import type { Modelled } from './stringOptions'
import { expectAt, judgeString, modelOf } from './stringReading'
import { currentSum } from './workingOfCurrent'
import { asReadOf, lightToldBy } from './withoutLight'

const current = numberSlot('current', 'dc-current', 'A', 1)

const modelled = (context: StepContext<'string'>): Modelled => {
  const model = modelOf(context)
  return (irradiance, temperature) => model.isc_A(irradiance, temperature)
}

export const pvIsc: ReadStep<'string'> = {
  kind: 'read',
  id: 'pv-isc',
  order: 'B7',
  appliesTo: 'string',
  // Converters give what they are made to give: no string current says what the cells do.
  of: (part) => !hidesItsCells(part),
  station: 'strings',
  tag: 'live-in-daylight',
  slots: [current],
  needsConditions: true,
  counts: 'latest',
  effects: [{ state: 'plugs-locked', on: 'part', does: 'end' }],
  gates: [
    isolatedGate,
    { id: 'polarity-known', hard: true, waitsFor: 'pv-polarity', until: 'done' },
    notReversed,
    { id: 'voltage-first', hard: false, waitsFor: 'pv-voc', until: 'done' },
    { id: 'sensors-in-plane', hard: false, waitsFor: 'sensors', until: 'done', on: 'array' },
  ],
  cautions: [
    { id: 'switch-off-to-connect', hard: true },
    { id: 'dc-arcs', hard: true },
    { id: 'live-in-daylight', hard: false },
  ],
  hookup: {
    drawing: 'string-through-switch',
    leads: [
      { balloon: 1, code: 'tester-or-clamp' },
      { balloon: 2, code: 'switch-rated' },
    ],
  },
  minutes: 2,
  sources: [
    'iec-62446-current',
    'iec-62446-strings',
    'iec-62446-light',
    'de-soto',
    'rating-plate',
    'house-close-band',
    'house-expectation',
    'house-module-spread',
  ],
  mendingTouches: ['pv-polarity', 'pv-voc', 'pv-insulation', 'plugs-locked', 'operating'],
  expect: (context) => expectAt(context, modelled(context)),
  judge: (context) =>
    judgeString(context, {
      step: 'pv-isc',
      slot: current,
      unit: 'A',
      modelled: modelled(context),
      per: 1,
      sum: (weather) => currentSum(context, weather),
    }),
  causes: currentCauses,
  sisterGroup: sisterGroupOf,
  compared: 'percent',
  asRead: (part, reading) => asReadOf(part, reading, current, 1),
  tellsLight: (part, reading) => lightToldBy(part, reading, current),
  example: {
    source: 'computed: 9.6 A rated, half the light and 20 K more give 9.6 * 0.5 * 1.01 = 4.85 A',
    part: exampleString(11),
    reading: { slots: { current: readValueOf(4.85, 'A', 2) }, conditions: exampleConditions(500, 45) },
    verdict: 'within',
  },
}
