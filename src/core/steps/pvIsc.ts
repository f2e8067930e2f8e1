/** Short-circuit current of a string, with light and warmth of the same moment. Source: IEC 62446-1:2016 6.5 (from memory). */
import { currentCauses } from '../diagnosis/currentCauses'
import { readValueOf } from '../quantity/readValue'
import type { Step, StepContext } from './step'
import { expectAt, judgeString, type Modelled, modelOf, sisterGroupOf, stringInputs } from './stringReading'
import { exampleConditions, exampleString } from './worked'
import { currentWorking } from './workingOfCurrent'

const modelled = (context: StepContext<'string'>): Modelled => {
  const model = modelOf(context)
  return (irradiance, temperature) => model.isc_A(irradiance, temperature)
}

export const pvIsc: Step<'string'> = {
  id: 'pv-isc',
  order: 'B7',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live-in-daylight',
  slots: [{ kind: 'number', id: 'current', measures: 'dc-current', unit: 'A', balloon: 1 }],
  needsConditions: true,
  counts: 'latest',
  gates: [
    { id: 'polarity-known', hard: true, waitsFor: 'pv-polarity', until: 'done' },
    { id: 'voltage-first', hard: false, waitsFor: 'pv-voc', until: 'done' },
    { id: 'design-kit', hard: false, waitsFor: 'design-kit', until: 'not-outside', on: 'array' },
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
    'house-module-spread',
  ],
  inputs: stringInputs,
  expect: (context, conditions) => expectAt(context, modelled(context), conditions),
  judge: (context, reading) =>
    judgeString(context, reading, { step: 'pv-isc', slot: 'current', unit: 'A', modelled: modelled(context), per: 1 }),
  working: currentWorking,
  causes: currentCauses,
  sisterGroup: sisterGroupOf,
  example: {
    source: 'computed: 8.8 A rated, half the light and 20 K more give 8.8 * 0.5 * 1.01 = 4.44 A',
    part: exampleString(11),
    reading: { slots: { current: readValueOf(4.44, 'A', 2) }, conditions: exampleConditions(500, 45) },
    verdict: 'within',
  },
}
