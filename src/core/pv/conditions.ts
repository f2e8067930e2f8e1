/** Light and warmth at a reading: from what was read to the figures which the model takes, each with its uncertainty. */
import { refuseAsShown } from '../quantity/asShown'
import { readingUncertainty } from '../quantity/uncertainty'
import type { Conditions } from '../record/entry'
import { type CellTemperature, cellFromAir, cellFromBack, cellFromVoltage, USUAL_NOCT_C } from './cellTemperature'
import type { ModuleData } from './moduleData'

/** Uncertainty of an irradiance reading whose instrument is not named, per cent, k = 2 [D]. */
export const UNNAMED_SENSOR_PCT = 5
/** Irradiance that can stand on a module on earth, W/m2; beyond it a figure was mistyped [D]. */
export const IRRADIANCE_Wm2 = { least: 1, most: 1600 }
/** Temperatures that a module or the air can have, degC [D]. */
export const TEMPERATURE_C = { least: -50, most: 110 }

export type Weather = {
  irradiance_Wm2: number
  irradianceUncertainty_Wm2: number
  cell: CellTemperature
  way: Conditions['cell']['way']
}

/** The figures that the model takes. Null where a display was over its range: a bound is no condition. */
export function weatherOf(conditions: Conditions, module: ModuleData): Weather | null {
  const light = conditions.irradiance
  const cell = conditions.cell
  if (light.read.bound !== 'exact' || cell.read.bound !== 'exact') return null
  const irradiance_Wm2 = light.read.value
  if (!(irradiance_Wm2 >= IRRADIANCE_Wm2.least)) return null
  const warmth = cellOf(cell, irradiance_Wm2, module)
  // 300 V of five modules is no module's temperature, whatever else is read.
  if (!isReachable(warmth.value_C)) return null
  const accuracy = light.instrument?.accuracy ?? null
  const irradianceUncertainty_Wm2 = accuracy
    ? readingUncertainty(light.read, accuracy)
    : (irradiance_Wm2 * UNNAMED_SENSOR_PCT) / 100
  return { irradiance_Wm2, irradianceUncertainty_Wm2, cell: warmth, way: cell.way }
}

function cellOf(cell: Conditions['cell'], irradiance_Wm2: number, module: ModuleData): CellTemperature {
  switch (cell.way) {
    case 'back':
      return cellFromBack(cell.read.value, irradiance_Wm2, cell.mounting)
    case 'air':
      return cellFromAir(cell.read.value, irradiance_Wm2, module.noct_C ?? USUAL_NOCT_C)
    case 'voltage':
      return cellFromVoltage(module, cell.modulesInSeries, cell.read.value, irradiance_Wm2)
  }
}

export type ConditionsRefusal =
  | 'irradiance-out-of-reach'
  | 'temperature-out-of-reach'
  | 'conditions-unit'
  | 'conditions-text'

/**
 * What no sky and no module can be: refused before it is kept. A temperature by voltage is that which the voltage comes
 * to; without a module nothing is known of it.
 */
export function refuseConditions(conditions: Conditions, module: ModuleData | null = null): ConditionsRefusal | null {
  const { value } = conditions.irradiance.read
  const unfit = refuseReads(conditions)
  if (unfit) return unfit
  if (!(value >= IRRADIANCE_Wm2.least && value <= IRRADIANCE_Wm2.most)) return 'irradiance-out-of-reach'
  const { cell } = conditions
  const warmth_C =
    cell.way !== 'voltage' ? cell.read.value : module ? cellOf(cell, value, module).value_C : TEMPERATURE_C.least
  return isReachable(warmth_C) ? null : 'temperature-out-of-reach'
}

/** Each figure in the unit of what it measures, and as its text says. */
function refuseReads({ irradiance, cell }: Conditions): ConditionsRefusal | null {
  const why = refuseAsShown(irradiance.read, 'Wm2') ?? refuseAsShown(cell.read, cell.way === 'voltage' ? 'V' : 'degC')
  if (why === 'unit-of-slot') return 'conditions-unit'
  return why === 'text-and-value' ? 'conditions-text' : null
}

/** Air in which somebody works on a roof, degC [D]. */
export const AIR_C = { least: -40, most: 55 }
/** Whether a figure can be that of the air, degC. */
export const isAirInReach = (air_C: number): boolean => air_C >= AIR_C.least && air_C <= AIR_C.most

const isReachable = (warmth_C: number): boolean => warmth_C >= TEMPERATURE_C.least && warmth_C <= TEMPERATURE_C.most
