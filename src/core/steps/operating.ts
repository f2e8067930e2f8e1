/**
 * Operating voltage, current and power of each string under equal light: alike strings agree within 5 %. Common
 * practice, no source; the expectation is the De Soto model's maximum power.
 */
import { weatherOf } from '../pv/conditions'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '../pv/constants'
import { readValueOf } from '../quantity/readValue'
import { readingUncertainty } from '../quantity/uncertainty'
import type { Body } from '../record/entry'
import { bandAround, judge } from '../verdict/judge'
import type { Flag } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import { plain } from './checks'
import type { Judgement, Slot, Step, StepContext } from './step'
import { modelOf, numberIn, sisterGroupOf, stringInputs } from './stringReading'
import { exampleConditions, exampleString } from './worked'

const slots: readonly Slot[] = [
  { kind: 'number', id: 'current', measures: 'dc-current', unit: 'A', balloon: 1 },
  { kind: 'number', id: 'voltage', measures: 'dc-voltage', unit: 'V', balloon: 2 },
]

function powerAt(context: StepContext<'string'>, irradiance_Wm2: number, cell_C: number): number {
  const { modulesInSeries } = context.part.data
  return modulesInSeries * modelOf(context).maximumPower(irradiance_Wm2, cell_C).pmax_W
}

function judgeOperating(context: StepContext<'string'>, reading: Body<'reading'>): Judgement {
  const { tag, moduleType } = context.part.data
  const volts = numberIn(reading, 'voltage')
  const amperes = numberIn(reading, 'current')
  if (!volts || !amperes) return plain('not-yet', { code: 'operating.no-reading', figures: { tag } })
  const weather = reading.conditions ? weatherOf(reading.conditions, moduleType.data) : null
  if (!weather) return plain('not-yet', { code: 'operating.no-conditions', figures: { tag } })
  const power_W = volts.value * amperes.value
  const expected_W = powerAt(context, weather.irradiance_Wm2, weather.cell.value_C)
  const stc_W = powerAt(context, STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)
  const limit = context.regime.limits['pv.expectation.estimated']
  const band = bandAround(expected_W, limit.value, context.regime.limits['close.two-sided'].value)
  const accuracy = reading.instrument?.accuracy ?? null
  const whisker =
    power_W *
    Math.hypot(readingUncertainty(volts, null) / volts.value, readingUncertainty(amperes, accuracy) / amperes.value)
  const where = judge({ value: power_W, bound: 'exact' }, band, whisker)
  // An inverter may hold a string back: away from the expectation is a question, and sisters decide.
  const verdict = where.verdict === 'outside' ? 'close' : 'within'
  const flags: Flag[] = weather.irradiance_Wm2 < context.regime.limits['pv.least-light'].value ? ['weak-light'] : []
  const gap_pct = 100 * (power_W / expected_W - 1)
  return {
    verdict,
    finding: {
      code: `operating.${verdict === 'within' ? 'within' : gap_pct < 0 ? 'below' : 'above'}`,
      figures: { power_W, expected_W, gap_pct: Math.abs(gap_pct), tag },
    },
    flags,
    rule: {
      unit: 'W',
      scale: 'linear',
      measured: { value: power_W, bound: 'exact', whisker, text: power_W.toFixed(0) },
      expected: { value: expected_W, uncertainty: 0 },
      band,
      source: limit.source,
    },
    comparable: (power_W * stc_W) / expected_W / context.part.data.modulesInSeries,
    referred: { value: (power_W * stc_W) / expected_W, unit: 'W', difference_pct: gap_pct },
    limits: [{ id: 'pv.operating', ...context.regime.limits['pv.operating'] }],
  }
}

export const operating: Step<'string'> = {
  id: 'operating',
  order: 'B11',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live',
  slots,
  needsConditions: true,
  counts: 'latest',
  gates: [
    { id: 'inverter-runs', hard: false, waitsFor: 'reconnect', until: 'done', on: 'inverter' },
    { id: 'sensors-in-plane', hard: false, waitsFor: 'sensors', until: 'done', on: 'array' },
  ],
  cautions: [
    { id: 'tees-with-switch-off', hard: true },
    { id: 'clamp-only', hard: false },
  ],
  hookup: {
    drawing: 'operating-clamp',
    leads: [
      { balloon: 1, code: 'clamp-on-string' },
      { balloon: 2, code: 'tees' },
    ],
  },
  minutes: 2,
  sources: ['operating-practice', 'de-soto'],
  inputs: stringInputs,
  judge: judgeOperating,
  working(context, reading) {
    const volts = numberIn(reading, 'voltage')
    const amperes = numberIn(reading, 'current')
    const weather = reading.conditions ? weatherOf(reading.conditions, context.part.data.moduleType.data) : null
    const lines: WorkingLine[] = []
    if (weather) {
      const { irradiance_Wm2, cell } = weather
      lines.push({
        code: 'operating.model',
        figures: { modules: context.part.data.modulesInSeries, irradiance_Wm2, cell_C: cell.value_C },
        result: { value: powerAt(context, irradiance_Wm2, cell.value_C), unit: 'W', decimals: 0 },
        source: 'de-soto',
      })
    }
    if (volts && amperes) {
      lines.push({
        code: 'operating.power',
        figures: { volts: volts.value, amperes: amperes.value },
        result: { value: volts.value * amperes.value, unit: 'W', decimals: 0 },
        source: null,
      })
    }
    const { value, source } = context.regime.limits['pv.operating']
    lines.push({
      code: 'operating.rule',
      figures: {},
      result: { value, unit: 'pct', decimals: 0 },
      source,
      decides: true,
    })
    return lines
  },
  sisterGroup: sisterGroupOf,
  sisterLimit: 'pv.operating',
  example: {
    source: 'computed: 11 modules of 245 W at full light and 25 degC give 2695 W; 330 V and 8.17 A is 2696 W',
    part: exampleString(11),
    reading: {
      slots: { voltage: readValueOf(330, 'V', 0), current: readValueOf(8.17, 'A', 2) },
      conditions: exampleConditions(1000, 25),
    },
    verdict: 'within',
  },
}
