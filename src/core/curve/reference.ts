/** The curve that a sound string should give: cell groups of its module type at a light and a cell temperature. */
import { atConditions } from '../pv/deSoto'
import type { ModuleData } from '../pv/moduleData'
import {
  type MaximumPowerPoint,
  maximumPowerPoint,
  openCircuitVoltage,
  type SingleDiode,
  shortCircuitCurrent,
} from '../pv/singleDiode'
import type { Bypass, CellGroup } from './cellGroup'
import type { CurveModule } from './stringCurve'

/** Cell groups, each with its bypass diode, in a usual module. Common practice, no source. */
export const GROUPS_PER_MODULE = 3
/** A usual bypass diode: half a volt at some ten amperes. Common practice, no source. */
export const USUAL_BYPASS: Bypass = { kind: 'diode', saturationCurrent_A: 3e-7, slope_V: 0.03 }

/** One of the alike cell groups that a module is made of. */
export function groupOf(module: SingleDiode, bypass: Bypass = USUAL_BYPASS): CellGroup {
  return {
    photocurrent_A: module.photocurrent_A,
    saturationCurrent_A: module.saturationCurrent_A,
    seriesResistance_ohm: module.seriesResistance_ohm / GROUPS_PER_MODULE,
    shuntResistance_ohm: module.shuntResistance_ohm / GROUPS_PER_MODULE,
    modifiedIdeality_V: module.modifiedIdeality_V / GROUPS_PER_MODULE,
    bypass,
  }
}

/** A string of so many groups of one kind and so many of another: their order along it changes nothing. */
export const modulesOf = (...groups: readonly (readonly [count: number, group: CellGroup])[]): CurveModule[] => [
  { reversed: false, groups: groups.flatMap(([count, group]) => Array.from({ length: count }, () => group)) },
]

/** A whole string as one diode: all its cells alike, bypass diodes blocking. */
export const asOneDiode = (module: SingleDiode, modulesInSeries: number): SingleDiode => ({
  photocurrent_A: module.photocurrent_A,
  saturationCurrent_A: module.saturationCurrent_A,
  seriesResistance_ohm: modulesInSeries * module.seriesResistance_ohm,
  shuntResistance_ohm: modulesInSeries * module.shuntResistance_ohm,
  modifiedIdeality_V: modulesInSeries * module.modifiedIdeality_V,
})

export type Reference = MaximumPowerPoint & { voc_V: number; isc_A: number; fillFactor: number; diode: SingleDiode }

/** What a sound string gives at a light in W/m2 and a cell temperature in degC. */
export function referenceOf(
  parameters: SingleDiode,
  module: ModuleData,
  modulesInSeries: number,
  irradiance_Wm2: number,
  cell_C: number,
): Reference {
  const diode = asOneDiode(atConditions(parameters, module, irradiance_Wm2, cell_C), modulesInSeries)
  const [voc_V, isc_A] = [openCircuitVoltage(diode), shortCircuitCurrent(diode)]
  const top = maximumPowerPoint(diode)
  return { ...top, voc_V, isc_A, fillFactor: top.pmax_W / (voc_V * isc_A), diode }
}
