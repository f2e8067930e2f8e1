/** A simulated condition logger beside the array: its record as the table that it would hand over. */
import { chance, scatter, seedOf } from './random'
import { sensorReading } from './sensors'

const STEP_ms = 10_000

/**
 * A record every ten seconds, by the logger's own clock.
 *
 * @param ahead_s by how much that clock is ahead, s.
 */
export function loggerFile(
  skySeed: string,
  loggerSeed: string,
  from_ms: number,
  to_ms: number,
  ahead_s: number,
): string {
  const lines = ['time,irradiance (W/m2),module temperature (degC)']
  for (let at = Math.ceil(from_ms / STEP_ms) * STEP_ms; at <= to_ms; at += STEP_ms) {
    const noise = scatter(chance(seedOf(`${loggerSeed}:${at}`)))
    const light = sensorReading('irradiance', skySeed, loggerSeed, at) + noise
    const back = sensorReading('module-back-temperature', skySeed, loggerSeed, at)
    lines.push(`${new Date(at + ahead_s * 1000).toISOString()},${light.toFixed(1)},${back.toFixed(1)}`)
  }
  return `${lines.join('\n')}\n`
}
