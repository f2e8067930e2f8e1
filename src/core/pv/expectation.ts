/** What a string should read at this light and warmth, with the bracket that its conditions leave. */
import { combineUncertainties } from '../quantity/uncertainty'
import type { Weather } from './conditions'

/** Spread of Voc and Isc between sound modules of one type, per cent, k = 2 [D]. */
export const MODULE_SPREAD_PCT = 1

export type Expectation = { value: number; uncertainty: number }

/**
 * A modelled quantity and its uncertainty: the conditions' own uncertainty through the model's slopes, and the spread
 * between modules.
 *
 * @param modelled the quantity at (G in W/m2, Tc in degC), in its own unit.
 */
export function expectation(
  modelled: (irradiance_Wm2: number, cellTemperature_C: number) => number,
  weather: Weather,
): Expectation {
  const { irradiance_Wm2: light, irradianceUncertainty_Wm2: lightOff, cell } = weather
  const value = modelled(light, cell.value_C)
  const byLight = modelled(light + lightOff, cell.value_C) - value
  const byWarmth = modelled(light, cell.value_C + cell.uncertainty_K) - value
  return { value, uncertainty: combineUncertainties([byLight, byWarmth, (value * MODULE_SPREAD_PCT) / 100]) }
}
