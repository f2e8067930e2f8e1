/** The calculations of the command line: one schema in, one object out, per name. */
import { z } from 'zod'
import { fitDeSoto } from '../core/pv/deSoto'
import { type ModuleData, moduleDataSchema } from '../core/pv/moduleData'
import { quickRuleVoltage } from '../core/pv/quickRule'
import {
  currentAt,
  maximumPowerPoint,
  openCircuitVoltage,
  type SingleDiode,
  shortCircuitCurrent,
} from '../core/pv/singleDiode'
import { moduleModel, referToStc } from '../core/pv/stringModel'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '../core/pv/constants'
import { sources } from '../core/regime/sources'
import { verifySeal } from '../server/seal/verifySeal'
import {
  faultCurrent,
  faultCurrentSchema,
  insulationVerdict,
  insulationVerdictSchema,
  maxZs,
  maxZsSchema,
  r1r2,
  r1r2Schema,
} from './acCalculations'
import {
  causes,
  causesSchema,
  features,
  featuresSchema,
  fit,
  fitSchema,
  stringCurve,
  stringCurveSchema,
  translate,
  translateSchema,
} from './curveCalculations'
import {
  earthFaultPlace,
  earthFaultSchema,
  insulationDc,
  insulationDcSchema,
  ratings,
  ratingsSchema,
} from './dcCalculations'
import { electrode, electrodeSchema, rcdVerdict, rcdVerdictSchema, rods, rodsSchema } from './earthCalculations'
import {
  dcDetectorVerdict,
  dcDetectorVerdictSchema,
  pilot,
  pilotSchema,
  proximity,
  proximitySchema,
} from './plugCalculations'
import { CalcProblem } from './problem'
import { scenario, scenarioSchema } from './scenario'

type Calculation = { about: string; schema: z.ZodType; run(input: never): Promise<object> | object }

const irradiance_Wm2 = z.number().min(1).max(1600)
const cellTemperature_C = z.number().min(-50).max(110)
const modulesInSeries = z.number().int().min(1).max(60)

const singleDiodeSchema = z.strictObject({
  photocurrent_A: z.number().positive().max(1e5),
  saturationCurrent_A: z.number().positive().max(1),
  seriesResistance_ohm: z.number().min(0).max(1e4),
  shuntResistance_ohm: z.number().positive().max(1e9),
  modifiedIdeality_V: z.number().positive().max(1e4),
  voltages_V: z.array(z.number().min(-1e5).max(1e5)).max(1_000_000),
})

const expectedSchema = z.strictObject({
  module: moduleDataSchema,
  modulesInSeries,
  stringsInParallel: z.number().int().min(1).max(1000),
  irradiance_Wm2,
  cellTemperature_C,
})

const referSchema = z.strictObject({
  module: moduleDataSchema,
  modulesInSeries,
  quantity: z.enum(['voc', 'isc']),
  value: z.number().min(0).max(1e5),
  irradiance_Wm2,
  cellTemperature_C,
})

function fittedOrRefused(module: ModuleData): SingleDiode {
  const fit = fitDeSoto(module)
  if (fit.state === 'fitted') return fit.parameters
  throw new CalcProblem([
    {
      path: ['module'],
      message: 'this data sheet has no physical single-diode solution: check Vmp, Imp and beta against the sheet',
    },
  ])
}

function pvExpected(input: z.infer<typeof expectedSchema>) {
  const { module, modulesInSeries: series, stringsInParallel: parallel } = input
  const model = moduleModel(module)
  const at = [input.irradiance_Wm2, input.cellTemperature_C] as const
  const power = model.maximumPower(...at)
  return {
    voc_V: series * model.voc_V(...at),
    isc_A: parallel * model.isc_A(...at),
    vmp_V: series * power.vmp_V,
    imp_A: parallel * power.imp_A,
    pmax_W: series * parallel * power.pmax_W,
    vocQuickRule_V: quickRuleVoltage(module, series, input.cellTemperature_C),
    method: model.method,
    sources: [model.method === 'de-soto' ? sources['de-soto'] : sources['rating-plate']],
  }
}

function singleDiode(input: z.infer<typeof singleDiodeSchema>) {
  const { voltages_V, ...diode } = input
  return {
    currents_A: voltages_V.map((voltage) => currentAt(diode, voltage)),
    voc_V: openCircuitVoltage(diode),
    isc_A: shortCircuitCurrent(diode),
    ...maximumPowerPoint(diode),
  }
}

function referReading(input: z.infer<typeof referSchema>) {
  const model = moduleModel(input.module)
  const series = input.modulesInSeries
  const modelled =
    input.quantity === 'voc'
      ? (g: number, t: number) => series * model.voc_V(g, t)
      : (g: number, t: number) => model.isc_A(g, t)
  const value = referToStc(input.value, modelled, input.irradiance_Wm2, input.cellTemperature_C)
  const expected = modelled(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)
  return { value, expected, difference_pct: 100 * (value / expected - 1), method: model.method }
}

export const calculations: Readonly<Record<string, Calculation>> = {
  'pv-expected': {
    about: 'what a string or array should read at an irradiance and cell temperature',
    schema: expectedSchema,
    run: pvExpected as Calculation['run'],
  },
  'desoto-fit': {
    about: 'the five single-diode parameters of a module at STC, from its data sheet',
    schema: z.strictObject({ module: moduleDataSchema }),
    run: ((input: { module: ModuleData }) => fittedOrRefused(input.module)) as Calculation['run'],
  },
  'single-diode': {
    about: 'currents at voltages, and the points of the curve, from the five parameters',
    schema: singleDiodeSchema,
    run: singleDiode as Calculation['run'],
  },
  'refer-to-stc': {
    about: 'a measured Voc or Isc referred to standard test conditions',
    schema: referSchema,
    run: referReading as Calculation['run'],
  },
  'string-curve': {
    about: 'current against voltage of strings whose cell groups are shaded, bypassed or reversed',
    schema: stringCurveSchema,
    run: stringCurve as Calculation['run'],
  },
  'iv-features': {
    about: 'what stands out on a measured curve: its ends, highest power, slopes and ledges',
    schema: featuresSchema,
    run: features as Calculation['run'],
  },
  'iv-fit': {
    about: 'the five single-diode parameters of a measured curve, each with its 95 % interval',
    schema: fitSchema,
    run: fit as Calculation['run'],
  },
  'iv-translate': {
    about: 'a measured curve carried to other light and temperature',
    schema: translateSchema,
    run: translate as Calculation['run'],
  },
  'iv-causes': {
    about: 'what explains a measured curve: causes simulated, fitted to its points and ranked',
    schema: causesSchema,
    run: causes as Calculation['run'],
  },
  'insulation-dc': {
    about: 'test voltage and least resistance of a DC insulation test, and the verdict on its readings',
    schema: insulationDcSchema,
    run: insulationDc as Calculation['run'],
  },
  'earth-fault': {
    about: 'where along a floating string an earth fault sits',
    schema: earthFaultSchema,
    run: earthFaultPlace as Calculation['run'],
  },
  ratings: {
    about: 'the design check: what a string can deliver against what its circuit is made for',
    schema: ratingsSchema,
    run: ratings as Calculation['run'],
  },
  'max-zs': {
    about: 'the highest loop impedance that a breaker or fuse allows, and four fifths of it for a cold measurement',
    schema: maxZsSchema,
    run: maxZs as Calculation['run'],
  },
  'fault-current': {
    about: 'prospective earth fault, short-circuit and highest fault current from the loops of a point',
    schema: faultCurrentSchema,
    run: faultCurrent as Calculation['run'],
  },
  r1r2: {
    about: 'resistance of line and protective conductor of a circuit together',
    schema: r1r2Schema,
    run: r1r2 as Calculation['run'],
  },
  electrode: {
    about: 'an earth electrode from its readings, against the residual current devices above it',
    schema: electrodeSchema,
    run: electrode as Calculation['run'],
  },
  rods: {
    about: 'one rod, several in line, and how many reach a target',
    schema: rodsSchema,
    run: rods as Calculation['run'],
  },
  'rcd-verdict': {
    about: 'the verdict on the trips of a residual current device',
    schema: rcdVerdictSchema,
    run: rcdVerdict as Calculation['run'],
  },
  'insulation-verdict': {
    about: 'test voltage and least resistance of an AC circuit, and the verdict on its pairs',
    schema: insulationVerdictSchema,
    run: insulationVerdict as Calculation['run'],
  },
  pilot: {
    about: 'the control pilot of a charge point: the current of a duty, the duty of a current, the state of a level',
    schema: pilotSchema,
    run: pilot as Calculation['run'],
  },
  proximity: {
    about: 'the cable that the resistor in a plug stands for',
    schema: proximitySchema,
    run: proximity as Calculation['run'],
  },
  'dc-detector-verdict': {
    about: 'the verdict on the detector of smooth direct current in a charge point',
    schema: dcDetectorVerdictSchema,
    run: dcDetectorVerdict as Calculation['run'],
  },
  evaluate: {
    about: 'a whole scenario: regime, parts and entries, judged as the screens judge them',
    schema: scenarioSchema,
    run: scenario as Calculation['run'],
  },
  'verify-seal': {
    about: 'whether a sealed record is whole, and where it was changed if not',
    schema: z.looseObject({}),
    run: verifySeal as Calculation['run'],
  },
}
