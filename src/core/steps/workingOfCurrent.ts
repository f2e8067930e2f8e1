import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '../pv/constants'
import { quickRuleCurrent } from '../pv/quickRule'
import type { Body } from '../record/entry'
import type { WorkingLine } from '../verdict/working'
import type { StepContext } from './step'
import { modelOf, numberIn, weatherAt } from './stringReading'
import { againstExpectation, cellTemperatureLine } from './workingShared'

/** The sum behind an expected string current. */
export function currentWorking(
  context: StepContext<'string'>,
  reading: Pick<Body<'reading'>, 'slots' | 'conditions' | 'instrument'>,
): WorkingLine[] {
  const { moduleType } = context.part.data
  const module = moduleType.data
  const plate: WorkingLine = {
    code: 'pv-isc.plate',
    figures: { type: `${moduleType.make} ${moduleType.name}` },
    result: { value: module.isc_A, unit: 'A', decimals: 2 },
    source: null,
  }
  const weather = weatherAt(context, reading.conditions)
  if (!weather || !reading.conditions) return [plate]
  const { irradiance_Wm2, cell } = weather
  const model = modelOf(context)
  return [
    plate,
    cellTemperatureLine(reading.conditions, weather, module),
    {
      code: 'pv-isc.quick-rule',
      figures: { isc_A: module.isc_A, irradiance_Wm2, alpha_pctPerK: module.alpha_pctPerK, cell_C: cell.value_C },
      result: { value: quickRuleCurrent(module, irradiance_Wm2, cell.value_C), unit: 'A', decimals: 2 },
      source: 'rating-plate',
      decides: model.method !== 'de-soto',
    },
    ...(model.parameters
      ? [
          {
            code: 'pv-isc.model',
            figures: {
              rs_ohm: model.parameters.seriesResistance_ohm,
              rsh_ohm: (model.parameters.shuntResistance_ohm * STC_IRRADIANCE_Wm2) / irradiance_Wm2,
              irradiance_Wm2,
              cell_C: cell.value_C,
            },
            result: { value: model.isc_A(irradiance_Wm2, cell.value_C), unit: 'A' as const, decimals: 2 },
            source: 'de-soto' as const,
            decides: true,
          },
        ]
      : []),
    ...againstExpectation(context, {
      step: 'pv-isc',
      read: numberIn(reading, 'current'),
      instrument: reading.instrument,
      unit: 'A',
      weather,
      modelled: (g, t) => model.isc_A(g, t),
      stc: model.isc_A(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C),
    }),
  ]
}
