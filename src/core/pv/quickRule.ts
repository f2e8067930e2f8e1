/** The rating-plate sums, as they are done on the roof. Common practice, no source. */
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C, thermalVoltage } from './constants'
import type { ModuleData } from './moduleData'

/** Ideality factor of the light term; 1.0 to 1.2 is seen. Common practice, no source. */
export const LIGHT_TERM_IDEALITY = 1.1

/**
 * Open-circuit voltage of a string by the quick rule, V: N Voc (1 + beta (Tc - 25)). It knows nothing of the light.
 * @example quickRuleVoltage({ voc_V: 37.4, beta_pctPerK: -0.31 }, 5, 45) // 175.406
 */
export function quickRuleVoltage(
  module: Pick<ModuleData, 'voc_V' | 'beta_pctPerK'>,
  modulesInSeries: number,
  cellTemperature_C: number,
): number {
  return modulesInSeries * module.voc_V * (1 + (module.beta_pctPerK / 100) * (cellTemperature_C - STC_TEMPERATURE_C))
}

/**
 * What dull light takes from the open-circuit voltage of one module, V (negative below 1000 W/m2):
 * cells n (kT/q) ln(G/1000).
 * @example lightTerm(60, 200, 25) // -2.729
 */
export function lightTerm(
  cellsInSeries: number,
  irradiance_Wm2: number,
  cellTemperature_C: number,
  ideality: number = LIGHT_TERM_IDEALITY,
): number {
  return cellsInSeries * ideality * thermalVoltage(cellTemperature_C) * Math.log(irradiance_Wm2 / STC_IRRADIANCE_Wm2)
}

/**
 * Short-circuit current by the quick rule, A: Isc G/1000 (1 + alpha (Tc - 25)).
 * @example quickRuleCurrent({ isc_A: 10, alpha_pctPerK: 0.05 }, 500, 45) // 5.05
 */
export function quickRuleCurrent(
  module: Pick<ModuleData, 'isc_A' | 'alpha_pctPerK'>,
  irradiance_Wm2: number,
  cellTemperature_C: number,
): number {
  const warmth = 1 + (module.alpha_pctPerK / 100) * (cellTemperature_C - STC_TEMPERATURE_C)
  return module.isc_A * (irradiance_Wm2 / STC_IRRADIANCE_Wm2) * warmth
}
