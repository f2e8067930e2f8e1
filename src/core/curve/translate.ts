/**
 * A measured curve carried to other light and temperature. Source: IEC 60891:2009 procedures 1, 2 and 3 (from memory). The
 * edition of 2021 writes procedure 2 with a logarithm that is fitted to several irradiances; with its first-order term
 * alone it is the one below.
 */
import { type CurvePoint, inOrder } from './points'

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

export type Measured = { points: readonly CurvePoint[]; at: CurveConditions }

/** Points of a curve between two that were measured, taken where both have come equally far from short circuit. */
const PLACES = 120
/** How far conditions may lie off the line between the two, as a share of the way. */
const OFF_LINE = 0.02

/**
 * Between two measured curves, by the share a of the way from the first to the second, without any parameter:
 * V3 = V1 + a (V2 - V1), I3 = I1 + a (I2 - I1), with points paired so that I2 - I1 = Isc2 - Isc1.
 * `to` has to lie on the line between both conditions; a beyond 0 to 1 carries on along it.
 *
 * @throws RangeError where both were measured under the same conditions, or `to` lies off their line.
 */
export function byProcedure3(one: Measured, other: Measured, to: CurveConditions): CurvePoint[] {
  const share = shareOfWay(one.at, other.at, to)
  const [first, second] = [inOrder(one.points), inOrder(other.points)]
  const [isc1_A, isc2_A] = [first[0]![1], second[0]![1]]
  const reach_A = Math.max(first[0]![1] - first.at(-1)![1], second[0]![1] - second.at(-1)![1])
  const points: CurvePoint[] = []
  for (let k = 0; k < PLACES; k++) {
    const fallen_A = reach_A * (k / (PLACES - 1)) ** 2
    const [v1, v2] = [voltageAt(first, isc1_A - fallen_A), voltageAt(second, isc2_A - fallen_A)]
    if (v1 === null || v2 === null) continue
    points.push([v1 + share * (v2 - v1), isc1_A - fallen_A + share * (isc2_A - isc1_A)])
  }
  return points
}

/** Which share of the way from one pair of conditions to the other a third lies at. */
function shareOfWay(one: CurveConditions, other: CurveConditions, to: CurveConditions): number {
  const light = other.irradiance_Wm2 - one.irradiance_Wm2
  const warmth = other.cellTemperature_C - one.cellTemperature_C
  if (light === 0 && warmth === 0) throw new RangeError('byProcedure3: expected two curves under unlike conditions')
  const share =
    light !== 0
      ? (to.irradiance_Wm2 - one.irradiance_Wm2) / light
      : (to.cellTemperature_C - one.cellTemperature_C) / warmth
  const [offLight, offWarmth] = [
    to.irradiance_Wm2 - one.irradiance_Wm2 - share * light,
    to.cellTemperature_C - one.cellTemperature_C - share * warmth,
  ]
  if (Math.abs(offLight) > OFF_LINE * Math.abs(light) + 1e-9 || Math.abs(offWarmth) > OFF_LINE * Math.abs(warmth) + 0.5)
    throw new RangeError('byProcedure3: expected conditions on the line between those of the two curves')
  return share
}

/** The voltage at which a curve has come down to a current; null where it never does. */
function voltageAt(sorted: readonly CurvePoint[], current_A: number): number | null {
  if (current_A >= sorted[0]![1]) return sorted[0]![0]
  for (let k = 1; k < sorted.length; k++) {
    const [[v0, i0], [v1, i1]] = [sorted[k - 1]!, sorted[k]!]
    if (i1 <= current_A) return i0 > i1 ? v0 + ((v1 - v0) * (i0 - current_A)) / (i0 - i1) : v1
  }
  return null
}

function lightRatio(from: CurveConditions, to: CurveConditions): number {
  if (!(from.irradiance_Wm2 > 0))
    throw new RangeError(`lightRatio: expected light to carry from, got ${from.irradiance_Wm2} W/m2`)
  return to.irradiance_Wm2 / from.irradiance_Wm2
}
