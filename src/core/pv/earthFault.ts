/**
 * Where along a floating string an earth fault sits, from two voltages to earth. Common practice, no source; the
 * formulas follow from two resistances in a loop (handbook 5).
 */

/** Below this share of Voc the two voltages are the meter's own leakage: the string is clean to earth [D]. */
export const CLEAN_SHARE = 0.02

export type EarthFaultReading = {
  voc_V: number
  /** Magnitude, settled. */
  positiveToEarth_V: number
  negativeToEarth_V: number
  meterResistance_ohm: number
  modulesInSeries: number
}
export type EarthFault = {
  /** How far along the string from its positive end, 0 to 1. */
  fraction: number
  /** The fault sits after this many modules, counted from the positive end. */
  afterModule: number
  faultResistance_ohm: number
}

/**
 * The place and resistance of a single resistive fault; null where the string is clean to earth.
 *
 * @throws RangeError where the two voltages together are above Voc: the reading cannot be of this string.
 * @example earthFault({ voc_V: 400, positiveToEarth_V: 100, negativeToEarth_V: 200, meterResistance_ohm: 1e7, modulesInSeries: 12 })
 *   // { fraction: 0.333…, afterModule: 4, faultResistance_ohm: 3.33e6 }
 */
export function earthFault(reading: EarthFaultReading): EarthFault | null {
  const { voc_V, positiveToEarth_V, negativeToEarth_V, meterResistance_ohm, modulesInSeries } = reading
  const sum = positiveToEarth_V + negativeToEarth_V
  if (sum > voc_V)
    throw new RangeError(`earthFault: expected the two voltages to sum to at most ${voc_V} V, got ${sum} V`)
  if (sum < CLEAN_SHARE * voc_V) return null
  const fraction = positiveToEarth_V / sum
  return {
    fraction,
    afterModule: Math.round(fraction * modulesInSeries),
    faultResistance_ohm: meterResistance_ohm * (voc_V / sum - 1),
  }
}

/** Two ends of a quantity, the meter's uncertainty in them. */
type Ends = { least: number; most: number }

/**
 * Between which fractions of the string the fault sits, from the positive end, with what the two voltages may be off.
 *
 * @example faultBetween({ least: 99, most: 101 }, { least: 198, most: 202 }) // { from: 0.329, to: 0.338 } about
 */
export function faultBetween(positiveToEarth_V: Ends, negativeToEarth_V: Ends): { from: number; to: number } {
  const share = (one: number, other: number): number => {
    if (!Number.isFinite(other)) return 0
    if (!Number.isFinite(one)) return 1
    return one + other > 0 ? one / (one + other) : 0
  }
  return {
    from: share(Math.max(0, positiveToEarth_V.least), negativeToEarth_V.most),
    to: share(positiveToEarth_V.most, Math.max(0, negativeToEarth_V.least)),
  }
}

/**
 * Between which resistances what leaks lies, in the unit of the meter's input, with what the three voltages may be off.
 * Without any voltage to earth nothing leaks that this meter could see.
 */
export function leakBetween(voc_V: Ends, sum_V: Ends, meterResistance: number): Ends {
  const behind = (voc: number, sum: number): number =>
    sum > 0 ? Math.max(0, meterResistance * (voc / sum - 1)) : Number.POSITIVE_INFINITY
  return { least: behind(voc_V.least, sum_V.most), most: behind(voc_V.most, sum_V.least) }
}
