/** Time against current of a device's trips as an option of the chart library: limits as upstands, trips as marks. */
import type { CustomSeriesRenderItemAPI, CustomSeriesRenderItemParams } from 'echarts'
import type { TimedMark, TimesPicture } from '@/core/steps/picture'
import { figure, say } from '@/words/say'
import type { ChartMark } from '../chart/Chart'
import type { ChartOption } from '../chart/echarts'
import type { ChartFigures } from '../chart/FiguresTable'
import { chartText, tooltipLook } from '../chart/look'
import type { Palette } from '../chart/palette'
import { inked, ring, shapeOf } from './marks'

/** Times are told on a scale of decades, from 5 ms to 3 s. */
const SCALE = { least_ms: 5, most_ms: 3000 }
/** Where the marks of a half-wave begin beside the middle of their lane, and on how much room all parts of it stand, px. */
const HALF_px = { 0: -30, 180: 10 } as const
const ROOM_px = 20
const HATCH_px = 8

export const multipleName = (multiple: number): string =>
  `${multiple === 0.5 ? '½' : multiple === 1 ? '' : figure(multiple, 0)} IΔn`.trim()

export const timeText = ({ time_ms, isBound }: Pick<TimedMark, 'time_ms' | 'isBound'>): string =>
  `${isBound ? '>' : ''}${figure(time_ms, isBound ? 0 : 1)} ms`

/** A trip in one sentence. */
export const tripText = (tag: string, trip: TimedMark): string =>
  say('picture.trip', {
    tag,
    multiple: multipleName(trip.multiple),
    half: say(trip.angle_deg === 0 ? 'picture.half-wave-0' : 'picture.half-wave-180'),
    time: timeText(trip),
    verdict: say(`verdict.${trip.verdict}`),
  })

const within = (time_ms: number): number => Math.min(SCALE.most_ms, Math.max(SCALE.least_ms, time_ms))

type Limit = TimesPicture['limits'][number]

/** The series of a part: its trips beside the middle of their lane. */
function trips(
  name: string,
  list: readonly TimedMark[],
  { limits, beside }: TimesPicture,
  palette: Palette,
  twin: number | null,
): object {
  const across = twin === null ? 0 : ((twin + 1) * ROOM_px) / beside.length
  return {
    type: 'scatter',
    name,
    symbolSize: twin === null ? 16 : 12,
    itemStyle: twin === null ? { color: palette.ink, opacity: 1 } : ring(palette),
    data: list.map((trip) => ({
      value: [limits.findIndex((one) => one.multiple === trip.multiple), within(trip.time_ms)],
      name: tripText(name, trip),
      symbol: twin === null ? shapeOf(trip.verdict) : 'circle',
      symbolOffset: [HALF_px[trip.angle_deg] + across, 0],
      itemStyle: twin === null ? inked(trip.verdict, palette) : ring(palette),
      label: {
        show: trip.isBound && twin === null,
        position: 'top',
        distance: 0,
        color: palette.ink,
        fontSize: 14,
        formatter: '>',
      },
    })),
  }
}

type Line = { type: 'line'; shape: { x1: number; y1: number; x2: number; y2: number }; style: object }
const line = (x1: number, y1: number, x2: number, y2: number, style: object): Line => ({
  type: 'line',
  shape: { x1, y1, x2, y2 },
  style,
})

/** Hatching at 45 degrees over what is not allowed. */
function hatched(x: number, y: number, width: number, height: number, palette: Palette): object {
  const lines: Line[] = []
  for (let at = -height; at < width; at += HATCH_px)
    lines.push(line(x + at, y + height, x + at + height, y, { stroke: palette.outside, lineWidth: 1, opacity: 0.55 }))
  return { type: 'group', children: lines, clipPath: { type: 'rect', shape: { x, y, width, height } } }
}

/** One lane: what is not allowed hatched, the limit as a bar with the allowed side free. */
function drawLimit(limit: Limit, lane: number, palette: Palette, api: CustomSeriesRenderItemAPI, top: number): object {
  const half = (api.size!([1, 0]) as number[])[0]! / 2 - 6
  const at = (time_ms: number): { x: number; y: number } => {
    const [x, y] = api.coord([lane, within(time_ms)])
    return { x: x!, y: y! }
  }
  const { x, y: bottom } = at(SCALE.least_ms)
  const bar = (y: number): Line => line(x - half, y, x + half, y, { stroke: palette.ink, lineWidth: 4 })
  const children: object[] = []
  if (limit.least_ms !== null) {
    const { y } = at(limit.least_ms)
    children.push(hatched(x - half, y, 2 * half, bottom - y, palette), bar(y))
  }
  if (limit.most_ms !== null) {
    const { y } = at(limit.most_ms)
    children.push(hatched(x - half, top, 2 * half, y - top, palette), bar(y))
  }
  return { type: 'group', children }
}

/** @param tag of the part that is looked at. */
export function timesOption(picture: TimesPicture, tag: string, palette: Palette): ChartOption {
  const { limits, beside } = picture
  const text = chartText(palette)
  const halves = `${say('picture.half-wave-0')}  ${say('picture.half-wave-180')}`
  return {
    animation: false,
    textStyle: text,
    grid: { left: 46, right: 8, top: beside.length > 0 ? 40 : 16, bottom: 62 },
    legend:
      beside.length > 0
        ? {
            top: 0,
            left: 40,
            itemWidth: 12,
            itemHeight: 12,
            selectedMode: false,
            textStyle: text,
            data: [tag, ...beside.map((one) => one.tag)],
          }
        : { show: false },
    tooltip: {
      trigger: 'item',
      ...tooltipLook(palette),
      formatter: ({ name }: { name: string }) => name,
    },
    xAxis: {
      type: 'category',
      data: limits.map(
        (one) =>
          `${halves}\n${multipleName(one.multiple)}\n${say('picture.current', { current: one.current_mA })}${one.most_ms === null ? `, ${say('picture.wait')}` : ''}`,
      ),
      axisTick: { show: false },
      axisLine: { lineStyle: { color: palette.ink } },
      axisLabel: { ...text, interval: 0, lineHeight: 18 },
    },
    yAxis: {
      type: 'log',
      min: SCALE.least_ms,
      max: SCALE.most_ms,
      axisLabel: { ...text, formatter: (ms: number) => (ms >= 1000 ? `${ms / 1000} s` : `${ms}`) },
      splitLine: { lineStyle: { color: palette.hair } },
    },
    series: [
      {
        type: 'custom',
        name: say('picture.limits'),
        silent: true,
        z: 1,
        data: limits.map((_, lane) => [lane, SCALE.least_ms]),
        renderItem: (params: CustomSeriesRenderItemParams, api: CustomSeriesRenderItemAPI) =>
          drawLimit(
            limits[params.dataIndex]!,
            params.dataIndex,
            palette,
            api,
            (params.coordSys as unknown as { y: number }).y,
          ),
      },
      ...beside.map((one, k) => trips(one.tag, one.trips, picture, palette, k)),
      { ...trips(tag, picture.trips, picture, palette, null), z: 3 },
    ],
  }
}

/** All trips as the arrow keys go through them: by part, then as they were read. */
export function timesMarks({ trips: own, beside }: TimesPicture, tag: string): ChartMark[] {
  const marksOf = (name: string, list: readonly TimedMark[], series: number): ChartMark[] =>
    list.map((trip, index) => ({ series, index, says: tripText(name, trip) }))
  return [...marksOf(tag, own, beside.length + 1), ...beside.flatMap((one, k) => marksOf(one.tag, one.trips, k + 1))]
}

/** The same trips as a table. */
export function timesFigures({ trips: own, beside }: TimesPicture, tag: string): ChartFigures {
  const rowsOf = (name: string, list: readonly TimedMark[]): string[][] =>
    list.map((trip) => [
      name,
      multipleName(trip.multiple),
      say(trip.angle_deg === 0 ? 'picture.half-wave-0' : 'picture.half-wave-180'),
      timeText(trip),
      say(`verdict.${trip.verdict}`),
    ])
  return {
    columns: [
      say('picture.column-device'),
      say('picture.column-current'),
      say('picture.column-half'),
      say('picture.column-time'),
      say('picture.column-verdict'),
    ],
    rows: [...rowsOf(tag, own), ...beside.flatMap((one) => rowsOf(one.tag, one.trips))],
  }
}
