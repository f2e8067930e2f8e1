/** Readings of one part over time as an option of the chart library: compared ones joined, others as rings. */
import { spoken } from '@/words/language'
import type { TrendPicture } from '@/core/steps/picture'
import { quantity, say, sayCode } from '@/words/say'
import type { ChartMark } from '../chart/Chart'
import type { ChartOption } from '../chart/echarts'
import type { ChartFigures } from '../chart/FiguresTable'
import { chartText, tooltipLook, upFromNothing } from '../chart/look'
import type { Palette } from '../chart/palette'
import { inked, ring, shapeOf } from './marks'

type Point = TrendPicture['points'][number]
type Told = Pick<TrendPicture, 'unit' | 'decimals'> & { timeZone: string }

const dayOf = (at: number, timeZone: string): string =>
  new Intl.DateTimeFormat(spoken().locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone }).format(at)

/** What was noted beside a reading: soil, rods, another way of setting it up. */
const besideText = ({ note, count, alike }: Point): string[] => [
  ...(note ? [sayCode('choice', note)] : []),
  ...(count === null ? [] : [say('picture.trend-rods', { count })]),
  ...(alike ? [] : [say('picture.trend-set-up')]),
]

/** A reading in one sentence: when, what, how it stands, and what was noted. */
export function pointText(point: Point, { unit, decimals, timeZone }: Told): string {
  const told = say('picture.trend-point', {
    day: dayOf(point.at, timeZone),
    value: quantity(point.value, unit, decimals),
    verdict: say(`verdict.${point.verdict}`),
  })
  return [told, ...besideText(point)].join(', ')
}

/** A figure, and under how many rods it was read. */
const labelOf = ({ value, count }: Point, { unit, decimals }: Told): string =>
  [quantity(value, unit, decimals), ...(count === null ? [] : [say('picture.trend-rods', { count })])].join('\n')

/** A limit far above all readings would flatten them: it is told in words then. */
const ROOM = 3
const isNear = ({ limit, points }: TrendPicture): boolean =>
  limit !== null && limit <= ROOM * Math.max(...points.map((one) => one.value))

export function trendOption(picture: TrendPicture, timeZone: string, palette: Palette): ChartOption {
  const { points, unit, decimals, limit } = picture
  const text = chartText(palette)
  const told: Told = { unit, decimals, timeZone }
  const mark = (one: Point): object => ({
    value: [one.at, one.value],
    name: pointText(one, told),
    symbol: one.alike ? shapeOf(one.verdict) : 'circle',
    itemStyle: one.alike ? inked(one.verdict, palette) : ring(palette),
  })
  const short = new Intl.DateTimeFormat(spoken().locale, { month: 'short', year: '2-digit', timeZone })
  return {
    animation: false,
    textStyle: text,
    grid: { left: 44, right: 16, top: 20, bottom: 30 },
    tooltip: { trigger: 'item', ...tooltipLook(palette), formatter: ({ name }: { name: string }) => name },
    dataZoom: [{ type: 'inside', filterMode: 'none' }],
    xAxis: {
      type: 'time',
      boundaryGap: ['12%', '8%'],
      axisLine: { lineStyle: { color: palette.ink } },
      axisLabel: { ...text, hideOverlap: true, formatter: (at: number) => short.format(at) },
      splitLine: { show: false },
    },
    yAxis: upFromNothing(palette),
    series: [
      {
        type: 'line',
        name: say('picture.column-value'),
        showSymbol: false,
        silent: true,
        lineStyle: { color: palette.ink, width: 2 },
        data: points.filter((one) => one.alike).map((one) => [one.at, one.value]),
      },
      {
        type: 'scatter',
        symbolSize: 15,
        z: 3,
        data: points.map(mark),
        label: {
          show: points.length <= 6,
          position: 'top',
          distance: 4,
          color: palette.ink,
          fontSize: 14,
          formatter: ({ dataIndex }: { dataIndex: number }) => labelOf(points[dataIndex]!, told),
        },
        labelLayout: { hideOverlap: true },
      },
      ...(isNear(picture)
        ? [
            {
              type: 'line',
              showSymbol: false,
              silent: true,
              lineStyle: { color: palette.ink, width: 4 },
              data: [points[0]!, points.at(-1)!].map(({ at }) => [at, limit]),
            },
          ]
        : []),
    ],
  }
}

export const trendMarks = ({ points, unit, decimals }: TrendPicture, timeZone: string): ChartMark[] =>
  points.map((one, index) => ({ series: 1, index, says: pointText(one, { unit, decimals, timeZone }) }))

export function trendFigures({ points, unit, decimals }: TrendPicture, timeZone: string): ChartFigures {
  return {
    columns: [
      say('picture.column-day'),
      say('picture.column-value'),
      say('picture.column-verdict'),
      say('picture.column-note'),
    ],
    rows: points.map((one) => [
      dayOf(one.at, timeZone),
      quantity(one.value, unit, decimals),
      say(`verdict.${one.verdict}`),
      besideText(one).join(', '),
    ]),
  }
}
