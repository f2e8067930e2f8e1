import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C, thermalVoltage } from '../pv/constants'
import { LIGHT_TERM_IDEALITY, lightTerm, quickRuleVoltage } from '../pv/quickRule'
import type { Body } from '../record/entry'
import type { WorkingLine } from '../verdict/working'
import type { StepContext } from './step'
import { modelOf, numberIn, weatherAt } from './stringReading'
import { againstExpectation, cellTemperatureLine } from './workingShared'

/** The sum behind an expected string voltage: the quick rule, what the light takes, the full model, the limit. */
export function voltageWorking(
  context: StepContext<'string'>,
  reading: Pick<Body<'reading'>, 'slots' | 'conditions' | 'instrument'>,
): WorkingLine[] {
  const { modulesInSeries: modules, moduleType } = context.part.data
  const module = moduleType.data
  const plate: WorkingLine = {
    code: 'pv-voc.plate',
    figures: { modules, voc_V: module.voc_V, type: `${moduleType.make} ${moduleType.name}` },
    result: { value: modules * module.voc_V, unit: 'V', decimals: 1 },
    source: null,
  }
  const weather = weatherAt(context, reading.conditions)
  if (!weather || !reading.conditions) return [plate]
  const { irradiance_Wm2, cell } = weather
  const model = modelOf(context)
  const expected = modules * model.voc_V(irradiance_Wm2, cell.value_C)
  const quick = quickRuleVoltage(module, modules, cell.value_C)
  const light = modules * lightTerm(module.cellsInSeries, irradiance_Wm2, cell.value_C)
  return [
    plate,
    cellTemperatureLine(reading.conditions, weather, moduleType.data),
    {
      code: 'pv-voc.quick-rule',
      figures: { plate_V: modules * module.voc_V, beta_pctPerK: module.beta_pctPerK, cell_C: cell.value_C },
      result: { value: quick, unit: 'V', decimals: 1 },
      source: 'rating-plate',
    },
    {
      code: 'pv-voc.light-term',
      figures: {
        cells: modules * module.cellsInSeries,
        ideality: LIGHT_TERM_IDEALITY,
        thermal_mV: 1000 * thermalVoltage(cell.value_C),
        irradiance_Wm2,
      },
      result: { value: light, unit: 'V', decimals: 1, signed: true },
      source: 'rating-plate',
    },
    {
      code: 'pv-voc.light-rule',
      figures: { quick_V: quick, light_V: light },
      result: { value: quick + light, unit: 'V', decimals: 1 },
      source: 'rating-plate',
      decides: model.method !== 'de-soto',
    },
    ...(model.parameters
      ? [
          {
            code: 'pv-voc.model',
            figures: {
              modules,
              a_V: model.parameters.modifiedIdeality_V,
              rs_ohm: model.parameters.seriesResistance_ohm,
              irradiance_Wm2,
              cell_C: cell.value_C,
            },
            result: { value: expected, unit: 'V' as const, decimals: 1 },
            source: 'de-soto' as const,
            decides: true,
          },
        ]
      : []),
    ...againstExpectation(context, {
      step: 'pv-voc',
      read: numberIn(reading, 'voltage'),
      instrument: reading.instrument,
      unit: 'V',
      weather,
      modelled: (g, t) => modules * model.voc_V(g, t),
      stc: modules * model.voc_V(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C),
    }),
  ]
}
