/** Why a string's voltage that looks wrong is not: dull light, warm cells, a string longer than its neighbours. */
import { convertersOf } from '../../plant/moduleElectronics'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '../../pv/constants'
import { weatherBy } from '../../pv/workedBack'
import type { Judgement } from '../../verdict/judgement'
import type { Finding } from '../../verdict/verdict'
import { airOf } from '../reading'
import type { StepContext } from '../step'
import { sisterGroupOf } from './sisterGroup'
import { modelOf, weatherAt } from './stringReading'

/** From here on people shrug at the plate's sum, per cent [D]. */
const LOOKS_LOW_PCT = 5
/** Light below this is called dull, W/m2 [D]. */
const DULL_Wm2 = 400

export function soundVoltage(context: StepContext<'string'>, { rule }: Judgement): Finding[] {
  const { data } = context.part
  const measured = rule?.measured
  if (!measured || measured.bound !== 'exact') return []
  const converters = convertersOf(context.part)
  if (converters)
    return [{ code: 'sound.held-back', figures: { modules: data.modulesInSeries, each_V: converters.held_V ?? 0 } }]
  const found: Finding[] = []
  const module = data.moduleType.data
  const plate_V = data.modulesInSeries * module.voc_V
  const low_pct = 100 * (1 - measured.value / plate_V)
  const { light } = context.reading.beside ?? {}
  const weather = context.reading.conditions
    ? weatherAt(context, context.reading.conditions)
    : light
      ? weatherBy(light, airOf(context.reading), module)
      : null
  if (weather && low_pct >= LOOKS_LOW_PCT) {
    const model = modelOf(context)
    const { irradiance_Wm2, cell } = weather
    const full = model.voc_V(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)
    const byLight_pct = 100 * (1 - model.voc_V(irradiance_Wm2, STC_TEMPERATURE_C) / full)
    const byWarmth_pct = 100 * (1 - model.voc_V(STC_IRRADIANCE_Wm2, cell.value_C) / full)
    const code = irradiance_Wm2 < DULL_Wm2 && byLight_pct > byWarmth_pct ? 'sound.dull-light' : 'sound.warm-cells'
    const figures = { plate_V, low_pct, irradiance_Wm2, cell_C: cell.value_C, byLight_pct, byWarmth_pct }
    found.push({ code, figures })
  }
  const shorter = context.plant
    .ofKind('string')
    .find(
      (one) => sisterGroupOf(one) === sisterGroupOf(context.part) && one.data.modulesInSeries < data.modulesInSeries,
    )
  if (shorter) {
    const more = data.modulesInSeries - shorter.data.modulesInSeries
    found.push({
      code: 'sound.longer',
      figures: { tag: data.tag, other: shorter.data.tag, more, more_V: (measured.value * more) / data.modulesInSeries },
    })
  }
  return found
}
