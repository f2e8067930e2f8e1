import { describe, expect, it } from 'vitest'
import type { CurvePoint } from '@/core/curve/points'
import type { CurvePicture } from '@/core/steps/picture'
import type { Palette } from '../chart/palette'
import { balloonsOf, curveMarks, curveOption, pointText } from './curveOption'
import { currentOf, differenceOf } from './curveShape'

const expected: CurvePoint[] = [
  [0, 10],
  [300, 9.8],
  [400, 6],
  [450, 0],
]
const measured: CurvePoint[] = [
  [0, 10],
  [250, 9.8],
  [300, 5],
  [400, 4.8],
  [450, 0],
]
const picture: CurvePicture = {
  kind: 'curve',
  measured,
  expected,
  atStc: { measured: [], expected: [] },
  irradiance_Wm2: 800,
  cell_C: 40,
  voc_V: 450,
  isc_A: 10,
  vmp_V: 250,
  imp_A: 9.8,
  steps: [{ voltage_V: 280, width_V: 150, drop_A: 4.8 }],
  top: { vmp_V: 340, imp_A: 9 },
}
const palette = new Proxy({}, { get: (_, name) => String(name) }) as unknown as Palette
const swept = { at: 'swept', zoom: 'whole' } as const
type Series = { type: string; name?: string; data: unknown[]; lineStyle?: { type?: unknown } }
const seriesOf = (...all: Parameters<typeof curveOption>): Series[] =>
  (curveOption(...all) as unknown as { series: Series[] }).series

describe('a curve as it is drawn', () => {
  it('has a current between its points, and none beyond its ends', () => {
    expect(currentOf(measured, 275)).toBeCloseTo(7.4, 9)
    expect([currentOf(measured, -1), currentOf(measured, 451), currentOf([], 5)]).toEqual([null, null, null])
  })

  it('is held against what is expected in per cent of the short-circuit current', () => {
    const strip = differenceOf(measured, expected)
    expect(Math.max(...strip.map(([, share]) => share))).toBeLessThan(1)
    const [at, deepest] = strip.reduce((most, one) => (one[1] < most[1] ? one : most))
    expect(at).toBeGreaterThan(290)
    expect(at).toBeLessThan(320)
    expect(deepest).toBeLessThan(-40)
    expect(differenceOf(measured, [])).toEqual([])
  })

  it('draws measured in ink, expected as a chain, others thin, what is asked dotted, odd ones by name', () => {
    const others = [
      { tag: '7', points: expected, isOdd: true },
      { tag: 'what if', points: expected, isAsked: true as const },
    ]
    const series = seriesOf(picture, swept, others, palette)
    const named = (name: string): Series => series.find((one) => one.name === name)!
    expect(named('measured').data).toEqual(measured)
    expect(named('expected').lineStyle!.type).toEqual([11, 3, 2.5, 3])
    expect(named('what if').lineStyle!.type).toEqual([2, 4])
    expect(named('odd').data).toMatchObject([{ name: '7' }])
    expect(named('marks').data).toHaveLength(2)
  })

  it('at standard test conditions draws what was carried, without numbers on it', () => {
    const carried = { ...picture, atStc: { measured: expected, expected } }
    const series = seriesOf(carried, { at: 'stc', zoom: 'whole' }, [], palette)
    expect(series.find(({ name }) => name === 'measured')!.data).toEqual(expected)
    expect(series.find(({ name }) => name === 'marks')!.data).toEqual([])
  })

  it('numbers its ledges first, then its highest power', () => {
    expect(balloonsOf(picture).map(({ n, what }) => [n, what])).toEqual([
      [1, 'ledge'],
      [2, 'top'],
    ])
  })

  it('says each of its points to those who go through it by keyboard', () => {
    const marks = curveMarks(picture, swept)
    expect(marks).toHaveLength(measured.length)
    expect(marks[1]!.says.replace(/\s/g, ' ')).toBe('250.0 V: 9.80 A measured, 9.83 A expected, 2450 W')
    expect(pointText(430, [], expected).replace(/\s/g, ' ')).toBe('430.0 V: 2.40 A expected')
  })
})
