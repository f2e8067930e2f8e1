import type { Weather } from '../../pv/conditions'
import { thermalVoltage } from '../../pv/constants'
import { LIGHT_TERM_IDEALITY, lightTerm, quickRuleVoltage } from '../../pv/quickRule'
import type { WorkingLine } from '../../verdict/working'
import type { StepContext } from '../step'
import { modelOf } from './stringReading'
import { cellTemperatureLine } from './workingShared'

/** The sum behind an expected string voltage: the quick rule, what the light takes, the full model. */
export function voltageSum(context: StepContext<'string'>, weather: Weather): WorkingLine[] {
  const { modulesInSeries: modules, moduleType } = context.part.data
  const module = moduleType.data
  const { irradiance_Wm2, cell } = weather
  const model = modelOf(context)
  const quick = quickRuleVoltage(module, modules, cell.value_C)
  const light = modules * lightTerm(module.cellsInSeries, irradiance_Wm2, cell.value_C)
  const lines: WorkingLine[] = [
    {
      code: 'pv-voc.plate',
      figures: { modules, voc_V: module.voc_V, type: `${moduleType.make} ${moduleType.name}` },
      result: { value: modules * module.voc_V, unit: 'V', decimals: 1 },
      source: null,
    },
    cellTemperatureLine(context.reading.conditions!, weather, module),
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
    },
  ]
  if (!model.parameters) return lines
  const figures = {
    modules,
    a_V: model.parameters.modifiedIdeality_V,
    rs_ohm: model.parameters.seriesResistance_ohm,
    irradiance_Wm2,
    cell_C: cell.value_C,
  }
  const value = modules * model.voc_V(irradiance_Wm2, cell.value_C)
  return [...lines, { code: 'pv-voc.model', figures, result: { value, unit: 'V', decimals: 1 }, source: 'de-soto' }]
}
