/** Cell temperature by three ways, each with the uncertainty it deserves (k = 2). */
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C, thermalVoltage } from './constants'
import type { ModuleData } from './moduleData'
import { LIGHT_TERM_IDEALITY } from './quickRule'

export type Mounting = 'open-rack' | 'close-roof' | 'insulated-back'

/**
 * Cell above module back at 1000 W/m2, K. Source: King, Boyson, Kratochvil, SAND2004-3535, eq. 12 and table of
 * mountings (from memory; the last two less sure).
 */
export const CELL_ABOVE_BACK_K: Record<Mounting, number> = { 'open-rack': 3, 'close-roof': 1, 'insulated-back': 0 }

/** Uncertainties of the three ways, K, k = 2 [D]. */
export const CELL_TEMPERATURE_UNCERTAINTY_K = { back: 2, voltage: 1.5, air: 6 }

export type CellTemperature = { value_C: number; uncertainty_K: number }

/**
 * From a sensor on the back of a module: back plus 3 K G/1000 on open racks.
 * @example cellFromBack(40, 800, 'open-rack') // 42.4 degC
 */
export function cellFromBack(back_C: number, irradiance_Wm2: number, mounting: Mounting): CellTemperature {
  const above_K = (CELL_ABOVE_BACK_K[mounting] * irradiance_Wm2) / STC_IRRADIANCE_Wm2
  return { value_C: back_C + above_K, uncertainty_K: CELL_TEMPERATURE_UNCERTAINTY_K.back }
}

/** NOCT is stated at 800 W/m2 and 20 degC air. Source: IEC 61215 (from memory). */
const NOCT_IRRADIANCE_Wm2 = 800
const NOCT_AIR_C = 20
/** Taken where a data sheet gives no NOCT [D]. */
export const USUAL_NOCT_C = 45

/**
 * From the air temperature when there is nothing else: Ta + (NOCT - 20)/800 G.
 * @example cellFromAir(20, 800, 45) // 45 degC
 */
export function cellFromAir(air_C: number, irradiance_Wm2: number, noct_C: number = USUAL_NOCT_C): CellTemperature {
  const value_C = air_C + ((noct_C - NOCT_AIR_C) / NOCT_IRRADIANCE_Wm2) * irradiance_Wm2
  return { value_C, uncertainty_K: CELL_TEMPERATURE_UNCERTAINTY_K.air }
}

/**
 * From the open-circuit voltage of a sound reference string. Source: IEC 60904-5 (from memory):
 * Voc = N Voc_stc (1 + beta (T - 25)) + N Ns n (kT/q) ln(G/1000), solved for T; linear, so in one step.
 */
export function cellFromVoltage(
  module: ModuleData,
  modulesInSeries: number,
  voltage_V: number,
  irradiance_Wm2: number,
): CellTemperature {
  const perModule = voltage_V / modulesInSeries
  const beta_VperK = (module.beta_pctPerK / 100) * module.voc_V
  const logSuns = Math.log(irradiance_Wm2 / STC_IRRADIANCE_Wm2)
  const light_VperK = module.cellsInSeries * LIGHT_TERM_IDEALITY * logSuns * (thermalVoltage(1) - thermalVoltage(0))
  const lightAt25_V = module.cellsInSeries * LIGHT_TERM_IDEALITY * logSuns * thermalVoltage(STC_TEMPERATURE_C)
  const value_C = STC_TEMPERATURE_C + (perModule - module.voc_V - lightAt25_V) / (beta_VperK + light_VperK)
  return { value_C, uncertainty_K: CELL_TEMPERATURE_UNCERTAINTY_K.voltage }
}
