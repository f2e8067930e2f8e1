/** The sum behind a judged curve. */
import type { CurveValue } from '../../curve/curveValue'
import type { CurveFeatures } from '../../curve/features'
import type { Weather } from '../../pv/conditions'
import { combineUncertainties } from '../../quantity/uncertainty'
import type { WorkingLine } from '../../verdict/working'
import { cellTemperatureLine } from '../dc/workingShared'
import { type Context, expectedAt, instrumentOff_pct } from './carried'

export function linesBefore(
  context: Context,
  curve: CurveValue,
  features: CurveFeatures,
  weather: Weather,
  stc_W: number,
): WorkingLine[] {
  const { moduleType, modulesInSeries } = context.part.data
  const { irradiance_Wm2, cell } = weather
  const { vmp_V, imp_A, pmax_W } = features
  const expected = expectedAt(context, weather)
  return [
    ...thinnedLine(curve),
    cellTemperatureLine(context.reading.conditions!, weather, moduleType.data),
    {
      code: 'pv-curve.top',
      figures: { points: curve.voltages_V.length, vmp_V, imp_A },
      result: { value: pmax_W, unit: 'W', decimals: 0 },
      source: null,
    },
    {
      code: 'pv-curve.model',
      figures: { modules: modulesInSeries, irradiance_Wm2, cell_C: cell.value_C },
      result: { value: expected.pmax.value, unit: 'W', decimals: 0 },
      source: 'de-soto',
    },
    {
      code: 'pv-curve.carried',
      figures: { irradiance_Wm2, cell_C: cell.value_C },
      result: { value: stc_W, unit: 'W', decimals: 0 },
      source: 'iec-60891',
    },
    {
      code: 'pv-curve.known',
      figures: {
        light_pct: (100 * weather.irradianceUncertainty_Wm2) / irradiance_Wm2,
        warmth_K: cell.uncertainty_K,
        instrument_pct: instrumentOff_pct(context),
      },
      result: { value: uncertaintyAtStc_W(context, weather, stc_W), unit: 'W', decimals: 0 },
      source: 'house-module-spread',
    },
  ]
}

/** That not all of its points are kept. */
const thinnedLine = ({ thinnedFrom, voltages_V }: CurveValue): WorkingLine[] =>
  thinnedFrom === undefined
    ? []
    : [
        {
          code: 'pv-curve.thinned',
          figures: { from: thinnedFrom },
          result: { value: voltages_V.length, unit: 'one', decimals: 0 },
          source: null,
        },
      ]

/** By how much the power at standard test conditions may be off: light, warmth, instrument and model together, W. */
function uncertaintyAtStc_W(context: Context, weather: Weather, stc_W: number): number {
  const { pmax } = expectedAt(context, weather)
  const byConditions = (stc_W * pmax.uncertainty) / pmax.value
  return combineUncertainties([byConditions, (stc_W * Math.SQRT2 * instrumentOff_pct(context)) / 100])
}

export function linesAfter(
  context: Context,
  { slopeAtIsc_S, slopeAtVoc_ohm, imp_A, isc_A, vmp_V, voc_V }: CurveFeatures,
  weather: Weather,
  stc_W: number,
  irradiance_Wm2: number,
): WorkingLine[] {
  const { moduleType, modulesInSeries } = context.part.data
  const plate_W = modulesInSeries * moduleType.data.pmax_W
  const lines: WorkingLine[] = [
    {
      code: 'pv-curve.gap',
      figures: { stc_W, plate_W },
      result: { value: 100 * (stc_W / plate_W - 1), unit: 'pct', decimals: 1, signed: true },
      source: null,
    },
    {
      code: 'pv-curve.currents',
      figures: { imp_A, isc_A },
      result: { value: imp_A / isc_A, unit: 'one', decimals: 3 },
      source: null,
    },
    {
      code: 'pv-curve.voltages',
      figures: { vmp_V, voc_V },
      result: { value: vmp_V / voc_V, unit: 'one', decimals: 3 },
      source: null,
    },
    {
      code: 'pv-curve.slope-open',
      figures: { irradiance_Wm2, cell_C: weather.cell.value_C },
      result: { value: slopeAtVoc_ohm, unit: 'ohm', decimals: 2 },
      source: null,
    },
  ]
  if (slopeAtIsc_S <= 0) return lines
  return [
    ...lines,
    {
      code: 'pv-curve.slope-short',
      figures: {},
      result: { value: 1 / slopeAtIsc_S, unit: 'ohm', decimals: 0 },
      source: null,
    },
  ]
}
