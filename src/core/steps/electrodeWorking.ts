/** The sums behind an electrode's resistance: places, mean and spread, limits, soil, and what further rods would bring. */
import { fitEvenSoil, probePlaces } from '../earth/fallOfPotential'
import { MOST_RODS, planOf, type Shape, soilOf } from '../earth/rods'
import type { ElectrodeData } from '../plant/part'
import type { WorkingLine } from '../verdict/working'
import { readingsIn } from './acShared'
import {
  type ElectrodeContext,
  electrodeSlots,
  isCurve,
  isLoop,
  judgedElectrode,
  pointsOf,
  type Reading,
} from './electrodeSlots'
import { numberIn } from './stringReading'

const threeSlots = electrodeSlots.filter((slot) => /^re-[123]$/.test(slot.id))

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

function placeLines({ regime }: ElectrodeContext, reading: Reading): WorkingLine[] {
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

function valueLine(reading: Reading, mean_ohm: number): WorkingLine {
  const lead = numberIn(reading, 're-lead')
  const code = isCurve(reading) ? 'electrode.at-true-place' : lead ? 'electrode.less-lead' : 'electrode.mean'
  return {
    code,
    figures: { lead_ohm: lead?.value ?? 0, count: Math.max(1, readingsIn(reading, threeSlots).size) },
    result: { value: mean_ohm, unit: 'ohm', decimals: 1 },
    source: isCurve(reading) ? 'ieee-81' : 'electrode-practice',
  }
}

/** The even soil that fits a curve best, and how far a place lies off it. */
function soilFitLines(reading: Reading): WorkingLine[] {
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
function singleLines({ part }: ElectrodeContext, reading: Reading): WorkingLine[] {
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
function planLines({ part }: ElectrodeContext, mean_ohm: number): WorkingLine[] {
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

export function electrodeWorking(context: ElectrodeContext, reading: Reading): WorkingLine[] {
  const places = placeLines(context, reading)
  const found = judgedElectrode(context, reading)
  if (!found) return places
  const { limits, schools } = context.regime
  const spread: WorkingLine[] =
    found.spread_pct === null
      ? []
      : [
          {
            code: `electrode.spread-${schools['earth.spread-rule']}`,
            figures: { allowed_pct: limits['earth.spread'].value },
            result: { value: found.spread_pct, unit: 'pct', decimals: 1 },
            source: 'electrode-practice',
          },
        ]
  const devices = found.limits.map(
    ({ ratedResidualCurrent_mA, limit_ohm }): WorkingLine => ({
      code: 'electrode.limit',
      figures: { rated_mA: ratedResidualCurrent_mA, touch_V: limits['earth.touch-voltage'].value },
      result: { value: limit_ohm, unit: 'ohm', decimals: 0 },
      source: 'bs7671-electrode',
      decides: true,
    }),
  )
  return [
    ...places,
    valueLine(reading, found.mean_ohm),
    ...spread,
    ...soilFitLines(reading),
    ...singleLines(context, reading),
    ...devices,
    ...planLines(context, found.mean_ohm),
  ]
}
