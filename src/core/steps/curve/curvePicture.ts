/** A curve as it is drawn: measured over expected, as swept and as carried to standard test conditions. */
import { type CurveValue, featuresIn, pointsOf } from '../../curve/curveValue'
import { type CurvePoint, inOrder } from '../../curve/points'
import { type Reference, referenceOf } from '../../curve/reference'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '../../pv/constants'
import { currentAt } from '../../pv/singleDiode'
import { modelOf, weatherAt } from '../dc/stringReading'
import type { CurvePicture } from '../picture'
import type { StepContext } from '../step'
import { atStc } from './carried'

/** Points of a curve that is computed: closer where it bends. */
const POINTS = 90
const BEND = 1.6

/** What a sound string gives, drawn from short to open circuit. */
export function drawnCurve({ diode, voc_V }: Reference): CurvePoint[] {
  return Array.from({ length: POINTS }, (_, k): CurvePoint => {
    const voltage = voc_V * (1 - (1 - k / (POINTS - 1)) ** BEND)
    return [voltage, currentAt(diode, voltage)]
  })
}

export function curvePictures(context: StepContext<'string'>, curve: CurveValue | null): CurvePicture[] {
  const features = curve && featuresIn(curve)
  const weather = weatherAt(context, context.reading.conditions)
  if (!curve || !features || typeof features === 'string' || !weather) return []
  const { irradiance_Wm2, cell } = weather
  const { modulesInSeries, moduleType } = context.part.data
  const { parameters } = modelOf(context)
  const at = (light: number, warmth: number): Reference | null =>
    parameters && referenceOf(parameters, moduleType.data, modulesInSeries, light, warmth)
  const here = at(irradiance_Wm2, cell.value_C)
  const stc = at(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)
  const measured = inOrder(pointsOf(curve))
  const { voc_V, isc_A, vmp_V, imp_A, steps } = features
  return [
    {
      kind: 'curve',
      measured,
      expected: here ? drawnCurve(here) : [],
      atStc: { measured: atStc(context, measured, voc_V, weather), expected: stc ? drawnCurve(stc) : [] },
      irradiance_Wm2,
      cell_C: cell.value_C,
      voc_V,
      isc_A,
      vmp_V,
      imp_A,
      steps,
      top: here && { vmp_V: here.vmp_V, imp_A: here.imp_A },
    },
  ]
}
