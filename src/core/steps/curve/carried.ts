/** A curve carried to standard test conditions, and what a sound string gives where it was swept. */
import type { CurvePoint } from '../../curve/points'
import { byProcedure2 } from '../../curve/translate'
import type { Weather } from '../../pv/conditions'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C, thermalVoltage } from '../../pv/constants'
import { expectation, powerSpreadOf, spreadOf } from '../../pv/expectation'
import { LIGHT_TERM_IDEALITY } from '../../pv/quickRule'
import { rangeFor } from '../../record/instrument'
import { modelOf } from '../dc/stringReading'
import type { StepContext } from '../step'

export type Context = StepContext<'string'>

const STC = { irradiance_Wm2: STC_IRRADIANCE_Wm2, cellTemperature_C: STC_TEMPERATURE_C }

/** Points of a string's curve carried to standard test conditions by procedure 2, with what its data sheet says. */
export function atStc(context: Context, points: readonly CurvePoint[], voc_V: number, weather: Weather): CurvePoint[] {
  const { modulesInSeries, moduleType } = context.part.data
  const { data } = moduleType
  const model = modelOf(context)
  const { parameters } = model
  const here_V = model.voc_V(weather.irradiance_Wm2, weather.cell.value_C)
  const carry = byProcedure2({
    // Coefficients of a data sheet are shares of what the string gives at standard test conditions.
    voc_V: (voc_V * model.voc_V(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)) / here_V,
    alphaRel_perK: data.alpha_pctPerK / 100,
    betaRel_perK: data.beta_pctPerK / 100,
    a:
      (parameters?.modifiedIdeality_V ?? LIGHT_TERM_IDEALITY * data.cellsInSeries * thermalVoltage(STC_TEMPERATURE_C)) /
      data.voc_V,
    seriesResistance_ohm: modulesInSeries * (parameters?.seriesResistance_ohm ?? data.seriesResistance_ohm ?? 0),
    kappa_ohmPerK: 0,
  })
  return carry(points, { irradiance_Wm2: weather.irradiance_Wm2, cellTemperature_C: weather.cell.value_C }, STC)
}

/** What a sound string of these modules gives at the light and warmth of the sweep; each with its uncertainty. */
export function expectedAt(context: Context, weather: Weather) {
  const model = modelOf(context)
  const { modulesInSeries: count, moduleType } = context.part.data
  const { data } = moduleType
  const voc = expectation((light, cell) => count * model.voc_V(light, cell), weather, spreadOf(data))
  const isc = expectation((light, cell) => model.isc_A(light, cell), weather, spreadOf(data))
  const pmax = expectation(
    (light, cell) => count * model.maximumPower(light, cell).pmax_W,
    weather,
    powerSpreadOf(data),
  )
  return { voc, isc, pmax, fill_pct: (100 * pmax.value) / (voc.value * isc.value) }
}

/** What the instrument's volts and amperes are each off by, per cent. */
export function instrumentOff_pct({ reading: { instrument } }: Context): number {
  return (instrument && rangeFor(instrument, 'iv-curve', 'iv-curve')?.accuracy?.ofReading_pct) ?? 0
}
