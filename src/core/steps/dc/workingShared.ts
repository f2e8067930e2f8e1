/** Lines of working that the voltage and the current of a string share. */
import { CELL_ABOVE_BACK_K, USUAL_NOCT_C } from '../../pv/cellTemperature'
import type { Weather } from '../../pv/conditions'
import type { Expectation } from '../../pv/expectation'
import type { ModuleData } from '../../pv/moduleData'
import type { Conditions } from '../../record/entry'
import type { InstrumentCopy } from '../../record/instrument'
import type { Limit } from '../../regime/regime'
import type { Band, Compared } from '../../verdict/compare'
import type { WorkingLine } from '../../verdict/working'
import type { Figure } from '../reading'

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
  modules: number
  figure: Figure
  instrument: InstrumentCopy | null
  unit: 'V' | 'A'
  weather: Weather
  expected: Expectation
  limit: Limit
  band: Band
  compared: Compared
  stc: number
}

/** The bracket, the limits, and where a reading stands between them; the limit on its own side decides. */
export function againstExpectation(ask: Comparison): WorkingLine[] {
  const { step, figure, unit, weather, expected, limit, band, compared, stc } = ask
  const { read, span } = figure
  const decimals = unit === 'V' ? 1 : 2
  const isLow = compared.where === 'below' || (compared.where === 'inside' && read.value < expected.value)
  const edge = (side: 'low' | 'high'): WorkingLine => ({
    code: `expectation.${side}`,
    figures: { expected: expected.value, allowed_pct: limit.value, unit, decimals },
    result: { value: band[side]!, unit, decimals },
    source: limit.source,
    ...((side === 'low') === isLow ? { verdict: compared.verdict, decides: true } : {}),
  })
  const lines: WorkingLine[] = [
    {
      code: 'expectation.bracket',
      figures: { light_Wm2: weather.irradianceUncertainty_Wm2, warmth_K: weather.cell.uncertainty_K },
      result: { value: expected.uncertainty, unit, decimals },
      source: 'house-module-spread',
    },
    edge('low'),
    edge('high'),
  ]
  if (read.bound !== 'exact') return lines
  lines.push(
    {
      code: 'expectation.whisker',
      figures: { instrument: ask.instrument?.tag ?? '' },
      result: { value: span.whisker, unit, decimals: decimals + 1 },
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
      figures: { modules: ask.modules },
      result: { value: 100 / ask.modules, unit: 'pct', decimals: 1 },
      source: null,
    })
  }
  return lines
}
