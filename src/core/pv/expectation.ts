/** What a string should read at this light and warmth, with the bracket that its conditions leave. */
import { combineUncertainties } from '../quantity/uncertainty'
import type { Weather } from './conditions'
import type { ModuleData } from './moduleData'

/** Spread of Voc and Isc between sound modules of one type, per cent, k = 2 [D]. */
export const MODULE_SPREAD_PCT = 1

/** What Voc and Isc of sound modules may differ by from their plate, per cent: as their maker says, and never less. */
export const spreadOf = ({ vocIscTolerance_pct = 0 }: ModuleData): number =>
  Math.max(MODULE_SPREAD_PCT, vocIscTolerance_pct)

/** What the power of sound modules may differ by from their plate, per cent. */
export const powerSpreadOf = ({ tolerance_pct = 0 }: ModuleData): number => Math.max(MODULE_SPREAD_PCT, tolerance_pct)

export type Expectation = { value: number; uncertainty: number }

/**
 * A modelled quantity and its uncertainty: the conditions' own uncertainty through the model's slopes, and the spread
 * between modules.
 *
 * @param modelled the quantity at (G in W/m2, Tc in degC), in its own unit.
 * @param spread_pct between modules, of the quantity that is modelled.
 */
export function expectation(
  modelled: (irradiance_Wm2: number, cellTemperature_C: number) => number,
  weather: Weather,
  spread_pct: number,
): Expectation {
  const { irradiance_Wm2: light, irradianceUncertainty_Wm2: lightOff, cell } = weather
  const value = modelled(light, cell.value_C)
  const byLight = modelled(light + lightOff, cell.value_C) - value
  const byWarmth = modelled(light, cell.value_C + cell.uncertainty_K) - value
  return { value, uncertainty: combineUncertainties([byLight, byWarmth, (value * spread_pct) / 100]) }
}
