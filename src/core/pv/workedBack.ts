/**
 * A day without a light meter: the strings are each other's meter. Light is worked back from their own currents, and what
 * is known of a voltage without any light is what the plate leaves between gloom and full sun.
 */
import { medianOf } from '../quantity/median'
import { combineUncertainties } from '../quantity/uncertainty'
import { CELL_TEMPERATURE_UNCERTAINTY_K, cellFromAir, USUAL_NOCT_C } from './cellTemperature'
import type { Weather } from './conditions'
import { STC_IRRADIANCE_Wm2 } from './constants'
import { type Expectation, MODULE_SPREAD_PCT, spreadOf } from './expectation'
import type { ModuleData } from './moduleData'
import { quickRuleCurrent } from './quickRule'

/** Air as it is known: read, or nothing but that somebody stood in it. */
export type Air = { value_C: number; uncertainty_K: number }
/** Air that nobody read, k = 2 [D, house rule 22]: nobody commissions in more frost or heat. */
export const UNREAD_AIR: Air = { value_C: 15, uncertainty_K: 20 }
export const readAir = (value_C: number): Air => ({ value_C, uncertainty_K: CELL_TEMPERATURE_UNCERTAINTY_K.air })

/** Cells that warm or cool still, for the light was another minutes ago, K, k = 2 [D, house rule 22]. */
const STILL_WARMING_K = 5

/** Light from gloom to the edge of a cloud, W/m2 [D, house rule 22]: all that is known where nothing was read of it. */
const ANY_LIGHT_Wm2 = [50, 80, 130, 210, 340, 550, 800, 1100]
/** How far light may have moved between a current and a voltage, k = 2: at least so much, and more by the minute [D, house rule 22]. */
const MOVED = { least_pct: 5, perMinute_pct: 1 }

/** A current of a string as it was read, with what its instrument leaves open, A (k = 2). */
export type CurrentRead = { current_A: number; uncertainty_A: number; module: ModuleData }
export type LightWorkedBack = {
  irradiance_Wm2: number
  uncertainty_Wm2: number
  /** How many strings told it. */
  count: number
}

/** The warmth of a cell under so much light where only the air is known, degC. */
function cellUnder(light_Wm2: number, { value_C, uncertainty_K }: Air, { noct_C }: ModuleData) {
  const { value_C: cell_C } = cellFromAir(value_C, light_Wm2, noct_C ?? USUAL_NOCT_C)
  return { value_C: cell_C, uncertainty_K: combineUncertainties([uncertainty_K, STILL_WARMING_K]) }
}

/** The light at which a sound string gives this current, W/m2: the cell is as warm as that light makes it. */
export function lightOf({ current_A, module }: Pick<CurrentRead, 'current_A' | 'module'>, air: Air): number {
  let light_Wm2 = (STC_IRRADIANCE_Wm2 * current_A) / module.isc_A
  // Warmth moves the current by parts of a thousand: it has settled after a step or two.
  for (let k = 0; k < 4; k++) {
    const cell_C = cellUnder(light_Wm2, air, module).value_C
    light_Wm2 = (STC_IRRADIANCE_Wm2 * current_A) / quickRuleCurrent(module, STC_IRRADIANCE_Wm2, cell_C)
  }
  return light_Wm2
}

/**
 * Light worked back from the currents of strings in one plane, their median; null without any that flows.
 * @param apart_min how long before or after they were read, minutes
 */
export function lightWorkedBack(currents: readonly CurrentRead[], air: Air, apart_min: number): LightWorkedBack | null {
  const flowing = currents.filter(({ current_A }) => current_A > 0)
  if (flowing.length === 0) return null
  const irradiance_Wm2 = medianOf(flowing.map((one) => lightOf(one, air)))
  const byInstrument_pct = medianOf(flowing.map((one) => (100 * one.uncertainty_A) / one.current_A))
  const byWarmth_pct = medianOf(flowing.map(({ module }) => module.alpha_pctPerK * air.uncertainty_K))
  const moved_pct = Math.max(MOVED.least_pct, MOVED.perMinute_pct * apart_min)
  const uncertainty_pct = combineUncertainties([byInstrument_pct, byWarmth_pct, MODULE_SPREAD_PCT, moved_pct])
  return { irradiance_Wm2, uncertainty_Wm2: (irradiance_Wm2 * uncertainty_pct) / 100, count: flowing.length }
}

/** Light that was worked back, and the warmth that goes with it, as the model takes them. */
export function weatherBy({ irradiance_Wm2, uncertainty_Wm2 }: LightWorkedBack, air: Air, module: ModuleData): Weather {
  return {
    irradiance_Wm2,
    irradianceUncertainty_Wm2: uncertainty_Wm2,
    cell: cellUnder(irradiance_Wm2, air, module),
    way: 'air',
  }
}

/**
 * What a string's voltage can be in whatever light: between gloom on the warmest cells and full sun on the coldest. The
 * bracket reaches from one to the other.
 * @param voltage of the string at (W/m2, degC), V
 */
export function plateBracket(
  voltage: (irradiance_Wm2: number, cell_C: number) => number,
  air: Air,
  module: ModuleData,
): Expectation {
  const at = (light_Wm2: number, off_K: number): number =>
    voltage(light_Wm2, cellUnder(light_Wm2, air, module).value_C + off_K)
  // Light lifts it and warms the cells, which lowers it: its highest lies somewhere between.
  const all = ANY_LIGHT_Wm2.flatMap((light) => [-air.uncertainty_K, air.uncertainty_K].map((off) => at(light, off)))
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const value = (low + high) / 2
  return { value, uncertainty: Math.hypot((high - low) / 2, (value * spreadOf(module)) / 100) }
}
