/** Lines of working that the voltage and the current of a string share. */
import { CELL_ABOVE_BACK_K, USUAL_NOCT_C } from '../pv/cellTemperature'
import type { Weather } from '../pv/conditions'
import { expectation } from '../pv/expectation'
import type { ModuleData } from '../pv/moduleData'
import type { ReadValue } from '../quantity/readValue'
import { readingUncertainty } from '../quantity/uncertainty'
import type { Conditions } from '../record/entry'
import type { InstrumentCopy } from '../record/instrument'
import { bandAround } from '../verdict/judge'
import type { WorkingLine } from '../verdict/working'
import type { StepContext } from './step'
import { bandLimit, type Modelled } from './stringReading'

/** How the cell temperature was come by. */
export function cellTemperatureLine(conditions: Conditions, weather: Weather, module: ModuleData): WorkingLine {
  const { cell } = conditions
  const { irradiance_Wm2 } = weather
  const result = { value: weather.cell.value_C, unit: 'degC' as const, decimals: 1 }
  switch (cell.way) {
    case 'back':
      return {
        code: 'cell-temperature.back',
        figures: { back_C: cell.read.value, above_K: CELL_ABOVE_BACK_K[cell.mounting], irradiance_Wm2 },
        result,
        source: 'king-back',
      }
    case 'air':
      return {
        code: 'cell-temperature.air',
        figures: { air_C: cell.read.value, noct_C: module.noct_C ?? USUAL_NOCT_C, irradiance_Wm2 },
        result,
        source: 'rating-plate',
      }
    case 'voltage':
      return {
        code: 'cell-temperature.voltage',
        figures: { voltage_V: cell.read.value, modules: cell.modulesInSeries, irradiance_Wm2 },
        result,
        source: 'iec-60904-5',
      }
  }
}

type Comparison = {
  step: 'pv-voc' | 'pv-isc'
  read: ReadValue | null
  instrument: InstrumentCopy | null
  unit: 'V' | 'A'
  weather: Weather
  modelled: Modelled
  stc: number
}

/** The bracket, the limits, and where a reading stands between them. */
export function againstExpectation(context: StepContext<'string'>, comparison: Comparison): WorkingLine[] {
  const { step, read, unit, weather, modelled, stc } = comparison
  const decimals = unit === 'V' ? 1 : 2
  const expected = expectation(modelled, weather)
  const limit = bandLimit(context.regime, weather)
  const band = bandAround(expected.value, limit.value, context.regime.limits['close.two-sided'].value)
  const lines: WorkingLine[] = [
    {
      code: 'expectation.bracket',
      figures: { light_Wm2: weather.irradianceUncertainty_Wm2, warmth_K: weather.cell.uncertainty_K },
      result: { value: expected.uncertainty, unit, decimals },
      source: 'house-module-spread',
    },
    {
      code: 'expectation.low',
      figures: { expected: expected.value, allowed_pct: limit.value, unit, decimals },
      result: { value: band.low!, unit, decimals },
      source: limit.source,
    },
    {
      code: 'expectation.high',
      figures: { expected: expected.value, allowed_pct: limit.value, unit, decimals },
      result: { value: band.high!, unit, decimals },
      source: limit.source,
    },
  ]
  if (read?.bound !== 'exact') return lines
  const { modulesInSeries } = context.part.data
  lines.push(
    {
      code: 'expectation.whisker',
      figures: { instrument: comparison.instrument?.tag ?? '' },
      result: {
        value: readingUncertainty(read, comparison.instrument?.accuracy ?? null),
        unit,
        decimals: decimals + 1,
      },
      source: null,
    },
    {
      code: 'expectation.gap',
      figures: { read: read.value, expected: expected.value, decimals },
      result: { value: 100 * (read.value / expected.value - 1), unit: 'pct', decimals: 1, signed: true },
      source: null,
    },
    {
      code: 'expectation.referred',
      figures: { read: read.value, stc, expected: expected.value, decimals },
      result: { value: (read.value * stc) / expected.value, unit, decimals },
      source: null,
    },
  )
  if (step === 'pv-voc') {
    lines.push({
      code: 'pv-voc.one-module',
      figures: { modules: modulesInSeries },
      result: { value: 100 / modulesInSeries, unit: 'pct', decimals: 1 },
      source: null,
    })
  }
  return lines
}
