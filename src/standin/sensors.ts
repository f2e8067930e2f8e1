/** Sensors which lag and are biased within their class. */
import { chance, scatter, seedOf } from './random'
import { type Sky, skyAt } from './sky'

type Sensor = { bias: number; gain: number; lag_ms: number; noise: number; of(sky: Sky): number }

const LIGHT_CLASS_PCT = 2
const TEMPERATURE_CLASS_K = 1

function sensor(kind: 'irradiance' | 'module-back-temperature' | 'air-temperature', seed: string): Sensor {
  const next = chance(seedOf(`${seed}:${kind}`))
  const off = scatter(next) / 3
  const within = Math.max(-0.8, Math.min(0.8, off))
  if (kind === 'irradiance') {
    return {
      bias: 0,
      gain: 1 + (within * LIGHT_CLASS_PCT) / 100,
      lag_ms: 1500,
      noise: 0.8,
      of: (sky) => sky.irradiance_Wm2,
    }
  }
  const bias = within * TEMPERATURE_CLASS_K
  if (kind === 'air-temperature') return { bias, gain: 1, lag_ms: 20_000, noise: 0.05, of: (sky) => sky.air_C }
  // The back of a module on an open rack is 3 K cooler than its cells in full light (King 2004, from memory).
  return { bias, gain: 1, lag_ms: 15_000, noise: 0.05, of: (sky) => sky.cell_C - (3 * sky.irradiance_Wm2) / 1000 }
}

const LAG_POINTS = 5

/** What a sensor shows at a time, in W/m2 or degC. */
export function sensorReading(
  kind: 'irradiance' | 'module-back-temperature' | 'air-temperature',
  skySeed: string,
  instrumentSeed: string,
  at_ms: number,
): number {
  const own = sensor(kind, instrumentSeed)
  let sum = 0
  let weights = 0
  for (let k = 0; k < LAG_POINTS; k++) {
    const weight = Math.exp(-k)
    sum += weight * own.of(skyAt(skySeed, at_ms - k * own.lag_ms))
    weights += weight
  }
  const noise = own.noise * scatter(chance(seedOf(`${instrumentSeed}:${kind}:${at_ms}`)))
  return (sum / weights) * own.gain + own.bias + noise
}
