/**
 * A simulated sky: irradiance in plane and air temperature, moving through a day with passing cloud. Its day has no
 * night: it runs from half past nine to half past four and begins again, so that there is always something to measure.
 */
import { chance, seedOf } from './random'

/** The seed of the practice sky: the same for sensors, testers and pages. */
export const PRACTICE_SKY = 'practice-sky'

/** A day of drizzle: dull and even. */
export const DRIZZLE_SKY = 'drizzle'
const DRIZZLE = { light_Wm2: 165, air_C: 9 }
/** Jobs of the demo that stand under it. */
const DRIZZLED: ReadonlySet<string> = new Set(['de300000-0000-7000-8000-0000000003c0'])

/** The sky over a job: stand-ins of one site read one sky. */
export const skyOver = (jobId: string): string => (DRIZZLED.has(jobId) ? DRIZZLE_SKY : PRACTICE_SKY)

export type Sky = { irradiance_Wm2: number; air_C: number; cell_C: number }

const HOUR_ms = 3_600_000
const DAY = { from_h: 9.5, to_h: 16.5 }
const NOON_h = 13
const CLEAR_NOON_Wm2 = 930
/** Clouds come in slots of this length; about one slot in six has one. */
const CLOUD_SLOT_ms = 420_000
const CLOUD_SHARE = 1 / 6

/** Hour of the simulated day at a time in ms since 1970. */
export function skyHour(at_ms: number): number {
  const span_ms = (DAY.to_h - DAY.from_h) * HOUR_ms
  return DAY.from_h + (((at_ms % span_ms) + span_ms) % span_ms) / HOUR_ms
}

/** What the sky really is; sensors read it with their lag and bias. Pure: the same seed and time give the same sky. */
export function skyAt(seed: string, at_ms: number): Sky {
  if (seed === DRIZZLE_SKY) return drizzleAt(at_ms)
  const hour = skyHour(at_ms)
  const clear = CLEAR_NOON_Wm2 * Math.cos(((hour - NOON_h) / 12) * Math.PI) ** 1.2
  const haze = 1 - 0.015 * (1 + Math.sin(at_ms / 97_000)) - 0.008 * (1 + Math.sin(at_ms / 23_000))
  const irradiance_Wm2 = clear * haze * cloudFactor(seed, at_ms)
  const air_C = 14 + 6 * Math.sin(((hour - 9) / 12) * Math.PI) + 0.3 * Math.sin(at_ms / 61_000)
  // Modules warm and cool over minutes: the cell follows the light without the cloud of this moment.
  const steady = clear * haze * (0.6 + 0.4 * cloudFactor(seed, at_ms - 90_000))
  return { irradiance_Wm2, air_C, cell_C: air_C + 0.031 * steady }
}

function drizzleAt(at_ms: number): Sky {
  const irradiance_Wm2 = DRIZZLE.light_Wm2 * (1 + 0.01 * Math.sin(at_ms / 400_000) + 0.004 * Math.sin(at_ms / 47_000))
  const air_C = DRIZZLE.air_C + 0.4 * Math.sin(at_ms / 900_000)
  return { irradiance_Wm2, air_C, cell_C: air_C + 0.031 * irradiance_Wm2 }
}

/** 1 under clear sky, down to 0.3 in the middle of a cloud, with soft edges. */
function cloudFactor(seed: string, at_ms: number): number {
  const slot = Math.floor(at_ms / CLOUD_SLOT_ms)
  const next = chance(seedOf(`${seed}:${slot}`))
  if (next() > CLOUD_SHARE) return 1
  const middle = 0.3 + 0.4 * next()
  const width = 0.06 + 0.08 * next()
  const depth = 0.35 + 0.35 * next()
  const place = (at_ms - slot * CLOUD_SLOT_ms) / CLOUD_SLOT_ms
  return 1 - depth * Math.exp(-(((place - middle) / width) ** 4))
}
