/** Open-circuit voltage of a string. Source: IEC 62446-1:2016 6.4 (from memory). */
import { voltageCauses } from '../../diagnosis/voltageCauses'
import { readValueOf } from '../../quantity/readValue'
import { isolatedGate, notReversed } from '../gates'
import { numberSlot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleConditions, exampleString } from '../worked'
import { soundVoltage } from './soundVoltage'
import { sisterGroupOf } from './sisterGroup'
import type { Modelled } from './stringOptions'
import { expectAt, judgeString, modelOf } from './stringReading'
import { voltageSum } from './workingOfVoltage'
import { asReadOf } from './withoutLight'
import { hidesItsCells } from '../../plant/moduleElectronics'
import { heldExpected, heldVariants, judgeHeld } from './heldVoltage'

const voltage = numberSlot('voltage', 'dc-voltage', 'V', 1)

const modelled = (context: StepContext<'string'>): Modelled => {
  const model = modelOf(context)
  const { modulesInSeries } = context.part.data
  return (irradiance, temperature) => modulesInSeries * model.voc_V(irradiance, temperature)
}

export const pvVoc: ReadStep<'string'> = {
  kind: 'read',
  id: 'pv-voc',
  order: 'B6',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live-in-daylight',
  slots: [voltage],
  needsConditions: (part) => !hidesItsCells(part),
  counts: 'latest',
  effects: [{ state: 'plugs-locked', on: 'part', does: 'end' }],
  gates: [
    isolatedGate,
    { id: 'polarity-first', hard: false, waitsFor: 'pv-polarity', until: 'done' },
    notReversed,
    {
      id: 'sensors-in-plane',
      hard: false,
      waitsFor: 'sensors',
      until: 'done',
      on: 'array',
      only: (part) => !hidesItsCells(part),
    },
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
  variants: heldVariants,
  minutes: 2,
  sources: [
    'iec-62446-voltage',
    'iec-62446-strings',
    'de-soto',
    'rating-plate',
    'house-close-band',
    'house-expectation',
    'house-module-spread',
  ],
  mendingTouches: ['pv-polarity', 'pv-isc', 'pv-insulation', 'plugs-locked', 'operating'],
  expect: (context) => (hidesItsCells(context.part) ? heldExpected(context) : expectAt(context, modelled(context))),
  judge(context) {
    if (hidesItsCells(context.part)) return judgeHeld(context, voltage)
    return judgeString(context, {
      step: 'pv-voc',
      slot: voltage,
      unit: 'V',
      modelled: modelled(context),
      per: context.part.data.modulesInSeries,
      sum: (weather) => voltageSum(context, weather),
    })
  },
  causes: voltageCauses,
  sound: soundVoltage,
  sisterGroup: sisterGroupOf,
  compared: 'percent',
  asRead: (part, reading) => (hidesItsCells(part) ? null : asReadOf(part, reading, voltage, part.data.modulesInSeries)),
  example: {
    source: 'computed: seven modules of 37.40 V, with the light term at 300 W/m2 and 25 degC 249.4 V',
    part: exampleString(7),
    reading: { slots: { voltage: readValueOf(249, 'V', 0) }, conditions: exampleConditions(300, 25) },
    verdict: 'within',
  },
}
