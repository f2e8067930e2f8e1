/** Five parameters of a measured curve: against a general-purpose least-squares package, and how well their intervals hold. */
import { levenbergMarquardt } from 'ml-levenberg-marquardt'
import { fitDiode } from '@/core/curve/fitDiode'
import type { CurvePoint } from '@/core/curve/points'
import { currentAt, openCircuitVoltage, type SingleDiode } from '@/core/pv/singleDiode'
import { gaussian } from '@/standin/random'
import { time, written } from './measure'
import type { Row } from './run'

const POINTS = 200
const NOISE_A = 0.04
const SEEDS = 1000
const truth: SingleDiode = {
  photocurrent_A: 9.6,
  saturationCurrent_A: 2.1e-10,
  seriesResistance_ohm: 2.4,
  shuntResistance_ohm: 3900,
  modifiedIdeality_V: 16.5,
}

function noisy(seed: number): CurvePoint[] {
  const next = gaussian(seed)
  const voc_V = openCircuitVoltage(truth)
  return Array.from({ length: POINTS }, (_, k): CurvePoint => {
    const voltage = (1.002 * voc_V * k) / (POINTS - 1)
    return [voltage, currentAt(truth, voltage) + NOISE_A * next()]
  })
}

/** The general package on the same model, from the truth itself, to where it gains nothing more. */
function general(points: readonly CurvePoint[]): unknown {
  return levenbergMarquardt(
    { x: points.map(([voltage]) => voltage), y: points.map(([, current]) => current) },
    ([photo, lnDark, lnIdeality, series, shunt]) =>
      (voltage) =>
        currentAt(
          {
            photocurrent_A: photo!,
            saturationCurrent_A: Math.exp(lnDark!),
            modifiedIdeality_V: Math.exp(lnIdeality!),
            seriesResistance_ohm: series!,
            shuntResistance_ohm: 1000 / shunt!,
          },
          voltage,
        ),
    {
      initialValues: [9.6, Math.log(2.1e-10), Math.log(16.5), 2.4, 1000 / 3900],
      gradientDifference: 1e-6,
      damping: 1e-3,
      maxIterations: 60,
      errorTolerance: 1e-14,
    },
  )
}

/** How many of a thousand stated intervals hold the truth, for each parameter. */
function coverage(): string {
  const names = Object.keys(truth) as (keyof SingleDiode)[]
  const inside = names.map(() => 0)
  for (let seed = 0; seed < SEEDS; seed++) {
    const fit = fitDiode(noisy(seed))
    if (typeof fit === 'string') throw new Error(fit)
    names.forEach((name, k) => {
      const { low, high } = fit[name]
      if (low <= truth[name] && (high === null || truth[name] <= high)) inside[k]!++
    })
  }
  return inside.map((count) => `${((100 * count) / SEEDS).toFixed(1)} %`).join(', ')
}

export function curveFitBench(): Row[] {
  const points = noisy(1)
  const ours = time(() => fitDiode(points), 51, 10)
  const theirs = time(() => general(points), 5, 1)
  return [
    {
      what: `five parameters of ${POINTS} noisy points`,
      reach: 'under 25 ms, 5 times faster',
      figure: written(ours),
      against: `a general least-squares package on the same model: ${written(theirs)}, ${(theirs.median / ours.median).toFixed(0)} times`,
    },
    {
      what: `95 % intervals of IL, I0, Rs, Rsh, a that hold the truth, of ${SEEDS}`,
      reach: '93 to 97 % each',
      figure: coverage(),
      against: 'the truth that the points were made from',
    },
  ]
}
