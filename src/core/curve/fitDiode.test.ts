import { describe, expect, it } from 'vitest'
import { currentAt, openCircuitVoltage, type SingleDiode } from '../pv/singleDiode'
import { gaussian } from '@/standin/random'
import { type DiodeFit, fitDiode, type Interval } from './fitDiode'
import type { CurvePoint } from './points'
import { studentQuantile } from './student'

const truth: SingleDiode = {
  photocurrent_A: 9.6,
  saturationCurrent_A: 2.1e-10,
  seriesResistance_ohm: 2.4,
  shuntResistance_ohm: 3900,
  modifiedIdeality_V: 16.5,
}
const names = Object.keys(truth) as (keyof SingleDiode)[]

function points(noise_A = 0, seed = 1, of = truth, count = 200): CurvePoint[] {
  const next = gaussian(seed)
  const voc_V = openCircuitVoltage(of)
  return Array.from({ length: count }, (_, k): CurvePoint => {
    const voltage = (1.002 * voc_V * k) / (count - 1)
    return [voltage, currentAt(of, voltage) + noise_A * next()]
  })
}
function fitted(of: CurvePoint[], sigma_A: number | null = null): DiodeFit {
  const fit = fitDiode(of, sigma_A)
  if (typeof fit === 'string') throw new Error(fit)
  return fit
}
const holds = ({ low, high }: Interval, value: number): boolean => low <= value && (high === null || value <= high)

describe('five parameters of a measured curve', () => {
  it('come back out of a curve that was computed from them', () => {
    const fit = fitted(points())
    for (const name of names) expect(fit[name].value / truth[name]).toBeCloseTo(1, 6)
    expect(fit.rms_A).toBeLessThan(1e-9)
  })

  it('lie in their stated 95 % intervals in 93 to 97 of 100 curves', () => {
    const RUNS = 1000
    const inside = Object.fromEntries(names.map((name) => [name, 0])) as Record<keyof SingleDiode, number>
    for (let seed = 0; seed < RUNS; seed++) {
      const fit = fitted(points(0.04, seed))
      for (const name of names) if (holds(fit[name], truth[name])) inside[name]++
    }
    for (const name of names) {
      expect(inside[name], name).toBeGreaterThanOrEqual(0.93 * RUNS)
      expect(inside[name], name).toBeLessThanOrEqual(0.97 * RUNS)
    }
  }, 60_000)

  it('have intervals of the scatter that was named, where one was', () => {
    const of = points(0.04)
    const [once, twice] = [fitted(of, 0.04), fitted(of, 0.08)]
    const width = ({ low, high }: Interval): number => high! - low
    expect(width(twice.seriesResistance_ohm) / width(once.seriesResistance_ohm)).toBeCloseTo(2, 6)
    expect(twice.photocurrent_A.value).toBe(once.photocurrent_A.value)
  })

  it('say so where no shunt is seen, and never name a resistance below nothing', () => {
    const weak = { ...truth, shuntResistance_ohm: 1e7, seriesResistance_ohm: 0.01 }
    const fits = Array.from({ length: 20 }, (_, seed) => fitted(points(0.05, seed, weak)))
    expect(fits.filter(({ shuntResistance_ohm }) => shuntResistance_ohm.high === null).length).toBeGreaterThan(15)
    for (const { shuntResistance_ohm, seriesResistance_ohm } of fits) {
      expect(shuntResistance_ohm.low).toBeGreaterThan(1000)
      expect(seriesResistance_ohm.low).toBeGreaterThanOrEqual(0)
    }
  })

  it('want eight points', () => {
    expect(fitDiode(points(0, 1, truth, 7))).toBe('too-few-points')
    expect(typeof fitDiode(points(0, 1, truth, 12))).toBe('object')
  })
})

describe('Student’s t, two-sided 95 %', () => {
  // Printed in every table of the distribution, from memory.
  it.each([
    [5, 2.571],
    [10, 2.228],
    [30, 2.042],
    [120, 1.98],
    [Number.POSITIVE_INFINITY, 1.96],
  ])('for %s degrees of freedom is %s', (freedom, table) => {
    expect(studentQuantile(freedom)).toBeCloseTo(table, 2)
  })
})
