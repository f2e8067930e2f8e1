import type { Weather } from '../../pv/conditions'
import type { WorkingLine } from '../../verdict/working'
import type { NumberSlot } from '../slot'

/** What a string gives at so much light on cells so warm (W/m2, degC), in its own unit. */
export type Modelled = (irradiance_Wm2: number, cellTemperature_C: number) => number

/** How a string's reading is judged. */
export type Options = {
  step: 'pv-voc' | 'pv-isc'
  slot: NumberSlot
  unit: 'V' | 'A'
  modelled: Modelled
  /** What makes readings of unlike strings comparable: modules in series for volts, 1 for amperes. */
  per: number
  /** The sum behind the expectation. */
  sum(weather: Weather): WorkingLine[]
}
