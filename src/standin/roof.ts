/**
 * A simulated string as it was really built: modules scatter, and some strings have a fault that nobody wrote down.
 * The physics are the stand-in's own (each module a diode of its own, see solver.ts), not the core's model.
 */
import type { StringData } from '@/core/plant/part'
import type { ModuleData } from '@/core/pv/moduleData'
import { chance, scatter, seedOf } from './random'
import type { Sky } from './sky'
import { type StandinModule, stringMaximumPower, stringOpenVoltage, stringShortCurrent } from './solver'

export type Fault = 'none' | 'module-left-out' | 'group-shorted' | 'soiled' | 'reversed'

/** How many strings in a hundred have each fault. */
const FAULTS: readonly [Fault, number][] = [
  ['module-left-out', 7],
  ['soiled', 5],
  ['reversed', 3],
  ['group-shorted', 2],
]
const GROUPS = 3
const SOILED_SHARE = 0.86
/** Scatter of sound modules: deviation of Voc and of Isc. */
const SPREAD = { voc: 0.0015, isc: 0.003 }
const BOLTZMANN_OVER_CHARGE = 8.617333262e-5
const STC_Wm2 = 1000
const STC_C = 25
const IDEALITY = 1.05
const SHUNT_ohm = 800
const LEAST_SERIES_ohm = 0.05

export type AsBuilt = { fault: Fault; modules: { voc: number; isc: number }[] }

/** How a string was really built; the part's id is the seed. What was wrong with it is gone once it was mended. */
export function asBuilt(partId: string, modulesInSeries: number, mended = false): AsBuilt {
  const next = chance(seedOf(partId))
  const drawn = faultBy(100 * next())
  const fault = mended ? 'none' : drawn
  const count = fault === 'module-left-out' ? Math.max(1, modulesInSeries - 1) : modulesInSeries
  const modules = Array.from({ length: count }, () => ({
    voc: 1 + SPREAD.voc * scatter(next),
    isc: 1 + SPREAD.isc * scatter(next),
  }))
  return { fault, modules }
}

function faultBy(draw: number): Fault {
  let upTo = 0
  for (const [fault, share] of FAULTS) {
    upTo += share
    if (draw < upTo) return fault
  }
  return 'none'
}

/** One module as it is, under a sky: its single diode from the data sheet's own points, by closed formulas. */
function moduleUnder(
  sky: Sky,
  data: ModuleData,
  own: AsBuilt['modules'][number],
  light: number,
  share: number,
): StandinModule {
  const suns = (Math.max(sky.irradiance_Wm2, 1) / STC_Wm2) * light
  const warm_K = sky.cell_C - STC_C
  const ideality_V = data.cellsInSeries * IDEALITY * BOLTZMANN_OVER_CHARGE * (sky.cell_C + 273.15)
  const voltage = data.voc_V * own.voc * (1 + (data.beta_pctPerK / 100) * warm_K)
  const current = data.isc_A * own.isc * (1 + (data.alpha_pctPerK / 100) * warm_K)
  const saturationCurrent_A = current / Math.expm1(voltage / ideality_V)
  const atPlate_V = data.cellsInSeries * IDEALITY * BOLTZMANN_OVER_CHARGE * (STC_C + 273.15)
  const plateSaturation = data.isc_A / Math.expm1(data.voc_V / atPlate_V)
  const drop = atPlate_V * Math.log((data.isc_A - data.imp_A) / plateSaturation) - data.vmp_V
  return {
    photocurrent_A: current * suns,
    saturationCurrent_A,
    seriesResistance_ohm: Math.max(LEAST_SERIES_ohm, drop / data.imp_A),
    shuntResistance_ohm: SHUNT_ohm / suns,
    ideality_V,
    share,
  }
}

/** Every module of a string as it is, under a sky. */
function modulesUnder(sky: Sky, string: StringData, built: AsBuilt): StandinModule[] {
  const light = built.fault === 'soiled' ? SOILED_SHARE : 1
  return built.modules.map((own, k) => {
    const share = built.fault === 'group-shorted' && k === 0 ? 1 - 1 / GROUPS : 1
    return moduleUnder(sky, string.moduleType.data, own, light, share)
  })
}

/** Voltage in V and current in A while an inverter draws the most power from the string. */
export function stringAtWork(sky: Sky, string: StringData, built: AsBuilt): { voltage_V: number; current_A: number } {
  return stringMaximumPower(modulesUnder(sky, string, built))
}

/** Open-circuit voltage in V, negative where the plugs are crossed, and short-circuit current in A, under a sky. */
export function stringUnder(sky: Sky, string: StringData, built: AsBuilt): { voltage_V: number; current_A: number } {
  const modules = modulesUnder(sky, string, built)
  const voltage_V = stringOpenVoltage(modules)
  return { voltage_V: built.fault === 'reversed' ? -voltage_V : voltage_V, current_A: stringShortCurrent(modules) }
}
