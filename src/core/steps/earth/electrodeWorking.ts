/** The sums behind an electrode's resistance: places, mean and spread, limits, soil, and what further rods would bring. */
import { fitEvenSoil, probePlaces } from '../../earth/fallOfPotential'
import { MOST_RODS, planOf, type Shape, soilOf } from '../../earth/rods'
import type { ElectrodeData } from '../../plant/part'
import type { WorkingLine } from '../../verdict/working'
import type { ElectrodeJudged } from '../../earth/electrode'
import { standingFor } from '../../quantity/span'
import { numberIn } from '../reading'
import { type ElectrodeContext, isCurve, isLoop, pointsOf, probesIn } from './electrodeSlots'

/** An electrode's shape in metres. */
export const shapeOf = ({ form, length_m, diameter_mm, depth_m }: ElectrodeData): Shape => ({
  form: form ?? 'rods',
  length_m,
  diameter_m: diameter_mm === null ? null : diameter_mm / 1000,
  depth_m: depth_m ?? null,
})

/** How far apart they stand: at least their own length where nobody said so. */
export const spacingOf = ({ spacing_m, length_m, diameter_mm }: ElectrodeData): number =>
  spacing_m ?? length_m ?? (diameter_mm ? (2 * diameter_mm) / 1000 : 3)

function placeLines({ regime, reading }: ElectrodeContext): WorkingLine[] {
  const distance = numberIn(reading, 'spike-distance')
  if (!distance || isLoop(reading) || isCurve(reading)) return []
  const school = regime.schools['earth.probe']
  const [at, before, beyond] = probePlaces(school, distance.value)
  return [
    {
      code: `electrode.places-${school}`,
      figures: { distance_m: distance.value, before, beyond },
      result: { value: at, unit: 'm', decimals: 1 },
      source: 'ieee-81',
    },
  ]
}

function valueLine({ reading }: ElectrodeContext, mean_ohm: number): WorkingLine {
  const lead = numberIn(reading, 're-lead')
  const code = isCurve(reading) ? 'electrode.at-true-place' : lead ? 'electrode.less-lead' : 'electrode.mean'
  return {
    code,
    figures: { lead_ohm: lead?.value ?? 0, count: Math.max(1, probesIn(reading).filter((one) => one !== null).length) },
    result: { value: mean_ohm, unit: 'ohm', decimals: 1 },
    source: isCurve(reading) ? 'ieee-81' : 'electrode-practice',
  }
}

/** The even soil that fits a curve best, and how far a place lies off it. */
export function soilLines({ reading }: ElectrodeContext): WorkingLine[] {
  const points = pointsOf(reading)
  if (!isCurve(reading) || points.length < 3) return []
  const soil = fitEvenSoil(points)
  return [
    {
      code: 'electrode.even-soil',
      figures: { count: points.length, off_pct: soil.off_pct },
      result: { value: soil.resistance_ohm, unit: 'ohm', decimals: 1 },
      source: 'ieee-81',
    },
  ]
}

/** Several rods against one of them alone: they cannot have less than their share of it in even soil. */
export function singleLines({ part, reading }: ElectrodeContext): WorkingLine[] {
  const single = numberIn(reading, 're-single')
  const { rods } = part.data
  if (!single || rods === null || rods < 2) return []
  return [
    {
      code: 'electrode.best-of-rods',
      figures: { single: single.text, count: rods },
      result: { value: single.value / rods, unit: 'ohm', decimals: 1 },
      source: 'electrode-practice',
    },
  ]
}

/** What further ones would bring in this soil, from what those there are read. */
export function planLines({ part }: ElectrodeContext, mean_ohm: number): WorkingLine[] {
  const { rods } = part.data
  const shape = shapeOf(part.data)
  const spacing_m = spacingOf(part.data)
  const soil = rods === null || mean_ohm <= 0 ? null : soilOf(shape, rods, spacing_m, mean_ohm)
  const plan = soil === null ? null : planOf(shape, soil, spacing_m)
  if (rods === null || soil === null || plan === null) return []
  return plan.slice(rods, Math.min(rods + 2, MOST_RODS)).map(
    ({ count, combined_ohm }): WorkingLine => ({
      code: `electrode.further-${shape.form}`,
      figures: { count, spacing_m, soil },
      result: { value: combined_ohm, unit: 'ohm', decimals: 1 },
      source: 'bs7430-rods',
    }),
  )
}

/** Places, the value, and how far the readings lie apart. */
export function sumLines(context: ElectrodeContext, { value, spread_pct }: ElectrodeJudged): WorkingLine[] {
  const lines = [...placeLines(context), valueLine(context, standingFor(value))]
  if (spread_pct === null) return lines
  const rule = context.regime.schools['earth.spread-rule']
  return [
    ...lines,
    {
      code: `electrode.spread-${rule}`,
      figures: { allowed_pct: context.limit('earth.spread').value },
      result: { value: spread_pct, unit: 'pct', decimals: 1 },
      source: 'electrode-practice',
    },
  ]
}
