import fc from 'fast-check'
import { anyDay } from '../tests/laws/play'
import type { Row } from './run'

/** The laws of the core, played many more times than the tests have time for. */
const RUNS = 20_000

export function lawsBench(): Row[] {
  const start = performance.now()
  const details = fc.check(anyDay, { numRuns: RUNS })
  const seconds = (performance.now() - start) / 1000
  const failed = details.failed
    ? `failed after ${details.numRuns}, seed ${details.seed}: ${details.errorInstance}`
    : 'held'
  return [
    {
      what: `${RUNS} random plants and days`,
      reach: 'every law holds',
      figure: `${failed} (${seconds.toFixed(0)} s)`,
      against: `${((1000 * seconds) / details.numRuns).toFixed(1)} ms a day`,
    },
  ]
}
