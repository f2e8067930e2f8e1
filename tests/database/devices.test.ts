/**
 * Whatever happens to devices, lines, clocks and sessions: each thing that somebody entered is at the office once, under
 * their name, at its time, or on their device with a reason.
 */
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { pageWindow } from '../support/hands'
import { playDevices } from '../support/playDevices'

const RUNS = Number(process.env.UPSTAND_TEST_RUNS ?? 20)

beforeAll(() => {
  vi.stubGlobal('window', pageWindow)
})
afterAll(() => vi.unstubAllGlobals())

describe('two people, two devices, two tabs on each', () => {
  it('lose nothing, send nothing twice, and nothing under another name', async () => {
    const { doings, play } = playDevices()
    let kept = 0
    await fc.assert(
      fc.asyncProperty(doings, async (list) => {
        kept += await play(list)
      }),
      { numRuns: RUNS, seed: 20261129, endOnFailure: true },
    )
    expect(kept).toBeGreaterThan(RUNS)
  }, 240_000)
})
