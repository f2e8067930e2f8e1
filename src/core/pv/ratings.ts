/**
 * The design check before anything is connected: what the string can deliver against what its circuit is made for.
 * Sources: IEC 60364-7-712 and IEC 62548 (from memory); schools as handbook section 3 names them.
 */
import { exactly } from '../quantity/span'
import { compare } from '../verdict/compare'
import type { Verdict } from '../verdict/verdict'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from './constants'
import type { ModuleData } from './moduleData'
import type { ModuleModel } from './stringModel'
import { temperatureFactor } from './temperatureFactor'

/** Schools of the highest voltage: the data sheet's own coefficient, the silicon table, or a flat factor. */
export const coldSchools = ['beta', 'table', 'flat'] as const
export type ColdSchool = (typeof coldSchools)[number]

/** Figures of the rules; a regime can change each of them. */
export type RatingFactors = { current: number; fuseLow: number; fuseHigh: number; flat: number }
export const usualFactors: RatingFactors = { current: 1.25, fuseLow: 1.5, fuseHigh: 2.4, flat: 1.15 }

export type RatedDevice = { ratedVoltage_V: number | null; rating_A: number | null }
export type InverterInput = {
  maxInput_V: number | null
  trackerMin_V: number | null
  trackerMax_V: number | null
  maxShortCircuit_A: number | null
}
export type Circuit = {
  module: Omit<ModuleData, 'beta_pctPerK'> & { beta_pctPerK?: number | undefined }
  modulesInSeries: number
  /** Strings that meet in one input or combiner. */
  stringsInParallel: number
  /** Lowest air temperature expected at the site, degC. */
  lowestTemperature_C: number
  highestCellTemperature_C: number
  inverter: InverterInput | null
  switch: RatedDevice | null
  fuse: RatedDevice | null
  /** What the string's own cable carries as it is laid, A; left away nobody said. */
  cable_A?: number | null
  school: ColdSchool
  /** Where every module has a converter: what a string of them never passes, as its maker says. */
  converters?: { most_V: number | null; most_A: number | null } | null
}

export const ratingIds = [
  'voc-cold-inverter',
  'voc-cold-switch',
  'voc-cold-module',
  'vmp-cold-tracker',
  'vmp-hot-tracker',
  'isc-switch',
  'isc-inverter',
  'isc-cable',
  'fuse-needed',
  'fuse-range',
  'voc-cold-fuse',
] as const
export type RatingId = (typeof ratingIds)[number]

/** One check. `limit` is the edge that decides, null where nothing was entered to hold it against. */
export type RatingCheck = {
  id: RatingId
  value: number | null
  limit: number | null
  low: number | null
  high: number | null
  unit: 'V' | 'A'
  verdict: Verdict
}

/**
 * Factor on N * Voc at STC for the lowest temperature.
 *
 * @returns null where the school has no answer: no beta on the sheet, or colder than the table goes.
 * @example coldFactor('beta', -0.3, -10, 1.15) // 1.105
 */
export function coldFactor(school: ColdSchool, beta_pctPerK: number | undefined, lowest_C: number, flat: number) {
  if (school === 'flat') return flat
  if (school === 'table') return temperatureFactor(lowest_C)
  return beta_pctPerK === undefined ? null : 1 + (beta_pctPerK / 100) * (lowest_C - STC_TEMPERATURE_C)
}

/** Highest open-circuit voltage of the string in the cold, V; null where the school has no answer. */
export function coldVoltage(circuit: Circuit, factors: RatingFactors): number | null {
  const { module, modulesInSeries, school, lowestTemperature_C, converters } = circuit
  if (converters) return converters.most_V
  const factor = coldFactor(school, module.beta_pctPerK, lowestTemperature_C, factors.flat)
  return factor === null ? null : modulesInSeries * module.voc_V * factor
}

/** Vmp of the string at full light and a cell temperature, V: by the model, or by gamma where no model can be had. */
export function workingVoltage(circuit: Circuit, model: ModuleModel | null, cell_C: number): number {
  const { module, modulesInSeries } = circuit
  const one = model
    ? model.maximumPower(STC_IRRADIANCE_Wm2, cell_C).vmp_V
    : module.vmp_V * (1 + (module.gamma_pctPerK / 100) * (cell_C - STC_TEMPERATURE_C))
  return modulesInSeries * one
}

/**
 * The short-circuit current by which a circuit is dimensioned, A: a module that takes light on its back gives more than its
 * plate says for the front. Source: IEC 62548-1:2023 (from memory).
 */
export const dimensioningIsc_A = ({
  isc_A,
  bifacialGain_pct = 0,
}: Pick<ModuleData, 'isc_A' | 'bifacialGain_pct'>): number => isc_A * (1 + bifacialGain_pct / 100)

/** What a circuit is dimensioned for, A: converters hold their current, else Isc with its factor; null where nobody said. */
export function carriedBy(circuit: Circuit, strings: number, factors: RatingFactors): number | null {
  const { converters, module } = circuit
  if (converters) return converters.most_A === null ? null : strings * converters.most_A
  return factors.current * strings * dimensioningIsc_A(module)
}

/** Every check of a circuit, in a fixed order. `model` is null where the data sheet carries no beta. */
export function ratingChecks(circuit: Circuit, model: ModuleModel | null, factors = usualFactors): RatingCheck[] {
  const { module, stringsInParallel, inverter, fuse } = circuit
  const cold_V = coldVoltage(circuit, factors)
  const carried_A = carriedBy(circuit, stringsInParallel, factors)
  const vmpCold_V = workingVoltage(circuit, model, circuit.lowestTemperature_C)
  const vmpHot_V = workingVoltage(circuit, model, circuit.highestCellTemperature_C)
  return [
    atMost('voc-cold-inverter', 'V', cold_V, inverter?.maxInput_V),
    atMost('voc-cold-switch', 'V', cold_V, circuit.switch?.ratedVoltage_V),
    atMost('voc-cold-module', 'V', cold_V, module.maxSystemVoltage_V),
    // Converters keep the string where its inverter wants it, whatever the cells do.
    ...(circuit.converters
      ? []
      : [
          atMost('vmp-cold-tracker', 'V', vmpCold_V, inverter?.trackerMax_V),
          atLeast('vmp-hot-tracker', 'V', vmpHot_V, inverter?.trackerMin_V),
        ]),
    atMost('isc-switch', 'A', carried_A, circuit.switch?.rating_A),
    atMost('isc-inverter', 'A', carried_A, inverter?.maxShortCircuit_A),
    // Its own cable carries one string, whatever is joined to it further on.
    ...(circuit.cable_A ? [atMost('isc-cable', 'A', carriedBy(circuit, 1, factors), circuit.cable_A)] : []),
    ...fuseChecks(circuit, factors),
    ...(fuse ? [atMost('voc-cold-fuse', 'V', cold_V, fuse.ratedVoltage_V)] : []),
  ]
}

/** What the other strings can drive back into one that fails: above the module's fuse rating, fuses are needed. */
function fuseChecks(circuit: Circuit, factors: RatingFactors): RatingCheck[] {
  // Converters let nothing back into a module: what their strings want is their maker's to say.
  if (circuit.converters) return []
  const { module, stringsInParallel, fuse } = circuit
  const isc_A = dimensioningIsc_A(module)
  const reverse_A = (stringsInParallel - 1) * factors.current * isc_A
  const most_A = module.maxSeriesFuse_A ?? null
  const unfused = atMost('fuse-needed', 'A', reverse_A, most_A)
  const isNeeded = unfused.verdict === 'outside'
  // A string by itself drives nothing back, whatever the module's rating.
  if (reverse_A === 0) unfused.verdict = 'within'
  // A fuse that is there answers the need; without one the reverse current stands as it is.
  const needed: RatingCheck = isNeeded && fuse ? { ...unfused, verdict: 'within' } : unfused
  const low = factors.fuseLow * isc_A
  const high = Math.min(factors.fuseHigh * isc_A, most_A ?? Number.POSITIVE_INFINITY)
  const rating_A = fuse?.rating_A ?? null
  if (rating_A === null) {
    const verdict = fuse || isNeeded ? 'not-yet' : 'left-out'
    return [needed, { id: 'fuse-range', unit: 'A', value: null, limit: low, low, high, verdict }]
  }
  const found = compare(exactly(rating_A), { low, high, closeLow: null, closeHigh: null }).verdict
  // A module whose largest fuse nobody read may bear less than this one.
  const verdict = most_A === null && found !== 'outside' ? 'not-yet' : found
  const limit = rating_A > high || Math.abs(rating_A - high) < Math.abs(rating_A - low) ? high : low
  return [needed, { id: 'fuse-range', unit: 'A', value: rating_A, limit, low, high, verdict }]
}

type Unit = RatingCheck['unit']

type Check<Id extends string> = Omit<RatingCheck, 'id'> & { id: Id }

/** A figure that may not pass another; not made where either is not known. */
export function atMost<Id extends string>(
  id: Id,
  unit: Unit,
  value: number | null,
  most: number | null | undefined,
): Check<Id> {
  const high = most ?? null
  const verdict =
    value === null ? 'not-yet' : compare(exactly(value), { low: null, high, closeLow: null, closeHigh: null }).verdict
  return { id, unit, value, limit: high, low: null, high, verdict }
}

function atLeast(id: RatingId, unit: Unit, value: number | null, least: number | null | undefined): RatingCheck {
  const low = least ?? null
  const verdict =
    value === null ? 'not-yet' : compare(exactly(value), { low, high: null, closeLow: null, closeHigh: null }).verdict
  return { id, unit, value, limit: low, low, high: null, verdict }
}

/** The standard ratings of switches and fuses, A: IEC 60059 and its R10 series (from memory). */
const standardRatings_A = [6, 8, 10, 12.5, 16, 20, 25, 32, 40, 50, 63, 80, 100, 125, 160, 200, 250] as const

/**
 * The next standard rating that carries a current, A; null above the table.
 * @example nextRating(16.5) // 20
 */
export function nextRating(current_A: number): number | null {
  return standardRatings_A.find((rating) => rating >= current_A) ?? null
}
