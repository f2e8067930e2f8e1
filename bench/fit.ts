import { fitDeSoto } from '@/core/pv/deSoto'
import { currentAt, openCircuitVoltage } from '@/core/pv/singleDiode'
import { exampleModule } from '@/core/steps/worked'
import { time, written } from './measure'
import type { Row } from './run'

const POINTS = 500

/** Fit and curve; the curve against plain bisection of the same equation to the same precision. */
export function fitBench(): Row[] {
  const fit = fitDeSoto(exampleModule)
  if (fit.state !== 'fitted') throw new Error('fitBench: the example module has a solution')
  const d = fit.parameters
  const voc = openCircuitVoltage(d)
  const voltages = Array.from({ length: POINTS }, (_, k) => (voc * k) / (POINTS - 1))
  const bisected = (voltage: number): number => {
    let low = -1
    let high = d.photocurrent_A + 1
    for (let k = 0; k < 60; k++) {
      const current = (low + high) / 2
      const u = voltage + current * d.seriesResistance_ohm
      const right =
        d.photocurrent_A - d.saturationCurrent_A * Math.expm1(u / d.modifiedIdeality_V) - u / d.shuntResistance_ohm
      if (right > current) low = current
      else high = current
    }
    return (low + high) / 2
  }
  const newton = time(() => voltages.map((voltage) => currentAt(d, voltage)), 30)
  const plain = time(() => voltages.map(bisected), 30)
  return [
    {
      what: 'fit of a data plate (De Soto)',
      reach: '',
      figure: written(time(() => fitDeSoto(exampleModule), 15)),
      against: `one curve of ${POINTS} points: ${written(newton)}`,
    },
    {
      what: `single-diode curve, ${POINTS} points`,
      reach: '',
      figure: written(newton),
      against: `bisection of the same equation: ${written(plain)}, ratio ${(newton.median / plain.median).toFixed(2)}`,
    },
  ]
}
