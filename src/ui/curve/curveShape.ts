/** What a drawn curve is read off by: the current at a voltage, and how far it lies from another. */
import type { CurvePoint } from '@/core/curve/points'
import type { CurvePicture } from '@/core/steps/picture'

export type CurveView = {
  /** As it was swept, carried to standard test conditions, or as swept among what is expected at other light. */
  at: 'swept' | 'stc' | 'family'
  /** All of it, or the bend alone. */
  zoom: 'whole' | 'knee'
}
/** Another curve on the same chart: a sister, or what somebody asks about. */
export type OtherCurve = {
  tag: string
  points: readonly CurvePoint[]
  isAsked?: true
  /** It is not as it should be: named on the chart. */
  isOdd?: boolean
  /** What a sound string gives at another light. */
  isExpected?: true
}

/** Points of the difference strip. */
const BARS = 44

/** The current of a curve at a voltage, between its points; null beyond its ends. */
export function currentOf(points: readonly CurvePoint[], voltage_V: number): number | null {
  let [low, high] = [0, points.length - 1]
  if (high < 1 || voltage_V < points[0]![0] || voltage_V > points[high]![0]) return null
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (points[middle]![0] <= voltage_V) low = middle
    else high = middle
  }
  const [[v0, i0], [v1, i1]] = [points[low]!, points[high]!]
  return v1 > v0 ? i0 + ((i1 - i0) * (voltage_V - v0)) / (v1 - v0) : i0
}

/** What is drawn in a view: as swept, or carried. */
export const drawnIn = ({ measured, expected, atStc }: CurvePicture, at: CurveView['at']) =>
  at === 'stc' ? atStc : { measured, expected }

/** Measured less expected, in per cent of the short-circuit current, at even voltages. */
export function differenceOf(measured: readonly CurvePoint[], expected: readonly CurvePoint[]): [number, number][] {
  const end = Math.min(measured.at(-1)?.[0] ?? 0, expected.at(-1)?.[0] ?? 0)
  const isc_A = expected[0]?.[1] ?? 0
  if (!(end > 0) || !(isc_A > 0)) return []
  return Array.from({ length: BARS }, (_, k): [number, number] => {
    const voltage = (end * (k + 0.5)) / BARS
    const [is, should] = [currentOf(measured, voltage), currentOf(expected, voltage)]
    return [voltage, is === null || should === null ? 0 : (100 * (is - should)) / isc_A]
  })
}
