import type { ModuleData } from '../pv/moduleData'
import type { SingleDiode } from '../pv/singleDiode'
import type { CurvePoint } from './points'

/** What is known of a string and of the moment of its sweep; uncertainties with k = 2. */
export type CurveQuestion = {
  points: readonly CurvePoint[]
  /** One module at standard test conditions. */
  parameters: SingleDiode
  module: ModuleData
  modulesInSeries: number
  /** Strings that were swept together; one where nobody says otherwise. */
  stringsInParallel?: number
  irradiance_Wm2: number
  irradianceUncertainty_Wm2: number
  cellTemperature_C: number
  cellTemperatureUncertainty_K: number
  /** What the instrument's volts and amperes may each be off by, per cent. */
  instrument_pct: number
}
