import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bandAround } from '@/core/verdict/compare'
import { niceStep, scaleOf } from './scale'

const rule = (expected: number, measured: number | null) => ({
  unit: 'V' as const,
  scale: 'linear' as const,
  measured: measured === null ? null : { value: measured, bound: 'exact' as const, whisker: 1, text: String(measured) },
  expected: { value: expected, uncertainty: 2 },
  band: bandAround(expected, 5, 20),
  source: 'iec-62446-voltage' as const,
})

describe('the stretch of scale that a rule shows', () => {
  it('keeps limits and expected in the middle 70 %', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 2000, noNaN: true }), (expected) => {
        const { band } = rule(expected, null)
        const scale = scaleOf(rule(expected, null))
        const share = (value: number): number => (value - scale.min) / (scale.max - scale.min)
        expect(share(band.low!)).toBeGreaterThanOrEqual(0.149)
        expect(share(band.high!)).toBeLessThanOrEqual(0.851)
      }),
    )
  })

  it('brings a reading a little off into view', () => {
    expect(scaleOf(rule(400, 370)).min).toBeLessThan(370)
    expect(scaleOf(rule(400, 440)).max).toBeGreaterThan(440)
  })

  it('leaves a reading far off at its end', () => {
    expect(scaleOf(rule(400, 40)).min).toBeGreaterThan(40)
  })

  it('shows the whole way from a reading to a single limit', () => {
    const one = { ...rule(0, 487), expected: null, band: { low: null, high: 1000, closeLow: null, closeHigh: null } }
    const scale = scaleOf(one)
    expect(scale.min).toBeLessThan(487)
    expect(scale.share(487)).toBeGreaterThan(0.05)
    expect(scale.share(1000)).toBeLessThan(0.95)
  })

  it('counts insulation in decades, the limit a third of the way', () => {
    const band = { low: 1, high: null, closeLow: 2, closeHigh: null }
    const scale = scaleOf({ ...rule(0, 900), unit: 'Mohm' as const, scale: 'log' as const, expected: null, band })
    expect(scale.major).toEqual([0.1, 1, 10, 100, 1000])
    expect(scale.share(10) - scale.share(1)).toBeCloseTo(scale.share(1000) - scale.share(100), 9)
    expect(scale.share(0)).toBe(0)
    expect(scale.share(900)).toBeLessThan(1)
  })

  it('counts in ones, twos and fives', () => {
    expect([niceStep(100, 5), niceStep(40, 5), niceStep(0.9, 5)]).toEqual([20, 10, 0.2])
  })
})
