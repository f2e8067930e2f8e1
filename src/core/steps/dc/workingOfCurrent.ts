import { STC_IRRADIANCE_Wm2 } from '../../pv/constants'
import type { Weather } from '../../pv/conditions'
import { quickRuleCurrent } from '../../pv/quickRule'
import type { WorkingLine } from '../../verdict/working'
import type { StepContext } from '../step'
import { modelOf } from './stringReading'
import { cellTemperatureLine } from './workingShared'

/** The sum behind an expected string current. */
export function currentSum(context: StepContext<'string'>, weather: Weather): WorkingLine[] {
  const { moduleType } = context.part.data
  const module = moduleType.data
  const { irradiance_Wm2, cell } = weather
  const model = modelOf(context)
  const lines: WorkingLine[] = [
    {
      code: 'pv-isc.plate',
      figures: { type: `${moduleType.make} ${moduleType.name}` },
      result: { value: module.isc_A, unit: 'A', decimals: 2 },
      source: null,
    },
    cellTemperatureLine(context.reading.conditions!, weather, module),
    {
      code: 'pv-isc.quick-rule',
      figures: { isc_A: module.isc_A, irradiance_Wm2, alpha_pctPerK: module.alpha_pctPerK, cell_C: cell.value_C },
      result: { value: quickRuleCurrent(module, irradiance_Wm2, cell.value_C), unit: 'A', decimals: 2 },
      source: 'rating-plate',
    },
  ]
  if (!model.parameters) return lines
  const figures = {
    rs_ohm: model.parameters.seriesResistance_ohm,
    rsh_ohm: (model.parameters.shuntResistance_ohm * STC_IRRADIANCE_Wm2) / irradiance_Wm2,
    irradiance_Wm2,
    cell_C: cell.value_C,
  }
  const value = model.isc_A(irradiance_Wm2, cell.value_C)
  return [...lines, { code: 'pv-isc.model', figures, result: { value, unit: 'A', decimals: 2 }, source: 'de-soto' }]
}
