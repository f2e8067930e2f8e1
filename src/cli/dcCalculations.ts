/** Calculations of the DC tests on the command line: insulation, earth fault, ratings. */
import { z } from 'zod'
import { earthFault } from '../core/pv/earthFault'
import { lowestOf, repeatsVerdict } from '../core/circuit/insulation'
import { insulationSchools, insulationTest } from '../core/pv/insulation'
import { moduleDataFields, moduleDataSchema } from '../core/pv/moduleData'
import { type Circuit, coldSchools, ratingChecks } from '../core/pv/ratings'
import { moduleModel } from '../core/pv/stringModel'
import { sources } from '../core/regime/sources'
import { boundOf, boundSchema } from './bound'
import { CalcProblem } from './problem'

const volts = z.number().min(0).max(1e5)
const modulesInSeries = z.number().int().min(1).max(60)
export const insulationDcSchema = z.strictObject({
  vocStc_V: z.number().positive().max(1e5),
  school: z.enum(insulationSchools),
  readings_Mohm: z.array(boundSchema).max(1000),
  workingVoltage_V: z.number().positive().max(1e5).optional(),
  maxSystemVoltage_V: z.number().positive().max(1e5).optional(),
})

export function insulationDc(input: z.infer<typeof insulationDcSchema>) {
  if (input.school === 'twice' && input.workingVoltage_V === undefined) {
    throw new CalcProblem([
      { path: ['workingVoltage_V'], message: 'the school "twice" needs the working voltage: N times Vmp at STC' },
    ])
  }
  const test = insulationTest({
    vocStc_V: input.vocStc_V,
    school: input.school,
    workingVoltage_V: input.workingVoltage_V ?? null,
    maxSystemVoltage_V: input.maxSystemVoltage_V ?? null,
  })
  if (!test) {
    throw new CalcProblem([
      {
        path: ['maxSystemVoltage_V'],
        message: 'below 250 V there is no step to test at: look at the data sheet again',
      },
    ])
  }
  const readings = input.readings_Mohm.map(boundOf)
  return {
    testVoltage_V: test.testVoltage_V,
    minimum_Mohm: test.minimum_Mohm,
    value: lowestOf(readings, test.minimum_Mohm)?.read ?? null,
    verdict: repeatsVerdict(readings, test.minimum_Mohm),
    loweredFrom_V: test.loweredFrom_V,
    sources: [input.school === 'table' ? sources['iec-62446-insulation'] : sources['insulation-practice']],
  }
}

export const earthFaultSchema = z.strictObject({
  voc_V: z.number().positive().max(1e5),
  positiveToEarth_V: volts,
  negativeToEarth_V: volts,
  meterResistance_ohm: z.number().positive().max(1e12),
  modulesInSeries,
})

export function earthFaultPlace(input: z.infer<typeof earthFaultSchema>) {
  const { voc_V, positiveToEarth_V, negativeToEarth_V } = input
  if (positiveToEarth_V + negativeToEarth_V > voc_V) {
    throw new CalcProblem([
      {
        path: ['positiveToEarth_V'],
        message: 'the two voltages to earth together are above Voc: read all three again at one moment',
      },
    ])
  }
  return earthFault(input) ?? { fraction: null, afterModule: null, faultResistance_ohm: null }
}

const device = z.strictObject({
  ratedVoltage_V: z.number().positive().max(1e5),
  rating_A: z.number().positive().max(1e4),
})
/** Under the table school the sheet may lack its beta. */
const ratedModule = z.strictObject({ ...moduleDataFields, beta_pctPerK: moduleDataFields.beta_pctPerK.optional() })

export const ratingsSchema = z
  .strictObject({
    module: ratedModule,
    modulesInSeries,
    stringsInParallel: z.number().int().min(1).max(1000),
    lowestTemperature_C: z.number().min(-60).max(40),
    highestCellTemperature_C: z.number().min(0).max(110),
    inverter: z
      .strictObject({
        maxInput_V: z.number().positive().max(1e5),
        trackerMin_V: z.number().min(0).max(1e5),
        trackerMax_V: z.number().positive().max(1e5),
        maxShortCircuit_A: z.number().positive().max(1e5),
      })
      .nullable(),
    switch: device.nullable(),
    fuse: device.nullable(),
    school: z.enum(coldSchools).default('beta'),
  })
  .superRefine(({ module, school, lowestTemperature_C, inverter }, context) => {
    const { beta_pctPerK } = module
    const whole = moduleDataSchema.safeParse({ ...module, beta_pctPerK: beta_pctPerK ?? -0.3 })
    for (const issue of whole.error?.issues ?? [])
      context.addIssue({ code: 'custom', path: ['module', ...issue.path], message: issue.message })
    if (beta_pctPerK === undefined && school === 'beta')
      context.addIssue({
        code: 'custom',
        path: ['module', 'beta_pctPerK'],
        message: 'the school "beta" needs the beta',
      })
    if (school === 'table' && lowestTemperature_C < -40)
      context.addIssue({ code: 'custom', path: ['lowestTemperature_C'], message: 'the table ends at -40 degC' })
    if (inverter && inverter.trackerMin_V >= inverter.trackerMax_V)
      context.addIssue({
        code: 'custom',
        path: ['inverter', 'trackerMin_V'],
        message: 'the lower edge of the tracker window lies below its upper edge',
      })
  })

export function ratings(input: z.infer<typeof ratingsSchema>) {
  const { beta_pctPerK } = input.module
  const model = beta_pctPerK === undefined ? null : moduleModel({ ...input.module, beta_pctPerK })
  return {
    checks: ratingChecks(input satisfies Circuit, model),
    sources: [sources['iec-62548'], sources['iec-60364-712']],
  }
}
