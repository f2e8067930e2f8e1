/** Light and warmth of the day as an option of the chart library, with what was read under them. */
import type { SunPoint } from '@/core/evaluation/sunOfDay'
import { figure, quantity, say, sayCode } from '@/words/say'
import type { ChartMark } from '../chart/Chart'
import type { ChartOption } from '../chart/echarts'
import type { ChartFigures } from '../chart/FiguresTable'
import { chartText, tooltipLook } from '../chart/look'
import type { Palette } from '../chart/palette'
import { clockTime } from '../shell/time'
import { inked, ring, shapeOf } from './marks'

const nameOf = ({ step, tag }: SunPoint): string => `${sayCode('step', `${step}.short`)} ${tag}`

/** A reading in one sentence: when, what, in which light and warmth, how it stands. */
export const sunText = (point: SunPoint, timeZone: string): string =>
  say('sun.point', {
    time: clockTime(point.at, timeZone),
    what: nameOf(point),
    light: quantity(point.irradiance_Wm2, 'Wm2', 0),
    warmth: quantity(point.cell_C, 'degC', 1),
    verdict: say(`verdict.${point.verdict}`),
  })

/** From which to which light and warmth everything was read. */
export function sunAbout(points: readonly SunPoint[]): string {
  const light = points.map((one) => one.irradiance_Wm2)
  const warmth = points.map((one) => one.cell_C)
  return say('sun.about', {
    count: points.length,
    light: fromTo(light, 'Wm2', 0),
    warmth: fromTo(warmth, 'degC', 1),
  })
}

/** From the least to the most of figures, and one figure where they are the same as shown. */
function fromTo(figures: readonly number[], unit: 'Wm2' | 'degC', decimals: number): string {
  const least = figure(Math.min(...figures), decimals)
  const most = Math.max(...figures)
  const to = quantity(most, unit, decimals)
  return least === figure(most, decimals) ? to : say('sun.from-to', { least, to })
}

type Extent = { min: number; max: number }
const ROOM_K = 5
const MINUTE_ms = 60_000
/** Readings of one moment stand in the middle of a few minutes. */
const SHORTEST_ms = 6 * MINUTE_ms
const ROOM_OF_SPAN = 0.03
const roomBeside = ({ min, max }: Extent): number =>
  Math.max((max - min) * ROOM_OF_SPAN, (SHORTEST_ms - (max - min)) / 2)

/** So many moments tell a day; of a field of strings every so manieth is drawn, and the own ones all. */
const MOST_DRAWN = 150

export function drawnOf(points: readonly SunPoint[]): readonly SunPoint[] {
  const every = Math.ceil(points.length / MOST_DRAWN)
  return every === 1 ? points : points.filter((one, k) => one.isOwn || k % every === 0 || k === points.length - 1)
}

/** @param points that are drawn: all of them, or of a field of strings a share. */
export function sunOption(points: readonly SunPoint[], timeZone: string, palette: Palette): ChartOption {
  const text = chartText(palette)
  const path = (data: unknown[], yAxisIndex: number, style: object): object => ({
    type: 'line',
    yAxisIndex,
    showSymbol: false,
    silent: true,
    lineStyle: style,
    data,
  })
  const axis = (name: string, position: 'left' | 'right', isSplit: boolean): object => ({
    type: 'value',
    name,
    position,
    // Warmth that stands still looks still: some kelvin of room on both sides.
    min: position === 'left' ? 0 : ({ min }: Extent) => Math.floor(min - ROOM_K),
    max: position === 'left' ? undefined : ({ max }: Extent) => Math.ceil(max + ROOM_K),
    minInterval: 1,
    nameTextStyle: { ...text, align: position === 'left' ? 'left' : 'right' },
    axisLabel: { ...text, formatter: (value: number) => figure(value, 0) },
    splitNumber: 3,
    splitLine: { show: isSplit, lineStyle: { color: palette.hair } },
  })
  return {
    animation: false,
    textStyle: text,
    grid: { left: 44, right: 34, top: 30, bottom: 28 },
    tooltip: { trigger: 'item', ...tooltipLook(palette), formatter: ({ name }: { name: string }) => name },
    dataZoom: [{ type: 'inside', filterMode: 'none' }],
    xAxis: {
      type: 'time',
      min: (extent: Extent) => extent.min - roomBeside(extent),
      max: (extent: Extent) => extent.max + roomBeside(extent),
      minInterval: MINUTE_ms,
      axisLine: { lineStyle: { color: palette.ink } },
      axisLabel: { ...text, hideOverlap: true, formatter: (at: number) => clockTime(at, timeZone) },
      splitLine: { show: false },
    },
    yAxis: [axis('W/m²', 'left', true), axis('°C', 'right', false)],
    series: [
      {
        type: 'scatter',
        z: 3,
        data: points.map((one) => ({
          value: [one.at, one.irradiance_Wm2],
          name: sunText(one, timeZone),
          symbol: one.isOwn ? shapeOf(one.verdict) : 'circle',
          symbolSize: one.isOwn ? 15 : 10,
          itemStyle: one.isOwn ? inked(one.verdict, palette) : ring(palette),
        })),
      },
      path(
        points.map((one) => [one.at, one.irradiance_Wm2]),
        0,
        { color: palette.ink, width: 2 },
      ),
      path(
        points.map((one) => [one.at, one.cell_C]),
        1,
        { color: palette.pencil, width: 1.6, type: [11, 3, 2.5, 3] },
      ),
    ],
  }
}

export const sunMarks = (points: readonly SunPoint[], timeZone: string): ChartMark[] =>
  points.map((one, index) => ({ series: 0, index, says: sunText(one, timeZone) }))

export const sunFigures = (points: readonly SunPoint[], timeZone: string): ChartFigures => ({
  columns: [
    say('sun.column-time'),
    say('sun.column-test'),
    say('sun.column-light'),
    say('sun.column-warmth'),
    say('picture.column-verdict'),
  ],
  rows: points.map((one) => [
    clockTime(one.at, timeZone),
    nameOf(one),
    quantity(one.irradiance_Wm2, 'Wm2', 0),
    quantity(one.cell_C, 'degC', 1),
    say(`verdict.${one.verdict}`),
  ]),
})
