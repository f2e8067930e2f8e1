import { describe, expect, it } from 'vitest'
import { gaussian } from '@/standin/random'
import { featuresOf, type CurveFeatures } from './features'
import { inOrder, type CurvePoint } from './points'
import { type CurveModule, ParallelStrings, type StringCurve } from './stringCurve'

const cells = {
  photocurrent_A: 11.2,
  saturationCurrent_A: 4.4e-10,
  seriesResistance_ohm: 0.09,
  shuntResistance_ohm: 140,
  modifiedIdeality_V: 0.56,
  bypass: { kind: 'diode', saturationCurrent_A: 3e-7, slope_V: 0.03 },
} as const
const GROUPS = 33
/** A string whose first groups have less light. */
function string(...lights: number[]): CurveModule[] {
  const groups = Array.from({ length: GROUPS }, (_, k) => ({
    ...cells,
    photocurrent_A: cells.photocurrent_A * (lights[k] ?? 1),
  }))
  return [{ reversed: false, groups }]
}
const shaded = (count: number, light: number): number[] => Array.from({ length: count }, () => light)

function swept(
  modules: CurveModule[],
  { points = 120, noise_A = 0, seed = 1 } = {},
): { truth: StringCurve; points: CurvePoint[] } {
  const array = new ParallelStrings([{ seriesResistance_ohm: 0.2, modules }])
  const truth = array.features()
  const next = gaussian(seed)
  const sweep = Array.from({ length: points }, (_, k): CurvePoint => {
    const voltage = (1.004 * truth.voc_V * k) / (points - 1)
    return [voltage, array.currentAt(voltage) + noise_A * next()]
  })
  return { truth, points: sweep }
}
function found(points: readonly CurvePoint[]): CurveFeatures {
  const features = featuresOf(points)
  if (typeof features === 'string') throw new Error(features)
  return features
}

describe('features of a curve', () => {
  it('without noise are those of the string that it was computed from', () => {
    const { truth, points } = swept(string())
    const { voc_V, isc_A, pmax_W, fillFactor, steps } = found(points)
    expect(Math.abs(voc_V / truth.voc_V - 1)).toBeLessThan(1e-5)
    expect(Math.abs(isc_A / truth.isc_A - 1)).toBeLessThan(1e-5)
    expect(Math.abs(pmax_W / truth.pmax_W - 1)).toBeLessThan(1e-4)
    expect(Math.abs(fillFactor / truth.fillFactor - 1)).toBeLessThan(1e-4)
    expect(steps).toEqual([])
  })

  it('come out of half a per cent of noise within a few tenths of a per cent, and none of them leans', () => {
    const off = Array.from({ length: 60 }, (_, seed) => {
      const { truth, points } = swept(string(), { noise_A: 0.05, seed })
      const { voc_V, isc_A, pmax_W } = found(points)
      return [voc_V / truth.voc_V - 1, isc_A / truth.isc_A - 1, pmax_W / truth.pmax_W - 1].map((one) => 100 * one)
    })
    for (const [k, most] of [0.08, 0.4, 0.35].entries()) {
      const ones = off.map((one) => one[k]!)
      const mean = ones.reduce((sum, one) => sum + one) / ones.length
      const scatter = Math.sqrt(ones.reduce((sum, one) => sum + one ** 2, 0) / ones.length)
      expect(scatter).toBeLessThan(most)
      expect(Math.abs(mean)).toBeLessThan(most / 2)
    }
  })

  it('are the same for points in any order, twice, or in few', () => {
    const { points } = swept(string(...shaded(3, 0.6)))
    expect(found([...points].reverse())).toEqual(found(points))
    expect(found([...points, ...points])).toEqual(found(points))
    const { truth, points: few } = swept(string(), { points: 25 })
    expect(Math.abs(100 * (found(few).voc_V / truth.voc_V - 1))).toBeLessThan(0.2)
  })

  it('name slopes: shunt at short circuit, series resistance at open circuit', () => {
    const { points } = swept(string())
    const { slopeAtIsc_S, slopeAtVoc_ohm } = found(points)
    // 33 shunts of 140 ohm in series; 33 times Rs and a/IL, and the 0.2 ohm of the leads.
    expect(slopeAtIsc_S * GROUPS * 140).toBeCloseTo(1, 2)
    const byHand = GROUPS * (0.09 + 0.56 / 11.2) + 0.2
    expect(Math.abs(slopeAtVoc_ohm / byHand - 1)).toBeLessThan(0.02)
  })
})

describe('ledges of a curve', () => {
  it.each([0, 0.03])('stand where groups in shade give less, with their drop, at %s A of noise', (noise_A) => {
    const { points } = swept(string(...shaded(9, 0.4)), { noise_A })
    const { steps, voc_V } = found(points)
    expect(steps).toHaveLength(1)
    expect(Math.abs(steps[0]!.drop_A / (0.6 * 11.2) - 1)).toBeLessThan(0.04)
    // Nine of 33 groups are held at the lower current.
    expect(Math.round((steps[0]!.width_V / voc_V) * GROUPS)).toBeGreaterThanOrEqual(8)
    expect(Math.round((steps[0]!.width_V / voc_V) * GROUPS)).toBeLessThanOrEqual(11)
  })

  it('are two where two levels of light are', () => {
    const { points } = swept(string(...shaded(2, 0.3), ...shaded(5, 0.7)), { noise_A: 0.03, points: 300 })
    const { steps } = found(points)
    expect(steps.map(({ drop_A }) => Math.round(drop_A * 2) / 2)).toEqual([3.5, 4.5])
    expect(steps[0]!.voltage_V).toBeLessThan(steps[1]!.voltage_V)
  })

  it('are not seen where there is only noise: fewer than 1 in 100 sound curves', () => {
    let wrong = 0
    for (let seed = 0; seed < 300; seed++)
      if (found(swept(string(), { noise_A: 0.04, seed }).points).steps.length > 0) wrong++
    expect(wrong).toBeLessThan(3)
  })
})

describe('points that are no curve', () => {
  const { points } = swept(string())
  it.each([
    ['one point', [[0, 9]], 'too-few-points'],
    ['one voltage', points.map(([, current]) => [30, current]), 'too-few-points'],
    ['no numbers', [...points, [Number.NaN, 2]], 'not-numbers'],
    ['all zero', points.map(() => [0, 0]).map(([, i], k) => [k * 0, i]), 'too-few-points'],
    ['no current at all', points.map(([voltage]) => [voltage, 0]), 'all-zero'],
    ['crossed leads', points.map(([voltage, current]) => [-voltage, current]), 'backwards'],
    ['current the wrong way', points.map(([voltage, current]) => [voltage, -current]), 'backwards'],
    ['half of it', points.slice(0, 60), 'no-open-circuit'],
    ['the other half', points.slice(70), 'no-short-circuit'],
    [
      'the current rising again',
      points.map(([voltage, current], k) => [voltage, k > 60 ? current + 6 : current]),
      'crosses-itself',
    ],
  ])('%s', (_, wrong, why) => {
    expect(featuresOf(wrong as unknown as CurvePoint[])).toBe(why)
  })

  it('at one voltage become their mean', () => {
    expect(
      inOrder([
        [30, 0],
        [0, 9],
        [30, 0.2],
      ]),
    ).toEqual([
      [0, 9],
      [30, 0.1],
    ])
  })
})
