import { levenbergMarquardt } from 'ml-levenberg-marquardt'
import { describe, expect, it } from 'vitest'
import { fitDiode } from '@/core/curve/fitDiode'
import type { CurvePoint } from '@/core/curve/points'
import { gaussian } from '@/standin/random'
import { currentAt, openCircuitVoltage, type SingleDiode } from '@/core/pv/singleDiode'

const truth: SingleDiode = {
  photocurrent_A: 9.6,
  saturationCurrent_A: 2.1e-10,
  seriesResistance_ohm: 2.4,
  shuntResistance_ohm: 3900,
  modifiedIdeality_V: 16.5,
}
/** The same five as our fit takes them; scaled, for the general package takes one step for all. */
const diodeOf = ([photo, lnDark, lnIdeality, series, shunt_S]: number[]): SingleDiode => ({
  photocurrent_A: photo!,
  saturationCurrent_A: Math.exp(lnDark!),
  modifiedIdeality_V: Math.exp(lnIdeality!),
  seriesResistance_ohm: series!,
  shuntResistance_ohm: 1000 / shunt_S!,
})

/** Against a general-purpose least-squares package (ml-levenberg-marquardt 5.1.0) on the same model, same points. */
describe('five parameters of a noisy curve', () => {
  it.each([1, 2, 3])('are those that leave the least squares (seed %i)', (seed) => {
    const next = gaussian(seed)
    const voc_V = openCircuitVoltage(truth)
    const points = Array.from({ length: 120 }, (_, k): CurvePoint => {
      const voltage = (voc_V * k) / 119
      return [voltage, currentAt(truth, voltage) + 0.03 * next()]
    })
    const fit = fitDiode(points)
    if (typeof fit === 'string') throw new Error(fit)
    const squares = (of: SingleDiode): number =>
      points.reduce((sum, [voltage, current]) => sum + (current - currentAt(of, voltage)) ** 2, 0)
    const ours = Object.fromEntries(
      Object.keys(truth).map((name) => [name, fit[name as keyof SingleDiode].value]),
    ) as SingleDiode
    const general = levenbergMarquardt(
      { x: points.map(([voltage]) => voltage), y: points.map(([, current]) => current) },
      (five) => (voltage) => currentAt(diodeOf(five), voltage),
      {
        // It begins at the truth: even so it finds nothing lower.
        initialValues: [9.6, Math.log(2.1e-10), Math.log(16.5), 2.4, 1000 / 3900],
        gradientDifference: 1e-6,
        damping: 1e-3,
        maxIterations: 300,
        errorTolerance: 1e-14,
      },
    )
    expect(squares(ours)).toBeLessThanOrEqual(squares(diodeOf(general.parameterValues)) * (1 + 1e-6))
    expect(squares(ours)).toBeLessThan(squares(truth))
    // Both come to the same place, as far as the general one comes.
    expect(ours.seriesResistance_ohm).toBeCloseTo(general.parameterValues[3]!, 1)
    expect(ours.photocurrent_A).toBeCloseTo(general.parameterValues[0]!, 2)
  })
})
