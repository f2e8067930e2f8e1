/**
 * I-V curve of a string: power referred to standard test conditions against the plate, voltage, current and fill factor
 * against the model at the light and warmth of the sweep, and ledges. Source: IEC 62446-1:2016 7.2 (from memory).
 */
import { isolatedGate, notReversed } from '../gates'
import type { CurveSlot } from '../slot'
import type { PartIn, ReadStep, StepContext } from '../step'
import { curveIn } from '../reading'
import { exampleConditions, exampleString } from '../worked'
import { sisterGroupOf } from '../dc/sisterGroup'
import { modelOf, weatherAt } from '../dc/stringReading'
import { hidesItsCells } from '../../plant/moduleElectronics'
import type { PlantIndex } from '../../plant/plantIndex'
import type { Regime } from '../../regime/regime'
import { featuresIn, pointsOf } from '../../curve/curveValue'
import type { CurveToExplain } from '../../diagnosis/curveCauses'
import type { Judgement } from '../../verdict/judgement'
import { curvePictures } from './curvePicture'
import { instrumentOff_pct } from './carried'
import { judgeCurve } from './judgeCurve'

const EXAMPLE_ARRAY = '00000000-0000-7000-8000-000000000005'
/** Amperes of the example at its voltages. */
const exampleCurve = {
  voltages_V: [0, 40, 100, 180, 240, 280, 300, 315, 330, 340, 350, 360, 370, 380, 390, 400, 406, 411],
  currents_A: [
    9.6, 9.594, 9.585, 9.573, 9.564, 9.548, 9.519, 9.461, 9.319, 9.126, 8.791, 8.239, 7.387, 6.173, 4.576, 2.616, 1.286,
    0.098,
  ],
}

export const curveSlot: CurveSlot = { kind: 'curve', id: 'curve', measures: 'iv-curve', balloon: 1 }

/** Where the regime asks for curves throughout, or this array is tested to category 2. */
function isWanted(part: PartIn<'string'>, plant: PlantIndex, { schools }: Regime): boolean {
  if (hidesItsCells(part)) return false
  if (schools['pv.curves'] === 'always') return true
  return plant.inService('array', part.data.arrayId)?.data.category === 2
}

/** What is known of a curve that is not as it should be; null where a module has no single diode to simulate. */
function curveToExplain(context: StepContext<'string'>, { verdict }: Judgement): CurveToExplain | null {
  if (verdict !== 'outside' && verdict !== 'close') return null
  const curve = curveIn(context.reading, curveSlot.id)
  const weather = weatherAt(context, context.reading.conditions)
  const { parameters } = modelOf(context)
  if (!curve || !weather || !parameters) return null
  const { tag, modulesInSeries, moduleType } = context.part.data
  return {
    tag,
    points: pointsOf(curve),
    parameters,
    module: moduleType.data,
    modulesInSeries,
    irradiance_Wm2: weather.irradiance_Wm2,
    irradianceUncertainty_Wm2: weather.irradianceUncertainty_Wm2,
    cellTemperature_C: weather.cell.value_C,
    cellTemperatureUncertainty_K: weather.cell.uncertainty_K,
    instrument_pct: instrumentOff_pct(context),
  }
}

export const pvCurve: ReadStep<'string'> = {
  kind: 'read',
  id: 'pv-curve',
  order: 'B10',
  comesWith: 'curve',
  appliesTo: 'string',
  of: isWanted,
  station: 'strings',
  tag: 'live-in-daylight',
  slots: [curveSlot],
  needsConditions: true,
  counts: 'latest',
  effects: [{ state: 'plugs-locked', on: 'part', does: 'end' }],
  gates: [
    isolatedGate,
    { id: 'polarity-known', hard: true, waitsFor: 'pv-polarity', until: 'done' },
    notReversed,
    { id: 'insulation-first', hard: false, waitsFor: 'pv-insulation', until: 'not-outside' },
    { id: 'sensors-in-plane', hard: false, waitsFor: 'sensors', until: 'done', on: 'array' },
  ],
  cautions: [
    { id: 'tracer-rating', hard: true },
    { id: 'dc-arcs', hard: true },
    { id: 'live-in-daylight', hard: false },
  ],
  hookup: {
    drawing: 'string-to-tracer',
    leads: [
      { balloon: 1, code: 'tracer-to-plugs' },
      { balloon: 2, code: 'sensors-beside' },
    ],
  },
  minutes: 3,
  sources: ['iec-62446-curve', 'iec-60891', 'de-soto', 'house-curve-shape', 'house-module-spread', 'house-close-band'],
  kit: () => ['iv-curve'],
  standing(reading) {
    const curve = curveIn(reading, curveSlot.id)
    const features = curve && featuresIn(curve)
    if (!features || typeof features === 'string') return null
    return { value: features.pmax_W, unit: 'W', decimals: 0 }
  },
  mendingTouches: ['pv-polarity', 'pv-voc', 'pv-isc', 'pv-insulation', 'plugs-locked', 'operating'],
  judge: (context) => judgeCurve(context, curveIn(context.reading, curveSlot.id)),
  explains: curveToExplain,
  pictures: (context) => curvePictures(context, curveIn(context.reading, curveSlot.id)),
  sisterGroup: sisterGroupOf,
  example: {
    source: 'computed: eleven modules of 282 W at full light and 25 degC, their single diode at eighteen voltages',
    part: { ...exampleString(11), arrayId: EXAMPLE_ARRAY },
    named: {
      id: EXAMPLE_ARRAY,
      data: { kind: 'array', tag: 'South', tilt_deg: 30, azimuth_deg: 180, mounting: 'close-roof', category: 2 },
    },
    reading: { slots: { curve: { curve: exampleCurve } }, conditions: exampleConditions(1000, 25) },
    verdict: 'within',
  },
}
