/**
 * The five-parameter model of De Soto, Klein, Beckman: "Improvement and validation of a model for photovoltaic array
 * performance", Solar Energy 80 (2006) 78-88 (from memory). Fitted to the data sheet by Isc, Voc, the maximum-power
 * point, dP/dV = 0 there, and Voc at 27 degC = Voc (1 + 2 beta). The step of 2 K moves I0 by some 2 %, so it is named.
 */
import {
  STC_IRRADIANCE_Wm2,
  STC_TEMPERATURE_C,
  THERMAL_VOLTAGE_VperK,
  thermalVoltage,
  ZERO_CELSIUS_K,
} from './constants'
import { findRoot } from './findRoot'
import type { ModuleData } from './moduleData'
import type { SingleDiode } from './singleDiode'

/** Temperature step of the fifth condition, K. */
export const TEMPERATURE_STEP_K = 2
/** Band gap of silicon at 25 degC, eV. Source: De Soto 2006, after eq. 10. */
export const BAND_GAP_eV = 1.121
/** Relative change of the band gap, per K. Source: De Soto 2006, eq. 11. */
export const BAND_GAP_SLOPE_perK = 0.0002677

/** I0(T)/I0(25 degC). Source: De Soto 2006, eq. 10. */
export function saturationCurrentFactor(temperature_C: number): number {
  const reference_K = STC_TEMPERATURE_C + ZERO_CELSIUS_K
  const absolute_K = temperature_C + ZERO_CELSIUS_K
  const gap_eV = BAND_GAP_eV * (1 - BAND_GAP_SLOPE_perK * (temperature_C - STC_TEMPERATURE_C))
  const exponent = (BAND_GAP_eV / reference_K - gap_eV / absolute_K) / THERMAL_VOLTAGE_VperK
  return (absolute_K / reference_K) ** 3 * Math.exp(exponent)
}

/** The five parameters at an irradiance and cell temperature, of one module. Source: De Soto 2006, eq. 6 to 12. */
export function atConditions(
  reference: SingleDiode,
  module: Pick<ModuleData, 'isc_A' | 'alpha_pctPerK'>,
  irradiance_Wm2: number,
  cellTemperature_C: number,
): SingleDiode {
  const suns = irradiance_Wm2 / STC_IRRADIANCE_Wm2
  const alpha_AperK = (module.alpha_pctPerK / 100) * module.isc_A
  const ratio = (cellTemperature_C + ZERO_CELSIUS_K) / (STC_TEMPERATURE_C + ZERO_CELSIUS_K)
  return {
    photocurrent_A: suns * (reference.photocurrent_A + alpha_AperK * (cellTemperature_C - STC_TEMPERATURE_C)),
    saturationCurrent_A: reference.saturationCurrent_A * saturationCurrentFactor(cellTemperature_C),
    seriesResistance_ohm: reference.seriesResistance_ohm,
    shuntResistance_ohm: reference.shuntResistance_ohm / suns,
    modifiedIdeality_V: reference.modifiedIdeality_V * ratio,
  }
}

export type DeSotoFit = { state: 'fitted'; parameters: SingleDiode } | { state: 'no-physical-solution' }

/** Ideality factors between which a solution is looked for. */
const IDEALITY = { least: 0.3, most: 3, steps: 90 }
const RESISTANCE_STEPS = 60

/**
 * The five parameters at standard test conditions of one module, from its data sheet.
 *
 * For a given modified ideality a and series resistance Rs, three of the conditions are linear in IL, I0 and 1/Rsh;
 * dP/dV = 0 then finds Rs, and the voltage at 27 degC finds a. Gamma is not used.
 */
export function fitDeSoto(module: ModuleData): DeSotoFit {
  const perIdeality_V = module.cellsInSeries * thermalVoltage(STC_TEMPERATURE_C)
  const miss = (a: number): number => {
    const parameters = parametersFor(module, a)
    return parameters ? voltageMissAtStep(module, parameters) : Number.NaN
  }
  let before: { a: number; miss: number } | null = null
  for (let step = 0; step <= IDEALITY.steps; step++) {
    const ideality = IDEALITY.most + ((IDEALITY.least - IDEALITY.most) * step) / IDEALITY.steps
    const here = { a: ideality * perIdeality_V, miss: miss(ideality * perIdeality_V) }
    if (before && before.miss * here.miss <= 0) {
      const a = findRoot(miss, here.a, before.a)
      const parameters = a === null ? null : parametersFor(module, a)
      if (parameters && parameters.shuntResistance_ohm > 0) return { state: 'fitted', parameters }
    }
    before = Number.isFinite(here.miss) ? here : null
  }
  return { state: 'no-physical-solution' }
}

/** Current left over at Voc (1 + 2 beta) and 27 degC, A: zero where the fifth condition holds. */
function voltageMissAtStep(module: ModuleData, parameters: SingleDiode): number {
  const warm = atConditions(parameters, module, STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C + TEMPERATURE_STEP_K)
  const voltage = module.voc_V * (1 + (module.beta_pctPerK / 100) * TEMPERATURE_STEP_K)
  return (
    warm.photocurrent_A -
    warm.saturationCurrent_A * Math.expm1(voltage / warm.modifiedIdeality_V) -
    voltage / warm.shuntResistance_ohm
  )
}

/** The parameters which meet Isc, Voc, the maximum-power point and dP/dV = 0 there, for one modified ideality. */
function parametersFor(module: ModuleData, a: number): SingleDiode | null {
  const slopeMiss = (seriesResistance: number): number => {
    const solved = linearPart(module, a, seriesResistance)
    const u = module.vmp_V + module.imp_A * seriesResistance
    const conductance = (solved.saturationCurrent_A / a) * Math.exp(u / a) + solved.shuntConductance_S
    return conductance * (module.vmp_V - module.imp_A * seriesResistance) - module.imp_A
  }
  const most = (module.voc_V - module.vmp_V) / module.imp_A
  let before = 0
  let missBefore = slopeMiss(0)
  for (let step = 1; step <= RESISTANCE_STEPS; step++) {
    const here = (most * step) / RESISTANCE_STEPS
    const missHere = slopeMiss(here)
    if (missBefore * missHere <= 0) {
      const seriesResistance_ohm = findRoot(slopeMiss, before, here)
      if (seriesResistance_ohm === null) return null
      const solved = linearPart(module, a, seriesResistance_ohm)
      if (!(solved.saturationCurrent_A > 0)) return null
      return {
        photocurrent_A: solved.photocurrent_A,
        saturationCurrent_A: solved.saturationCurrent_A,
        seriesResistance_ohm,
        shuntResistance_ohm: 1 / solved.shuntConductance_S,
        modifiedIdeality_V: a,
      }
    }
    before = here
    missBefore = missHere
  }
  return null
}

type LinearPart = { photocurrent_A: number; saturationCurrent_A: number; shuntConductance_S: number }

/** IL, I0 and 1/Rsh from the three conditions that are linear in them. */
function linearPart(module: ModuleData, a: number, seriesResistance: number): LinearPart {
  const uShort = module.isc_A * seriesResistance
  const uPower = module.vmp_V + module.imp_A * seriesResistance
  const uOpen = module.voc_V
  const eShort = Math.expm1(uShort / a)
  const eOpen = Math.expm1(uOpen / a) - eShort
  const ePower = Math.expm1(uPower / a) - eShort
  const determinant = eOpen * (uPower - uShort) - ePower * (uOpen - uShort)
  const dropPower = module.isc_A - module.imp_A
  const saturationCurrent_A = (module.isc_A * (uPower - uShort) - dropPower * (uOpen - uShort)) / determinant
  const shuntConductance_S = (eOpen * dropPower - ePower * module.isc_A) / determinant
  return {
    photocurrent_A: module.isc_A + saturationCurrent_A * eShort + shuntConductance_S * uShort,
    saturationCurrent_A,
    shuntConductance_S,
  }
}
