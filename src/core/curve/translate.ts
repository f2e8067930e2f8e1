/**
 * A measured curve carried to other light and temperature. Source: IEC 60891:2009 procedures 1 and 2 (from memory). The
 * edition of 2021 writes procedure 2 with a logarithm that is fitted to several irradiances; with its first-order term
 * alone it is the one below.
 */
import type { CurvePoint } from './points'

export type CurveConditions = { irradiance_Wm2: number; cellTemperature_C: number }

export type Procedure1 = {
  /** Short-circuit current as it was measured, A. */
  isc_A: number
  alpha_AperK: number
  beta_VperK: number
  seriesResistance_ohm: number
  kappa_ohmPerK: number
}
export type Procedure2 = {
  /** Open-circuit voltage as it was measured, V. */
  voc_V: number
  /** Fractions a kelvin. */
  alphaRel_perK: number
  betaRel_perK: number
  /** How much of the open-circuit voltage goes with the logarithm of the light. */
  a: number
  seriesResistance_ohm: number
  kappa_ohmPerK: number
}

type Carry = (
  points: readonly CurvePoint[],
  from: CurveConditions,
  to: CurveConditions,
) => (readonly [number, number])[]

/**
 * I2 = I1 + Isc (G2/G1 - 1) + alpha (T2 - T1), V2 = V1 - Rs (I2 - I1) - kappa I2 (T2 - T1) + beta (T2 - T1).
 *
 * @throws RangeError where there was no light to carry from.
 */
export const byProcedure1 =
  ({ isc_A, alpha_AperK, beta_VperK, seriesResistance_ohm, kappa_ohmPerK }: Procedure1): Carry =>
  (points, from, to) => {
    const light = lightRatio(from, to)
    const warmer_K = to.cellTemperature_C - from.cellTemperature_C
    return points.map(([voltage_V, current_A]) => {
      const current2_A = current_A + isc_A * (light - 1) + alpha_AperK * warmer_K
      const drop_V = seriesResistance_ohm * (current2_A - current_A) + kappa_ohmPerK * current2_A * warmer_K
      return [voltage_V - drop_V + beta_VperK * warmer_K, current2_A] as const
    })
  }

/**
 * I2 = I1 (1 + alphaRel (T2 - T1)) G2/G1,
 * V2 = V1 + Voc (betaRel (T2 - T1) + a ln(G2/G1)) - Rs (I2 - I1) - kappa I2 (T2 - T1).
 *
 * @throws RangeError where there was no light to carry from, or none to carry to.
 */
export const byProcedure2 =
  ({ voc_V, alphaRel_perK, betaRel_perK, a, seriesResistance_ohm, kappa_ohmPerK }: Procedure2): Carry =>
  (points, from, to) => {
    const light = lightRatio(from, to)
    if (!(light > 0)) throw new RangeError(`byProcedure2: expected light to carry to, got ${to.irradiance_Wm2} W/m2`)
    const warmer_K = to.cellTemperature_C - from.cellTemperature_C
    const raised_V = voc_V * (betaRel_perK * warmer_K + a * Math.log(light))
    return points.map(([voltage_V, current_A]) => {
      const current2_A = current_A * (1 + alphaRel_perK * warmer_K) * light
      const drop_V = seriesResistance_ohm * (current2_A - current_A) + kappa_ohmPerK * current2_A * warmer_K
      return [voltage_V + raised_V - drop_V, current2_A] as const
    })
  }

function lightRatio(from: CurveConditions, to: CurveConditions): number {
  if (!(from.irradiance_Wm2 > 0))
    throw new RangeError(`lightRatio: expected light to carry from, got ${from.irradiance_Wm2} W/m2`)
  return to.irradiance_Wm2 / from.irradiance_Wm2
}
