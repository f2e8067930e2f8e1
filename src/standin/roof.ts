/**
 * A simulated string as it was really built: modules scatter, and some strings have a fault that nobody wrote down.
 * The physics are the stand-in's own (each cell group a diode of its own, see solver.ts), not the core's model.
 */
import type { StringData } from '@/core/plant/part'
import type { ModuleData } from '@/core/pv/moduleData'
import { chance, scatter, seedOf } from './random'
import type { Sky } from './sky'
import {
  type StandinGroup,
  type StandinString,
  stringMaximumPower,
  stringOpenVoltage,
  stringShortCurrent,
} from './solver'

export type Fault =
  | 'none'
  | 'module-left-out'
  | 'group-shorted'
  | 'soiled'
  | 'reversed'
  | 'shaded'
  | 'bad-joint'
  | 'leaky-cells'
  | 'module-turned'

/** How many strings in a hundred have each fault. */
const FAULTS: readonly [Fault, number][] = [
  ['module-left-out', 7],
  ['soiled', 5],
  ['reversed', 3],
  ['group-shorted', 2],
  ['shaded', 2],
  ['bad-joint', 2],
  ['leaky-cells', 1],
  ['module-turned', 1],
]
const GROUPS = 3
const SOILED_SHARE = 0.86
/** Groups in the shade of something, and the light that is left to them. */
const SHADED = { groups: 4, share: 0.45 }
/** A joint that was never made well, ohm; sound ones and the string's own cable. */
const BAD_JOINT_ohm = 3.5
const JOINTS_ohm = 0.12
/** Cells whose edges conduct: their shunts come down to this share. */
const LEAKY_SHARE = 0.04
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
function moduleUnder(sky: Sky, data: ModuleData, own: AsBuilt['modules'][number]): StandinGroup {
  const suns = Math.max(sky.irradiance_Wm2, 1) / STC_Wm2
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
  }
}

/** The groups of a module, with what is wrong with those of a faulty string; `place` counts groups along the string. */
function groupsOf(module: StandinGroup, fault: Fault, place: number): StandinGroup[] {
  return Array.from({ length: GROUPS }, (_, g) => {
    const isShaded = fault === 'shaded' && place + g < SHADED.groups
    const light = isShaded ? SHADED.share : fault === 'soiled' ? SOILED_SHARE : 1
    const shunt = fault === 'leaky-cells' ? LEAKY_SHARE : 1
    return {
      photocurrent_A: module.photocurrent_A * light,
      saturationCurrent_A: module.saturationCurrent_A,
      seriesResistance_ohm: module.seriesResistance_ohm / GROUPS,
      shuntResistance_ohm: (module.shuntResistance_ohm * shunt) / GROUPS,
      ideality_V: module.ideality_V / GROUPS,
      shorted: fault === 'group-shorted' && place + g === 0,
    }
  })
}

/** A string as it is, under a sky. */
export function stringAsBuilt(sky: Sky, string: StringData, built: AsBuilt): StandinString {
  const { fault, modules } = built
  const groups = modules.flatMap((own, k) => groupsOf(moduleUnder(sky, string.moduleType.data, own), fault, k * GROUPS))
  const joints_ohm = fault === 'bad-joint' ? BAD_JOINT_ohm : JOINTS_ohm
  return fault === 'module-turned' ? { groups, joints_ohm, turned: GROUPS } : { groups, joints_ohm }
}

/** Voltage in V and current in A while an inverter draws the most power from the string. */
export function stringAtWork(sky: Sky, string: StringData, built: AsBuilt): { voltage_V: number; current_A: number } {
  const own = stringMaximumPower(stringAsBuilt(sky, string, built))
  const ceiling_V = string.electronics?.acts === 'converts' ? string.electronics.most_V : null
  if (ceiling_V === null) return own
  // Converters bring the same power at the volts that their inverter wants.
  const voltage_V = CONVERTED_SHARE * ceiling_V
  return { voltage_V, current_A: (own.voltage_V * own.current_A) / voltage_V }
}

/** Where an inverter keeps a string of converters, as a share of the most that they give. */
const CONVERTED_SHARE = 0.8

/** Open-circuit voltage in V, negative where the plugs are crossed, and short-circuit current in A, under a sky. */
export function stringUnder(sky: Sky, string: StringData, built: AsBuilt): { voltage_V: number; current_A: number } {
  const held_V = string.electronics?.acts === 'converts' ? string.electronics.held_V : null
  if (held_V !== null) {
    const sum_V = built.modules.length * held_V
    return { voltage_V: built.fault === 'reversed' ? -sum_V : sum_V, current_A: 0 }
  }
  const asIs = stringAsBuilt(sky, string, built)
  const voltage_V = stringOpenVoltage(asIs)
  return { voltage_V: built.fault === 'reversed' ? -voltage_V : voltage_V, current_A: stringShortCurrent(asIs) }
}
