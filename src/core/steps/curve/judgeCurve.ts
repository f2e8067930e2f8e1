/** What a string's curve is held against, and how each of it comes out. */
import { type CurveValue, featuresIn, pointsOf } from '../../curve/curveValue'
import { type CurveFeatures, highestPower } from '../../curve/features'
import type { Weather } from '../../pv/conditions'
import { MODULE_SPREAD_PCT } from '../../pv/expectation'
import { exactly } from '../../quantity/span'
import type { Unit } from '../../quantity/unit'
import type { Limit, LimitId } from '../../regime/regime'
import { atMost, type Band, bandAround } from '../../verdict/compare'
import { decide, type Judgement, type Ruling } from '../../verdict/judgement'
import type { Flag } from '../../verdict/verdict'
import { bandLimit, modelOf, weatherAt } from '../dc/stringReading'
import { but, hold, notYet, ruled } from '../holding'
import { atStc, type Context, expectedAt, instrumentOff_pct } from './carried'
import { linesAfter, linesBefore } from './workingOfCurve'

/** A translation to standard test conditions is relied on from this light on, W/m2. Source: IEC 61829 (from memory). */
const RELIED_ON_Wm2 = 700
/** Cells of high efficiency hold charge: a sweep shorter than this is not their curve, s. Common practice, no source. */
const FAST_SWEEP_s = 0.01

type Held = {
  what: 'power' | 'voltage' | 'current' | 'fill'
  value: number
  whisker: number
  unit: Unit
  decimals: number
  expected: { value: number; uncertainty: number }
  limit: Limit & { id: LimitId }
  allowed_pct: number
  band: Band
}

function held(context: Context, ask: Held): Ruling {
  const { what, value, whisker, unit, decimals, expected, limit, band } = ask
  const isLow = value < expected.value || band.high === null
  const edge = isLow ? band.low! : band.high!
  const gap_pct = 100 * (value / expected.value - 1)
  const ruling = hold(context, {
    step: `pv-curve.${what}`,
    span: exactly(value, whisker),
    text: value.toFixed(decimals),
    unit,
    band,
    source: limit.source,
    expected,
    limit: { id: limit.id, value: edge },
    line: {
      code: `pv-curve.${what}-${isLow ? 'low' : 'high'}`,
      figures: { expected: expected.value, allowed_pct: ask.allowed_pct, decimals },
      decimals,
    },
    figures: { expected: expected.value, gap_pct: Math.abs(gap_pct), side: gap_pct < 0 ? 'below' : 'above' },
  })
  // One scale for all curves, and one column in print: that of the power.
  return but(ruling, {
    ...(what === 'power' ? {} : { rule: null }),
    limit: { id: limit.id, value: limit.value, unit: limit.unit, source: limit.source },
  })
}

/** Where the highest power of the curve as carried lies, against what the plate says of so many modules. */
function rulingsOf(context: Context, features: CurveFeatures, weather: Weather, stc_W: number): Ruling[] {
  const { modulesInSeries, moduleType } = context.part.data
  const limit = bandLimit(context, weather)
  const close_pct = context.limit('close.two-sided').value
  const expected = expectedAt(context, weather)
  const off_pct = instrumentOff_pct(context)
  const plate_W = modulesInSeries * moduleType.data.pmax_W
  const plateAllowed_pct = limit.value + (moduleType.data.tolerance_pct ?? 0)
  const fillLimit = { id: 'pv.curve-fill' as const, ...context.limit('pv.curve-fill') }
  const one = (
    what: Held['what'],
    value: number,
    share_pct: number,
    decimals: number,
    unit: Unit,
    of: Held['expected'],
    allowed_pct: number = limit.value,
  ): Ruling =>
    held(context, {
      what,
      value,
      whisker: (value * share_pct) / 100,
      unit,
      decimals,
      expected: of,
      limit,
      allowed_pct,
      band: bandAround(of.value, allowed_pct, close_pct),
    })
  const least_pct = expected.fill_pct * (1 - fillLimit.value / 100)
  const closeTo_pct = expected.fill_pct * (1 - (fillLimit.value / 100) * (1 - close_pct / 100))
  return [
    one(
      'power',
      stc_W,
      Math.SQRT2 * off_pct,
      0,
      'W',
      { value: plate_W, uncertainty: (plate_W * expected.pmax.uncertainty) / expected.pmax.value },
      plateAllowed_pct,
    ),
    one('voltage', features.voc_V, off_pct, 1, 'V', expected.voc),
    one('current', features.isc_A, off_pct, 2, 'A', expected.isc),
    held(context, {
      what: 'fill',
      value: 100 * features.fillFactor,
      // What the instrument is off by in volts and amperes is in both halves of the fraction.
      whisker: 0,
      unit: 'pct',
      decimals: 1,
      expected: { value: expected.fill_pct, uncertainty: (expected.fill_pct * MODULE_SPREAD_PCT) / 100 },
      limit: fillLimit,
      allowed_pct: fillLimit.value,
      band: { low: least_pct, high: null, closeLow: closeTo_pct, closeHigh: null },
    }),
    ledges(context, features),
  ]
}

/** A gap between points wider than so many modules may hide a ledge of one of them [D, house rule 20]. */
const GAP_MODULES = 1.5

/** Where a ledge that matters would be lost in the scatter, or between two points, nobody can say that there is none. */
function unseenLedge(
  context: Context,
  { leastDrop_A, isc_A, gap_V, voc_V }: CurveFeatures,
  limit_pct: number,
): Ruling | null {
  const seen_pct = (100 * leastDrop_A) / isc_A
  const widest_V = (GAP_MODULES * voc_V) / context.part.data.modulesInSeries
  const code = seen_pct > limit_pct ? 'pv-curve.noisy' : gap_V > widest_V ? 'pv-curve.coarse' : null
  const figures = { seen_pct, limit_pct, gap_V, widest_V }
  return code && ruled(context, 'not-yet', code, { code, figures, source: 'house-curve-shape' }, figures)
}

/** The deepest ledge against what scatter of sound modules explains. */
function ledges(context: Context, features: CurveFeatures): Ruling {
  const { steps, isc_A } = features
  const limit = { id: 'pv.curve-ledge' as const, ...context.limit('pv.curve-ledge') }
  const deepest = steps.reduce((most, one) => (one.drop_A > most.drop_A ? one : most), {
    voltage_V: 0,
    width_V: 0,
    drop_A: 0,
  })
  const share_pct = (100 * deepest.drop_A) / isc_A
  const figures = { ...deepest, count: steps.length, share_pct }
  const unseen = unseenLedge(context, features, limit.value)
  if (steps.length === 0 && unseen) return unseen
  if (steps.length === 0)
    return ruled(context, 'within', 'pv-curve.no-ledge', { code: 'pv-curve.no-ledge', source: limit.source })
  const ruling = hold(context, {
    step: 'pv-curve.ledge',
    span: exactly(share_pct),
    text: share_pct.toFixed(1),
    unit: 'pct',
    band: atMost(limit.value, 0),
    source: limit.source,
    limit: { id: limit.id, value: limit.value },
    line: { code: 'pv-curve.ledge', figures, decimals: 0 },
    figures,
  })
  return but(ruling, { rule: null })
}

/** A judged curve, or what is wanted before it can be judged. */
export function judgeCurve(context: Context, curve: CurveValue | null): Judgement {
  if (!curve) return notYet(context, 'pv-curve.no-reading')
  const features = featuresIn(curve)
  if (typeof features === 'string') return notYet(context, 'pv-curve.unreadable', { why: features })
  const weather = weatherAt(context, context.reading.conditions)
  if (!weather) return notYet(context, 'pv-curve.no-conditions')
  const { irradiance_Wm2 } = weather
  const carried = atStc(context, pointsOf(curve), features.voc_V, weather)
  const { pmax_W: stc_W } = highestPower(carried)
  const useless = noLight(context, weather) ?? movedLight(context, curve, weather)
  const rulings = rulingsOf(context, features, weather, stc_W)
  const plate_W = context.part.data.modulesInSeries * context.part.data.moduleType.data.pmax_W
  return decide(useless ? [useless] : rulings, {
    flags: flagsOf(context, weather, curve),
    rule: rulings[0]!.rule ?? null,
    comparable: useless ? null : stc_W / context.part.data.modulesInSeries,
    referred: { value: stc_W, unit: 'W', difference_pct: 100 * (stc_W / plate_W - 1) },
    before: () => linesBefore(context, curve, features, weather, stc_W),
    after: () => linesAfter(context, features, weather, stc_W, irradiance_Wm2),
  })
}

function noLight(context: Context, { irradiance_Wm2 }: Weather): Ruling | null {
  const least = context.limit('pv.least-light')
  if (irradiance_Wm2 >= least.value) return null
  const figures = { irradiance_Wm2, least_Wm2: least.value }
  return ruled(context, 'not-yet', 'pv-curve.dull', { code: 'pv-curve.dull', figures, source: least.source }, figures)
}

/** Light that was another one at the end of the sweep draws a curve that no string has. */
function movedLight(context: Context, { endIrradiance_Wm2 }: CurveValue, { irradiance_Wm2 }: Weather): Ruling | null {
  if (endIrradiance_Wm2 === undefined) return null
  const most = context.limit('pv.light-moved')
  const moved_pct = 100 * Math.abs(endIrradiance_Wm2 / irradiance_Wm2 - 1)
  if (moved_pct <= most.value) return null
  const figures = { irradiance_Wm2, endIrradiance_Wm2, moved_pct, most_pct: most.value }
  return ruled(
    context,
    'not-yet',
    'pv-curve.light-moved',
    { code: 'pv-curve.light-moved', figures, source: most.source },
    figures,
  )
}

function flagsOf(context: Context, weather: Weather, { sweep_s }: CurveValue): Flag[] {
  const flags: Flag[] = []
  const { pmax } = expectedAt(context, weather)
  if (2 * pmax.uncertainty > (pmax.value * bandLimit(context, weather).value) / 100) flags.push('weak-conditions')
  if (weather.irradiance_Wm2 < RELIED_ON_Wm2) flags.push('weak-translation')
  if (sweep_s !== undefined && sweep_s < FAST_SWEEP_s) flags.push('fast-sweep')
  if (weather.way === 'air') flags.push('estimated-temperature')
  if (modelOf(context).method !== 'de-soto') flags.push('fallback-model')
  return flags
}
