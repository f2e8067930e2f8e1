/** Open-circuit voltage of a string. Source: IEC 62446-1:2016 6.4 (from memory). */
import { voltageCauses } from '../diagnosis/voltageCauses'
import { readValueOf } from '../quantity/readValue'
import type { Step, StepContext } from './step'
import { expectAt, judgeString, type Modelled, modelOf, sisterGroupOf, stringInputs } from './stringReading'
import { exampleConditions, exampleString } from './worked'
import { voltageWorking } from './workingOfVoltage'

const modelled = (context: StepContext<'string'>): Modelled => {
  const model = modelOf(context)
  return (irradiance, temperature) => context.part.data.modulesInSeries * model.voc_V(irradiance, temperature)
}

export const pvVoc: Step<'string'> = {
  id: 'pv-voc',
  order: 'B6',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live-in-daylight',
  slots: [{ kind: 'number', id: 'voltage', measures: 'dc-voltage', unit: 'V', balloon: 1 }],
  needsConditions: true,
  counts: 'latest',
  gates: [
    { id: 'polarity-first', hard: false, waitsFor: 'pv-polarity', until: 'done' },
    { id: 'reversed-polarity', hard: true, waitsFor: 'pv-polarity', until: 'not-outside' },
    { id: 'design-kit', hard: false, waitsFor: 'design-kit', until: 'not-outside', on: 'array' },
    { id: 'sensors-in-plane', hard: false, waitsFor: 'sensors', until: 'done', on: 'array' },
  ],
  cautions: [
    { id: 'no-load-before-parting', hard: true },
    { id: 'tester-rating', hard: true },
    { id: 'live-in-daylight', hard: false },
  ],
  hookup: {
    drawing: 'string-to-voltmeter',
    leads: [
      { balloon: 1, code: 'red-to-plus' },
      { balloon: 2, code: 'black-to-minus' },
    ],
  },
  minutes: 2,
  sources: [
    'iec-62446-voltage',
    'iec-62446-strings',
    'de-soto',
    'rating-plate',
    'house-close-band',
    'house-module-spread',
  ],
  inputs: stringInputs,
  expect: (context, conditions) => expectAt(context, modelled(context), conditions),
  judge: (context, reading) =>
    judgeString(context, reading, {
      step: 'pv-voc',
      slot: 'voltage',
      unit: 'V',
      modelled: modelled(context),
      per: context.part.data.modulesInSeries,
    }),
  working: voltageWorking,
  causes: voltageCauses,
  sisterGroup: sisterGroupOf,
  example: {
    source:
      'handbook 17 [T]: 5 modules of 36.85 V; 163 V seen in dull light was sound (conditions 120 W/m2, 25 degC assumed)',
    part: exampleString(5),
    reading: { slots: { voltage: readValueOf(163, 'V', 0) }, conditions: exampleConditions(120, 25) },
    verdict: 'within',
  },
}
