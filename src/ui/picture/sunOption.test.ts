import '@/words/charts'
import { describe, expect, it } from 'vitest'
import type { SunPoint } from '@/core/evaluation/sunOfDay'
import { colours } from '@/look/tokens'
import { init } from '../chart/echarts'
import { drawnOf, sunAbout, sunFigures, sunMarks, sunOption } from './sunOption'

const at = (minute: number): number => Date.UTC(2026, 5, 1, 10, minute)
const point = { step: 'pv-voc', verdict: 'within', isOwn: true, arrayId: null } as const
const points: SunPoint[] = [
  { ...point, at: at(0), irradiance_Wm2: 612, cell_C: 41.2, tag: '1', isOwn: false },
  { ...point, at: at(4), irradiance_Wm2: 655, cell_C: 42.8, tag: '2', verdict: 'close' },
]
const plain = (text: string): string => text.replaceAll('\u00a0', ' ')

describe('light and warmth of the day', () => {
  it('tell each reading with its moment, its light and how it stands', () => {
    const told = [
      '11:00, Voltage 1: 612 W/m², cells at 41.2 °C, Within',
      '11:04, Voltage 2: 655 W/m², cells at 42.8 °C, Close to limit',
    ]
    expect(sunMarks(points, 'Europe/London').map(({ says }) => plain(says))).toEqual(told)
    expect(sunFigures(points, 'Europe/London').rows[1]!.map(plain)).toEqual([
      '11:04',
      'Voltage 2',
      '655 W/m²',
      '42.8 °C',
      'Close to limit',
    ])
    expect(plain(sunAbout(points))).toBe('2 readings in 612 to 655 W/m², cells at 41.2 to 42.8 °C')
  })

  it('of a field of strings are drawn in part, the own ones all, and told in full', () => {
    const field = Array.from({ length: 800 }, (_, k) => ({
      ...points[0]!,
      at: at(k),
      tag: String(k),
      isOwn: k === 401,
    }))
    const drawn = drawnOf(field)
    expect(drawn.length).toBeLessThan(160)
    expect(drawn.map(({ tag }) => tag)).toEqual(expect.arrayContaining(['0', '401', '799']))
    expect(sunFigures(field, 'Europe/London').rows).toHaveLength(800)
    expect(drawnOf(points)).toBe(points)
  })

  it('are drawn as two lines over one time', () => {
    const chart = init(null, null, { renderer: 'svg', ssr: true, width: 360, height: 210 })
    chart.setOption(sunOption(points, 'Europe/London', colours.day))
    const svg = chart.renderToSVGString()
    for (const words of ['W/m²', '°C', '11:02']) expect(svg).toContain(words)
  })
})
