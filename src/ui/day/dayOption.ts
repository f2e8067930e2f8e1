/** Light in the planes and the work laid under it, as an option of the chart library. */
import type { CustomSeriesRenderItemAPI, CustomSeriesRenderItemParams } from 'echarts'
import type { DayPlan, PlaneLight, Shift } from '@/core/evaluation/dayPlan'
import type { SunPoint } from '@/core/evaluation/sunOfDay'
import { figure, quantity, say, sayCode } from '@/words/say'
import type { ChartMark } from '../chart/Chart'
import type { ChartOption } from '../chart/echarts'
import { chartText, tooltipLook } from '../chart/look'
import type { Palette } from '../chart/palette'
import { clockTime } from '../shell/time'
import { stretchText } from './dayWords'

const HOUR_ms = 3_600_000
/** Planes are told apart by their lines, not by colours: a verdict has those. */
const LINES = ['solid', [9, 5], [2, 4], [11, 3, 2.5, 3]] as const
const LANE = 30
const LIGHT_HIGH = 190
/** Two rows of names, for a narrow screen breaks them. */
const TOP = 48
const BETWEEN = 14
const BOTTOM = 30
const LEFT = 92

/** What is drawn: planes with their light, what was read of it, and who does what when. */
export type DayDrawn = {
  planes: readonly PlaneLight[]
  measured: readonly SunPoint[]
  plan: DayPlan
  shift: Shift
  /** Null where the regime does not say. */
  least_Wm2: number | null
}

type Lane = {
  name: string
  bars: { from: number; to: number; text: string; says: string; kind: 'window' | 'light' | 'any' }[]
}

export function lanesOf({ planes, plan, shift }: DayDrawn, timeZone: string): Lane[] {
  const windows = planes.map(({ array, windows }) => ({
    name: say('day.of-plane', { plane: array.data.tag }),
    bars: windows.map(({ from, to }) => ({
      from,
      to,
      text: '',
      says: say('day.window-bar', {
        plane: array.data.tag,
        from: clockTime(from, timeZone),
        to: clockTime(to, timeZone),
      }),
      kind: 'window' as const,
    })),
  }))
  const people = Array.from({ length: shift.people }, (_, person) => ({
    name: say(person === 0 ? 'day.who-1' : 'day.who-2'),
    bars: plan.stretches
      .filter((one) => one.person === person)
      .map((one) => ({
        from: one.from,
        to: one.to,
        text: one.piece.step?.order ?? one.piece.part?.data.tag ?? '',
        says: stretchText(one, timeZone),
        kind: one.piece.arrayId === null ? ('any' as const) : ('light' as const),
      })),
  }))
  return [...windows, ...people]
}

export const dayHeight = ({ planes, shift }: DayDrawn): number =>
  TOP + (planes.length > 0 ? LIGHT_HIGH + BETWEEN : 0) + LANE * (planes.length + shift.people) + BOTTOM

/** From the first light or work to the last, by whole hours. */
export function hoursOf({ planes, shift, measured, plan }: DayDrawn): { from: number; to: number } {
  const lit = planes.flatMap(({ points }) =>
    points.filter(({ irradiance_Wm2 }) => irradiance_Wm2 > 0).map(({ at }) => at),
  )
  const times = [shift.from, shift.to, ...lit, ...measured.map(({ at }) => at), ...plan.stretches.map(({ to }) => to)]
  const least = times.reduce((a, b) => Math.min(a, b))
  const most = times.reduce((a, b) => Math.max(a, b))
  return { from: Math.floor(least / HOUR_ms) * HOUR_ms, to: Math.ceil(most / HOUR_ms) * HOUR_ms }
}

export const measuredText = (one: SunPoint, planes: readonly PlaneLight[], timeZone: string): string =>
  say('day.measured', {
    time: clockTime(one.at, timeZone),
    light: quantity(one.irradiance_Wm2, 'Wm2', 0),
    plane: planes.find(({ array }) => array.id === one.arrayId)?.array.data.tag ?? '?',
    what: `${sayCode('step', `${one.step}.short`)} ${one.tag}`,
  })

export function dayOption(drawn: DayDrawn, timeZone: string, palette: Palette): ChartOption {
  const { planes, measured, least_Wm2 } = drawn
  const text = chartText(palette)
  const lanes = lanesOf(drawn, timeZone)
  const { from, to } = hoursOf(drawn)
  const hasLight = planes.length > 0
  const wanted = least_Wm2 === null ? '' : say('day.wanted', { least: quantity(least_Wm2, 'Wm2', 0) })
  const lanesTop = TOP + (hasLight ? LIGHT_HIGH + BETWEEN : 0)
  const time = (gridIndex: number, isLast: boolean): object => ({
    type: 'time',
    gridIndex,
    min: from,
    max: to,
    axisLine: { lineStyle: { color: palette.ink } },
    axisLabel: { ...text, show: isLast, hideOverlap: true, formatter: (at: number) => clockTime(at, timeZone) },
    axisTick: { show: isLast },
    splitLine: { show: true, lineStyle: { color: palette.hair } },
  })
  return {
    animation: false,
    textStyle: text,
    grid: [
      ...(hasLight ? [{ left: LEFT, right: 18, top: TOP, height: LIGHT_HIGH }] : []),
      { left: LEFT, right: 18, top: lanesTop, height: LANE * lanes.length },
    ],
    dataZoom: [{ type: 'inside', filterMode: 'none', xAxisIndex: hasLight ? [0, 1] : [0] }],
    tooltip: { trigger: 'item', ...tooltipLook(palette), formatter: ({ name }: { name: string }) => name },
    legend: hasLight
      ? {
          top: 0,
          left: LEFT,
          itemWidth: 34,
          textStyle: text,
          inactiveColor: palette.pencil,
          itemStyle: { opacity: 0 },
          data: [...planes.map(({ array }) => array.data.tag), ...(least_Wm2 === null ? [] : [wanted])],
        }
      : undefined,
    xAxis: hasLight ? [time(0, false), time(1, true)] : [time(0, true)],
    yAxis: [
      ...(hasLight
        ? [
            {
              type: 'value',
              gridIndex: 0,
              min: 0,
              // The line of what is wanted is not the edge of the picture.
              max: ({ max }: { max: number }) => Math.ceil((max + 40) / 200) * 200,
              name: 'W/m²',
              nameTextStyle: { ...text, align: 'right' },
              axisLabel: { ...text, formatter: (value: number) => figure(value, 0) },
              interval: 200,
              splitLine: { lineStyle: { color: palette.hair } },
            },
          ]
        : []),
      {
        type: 'category',
        gridIndex: hasLight ? 1 : 0,
        inverse: true,
        data: lanes.map(({ name }) => name),
        axisTick: { show: false },
        axisLine: { lineStyle: { color: palette.ink } },
        axisLabel: { ...text, width: LEFT - 12, overflow: 'truncate' },
      },
    ],
    series: [
      barsSeries(lanes, hasLight ? 1 : 0, palette),
      ...planes.map(({ array, points }, k) => ({
        type: 'line',
        name: array.data.tag,
        silent: true,
        showSymbol: false,
        symbol: 'none',
        lineStyle: { color: palette.ink, width: 2, type: LINES[k % LINES.length] },
        itemStyle: { color: palette.ink },
        data: points.filter(({ at }) => at >= from && at <= to).map((one) => [one.at, Math.round(one.irradiance_Wm2)]),
      })),
      ...(hasLight
        ? [
            {
              type: 'line',
              name: wanted,
              silent: true,
              showSymbol: false,
              symbol: 'none',
              itemStyle: { color: palette.accent },
              lineStyle: { color: palette.accent, width: 1.5 },
              data: [
                [from, least_Wm2],
                [to, least_Wm2],
              ],
            },
            {
              type: 'scatter',
              z: 4,
              symbolSize: 9,
              itemStyle: { color: palette.sheet, borderColor: palette.accent, borderWidth: 2, opacity: 1 },
              data: measured.map((one) => ({
                value: [one.at, one.irradiance_Wm2],
                name: measuredText(one, planes, timeZone),
              })),
            },
          ]
        : []),
    ],
  }
}

/** What was read and who does what, as the cursor goes through it: the bars are the first series. */
export function dayMarks(drawn: DayDrawn, timeZone: string): ChartMark[] {
  const bars = lanesOf(drawn, timeZone).flatMap(({ bars }) => bars)
  return bars.map(({ says }, index) => ({ series: 0, index, says }))
}

/** Room that letters of a bar need, px. */
const LETTER = 8

function barsSeries(lanes: readonly Lane[], axis: number, palette: Palette): object {
  const fills = { window: palette.hair, light: palette.ink, any: palette.well }
  const bars = lanes.flatMap(({ bars }, lane) => bars.map((bar) => ({ ...bar, lane })))
  return {
    type: 'custom',
    xAxisIndex: axis,
    yAxisIndex: axis,
    encode: { x: [0, 1], y: 2 },
    data: bars.map(({ from, to, lane, says }) => ({ value: [from, to, lane], name: says })),
    renderItem: ({ dataIndex }: CustomSeriesRenderItemParams, api: CustomSeriesRenderItemAPI) => {
      const { kind, text } = bars[dataIndex]!
      const [left, middle] = api.coord([api.value(0), api.value(2)]) as [number, number]
      const [right] = api.coord([api.value(1), api.value(2)]) as [number, number]
      const high = kind === 'window' ? 8 : LANE - 8
      const width = Math.max(2, right - left)
      return {
        type: 'group',
        children: [
          {
            type: 'rect',
            shape: { x: left, y: middle - high / 2, width, height: high },
            style: { fill: fills[kind], stroke: palette.ink, lineWidth: kind === 'window' ? 0 : 1 },
          },
          ...(text && width > text.length * LETTER + 4
            ? [
                {
                  type: 'text',
                  style: {
                    x: left + width / 2,
                    y: middle,
                    text,
                    align: 'center',
                    verticalAlign: 'middle',
                    fill: kind === 'light' ? palette.sheet : palette.ink,
                    font: `14px ${chartText(palette).fontFamily}`,
                  },
                },
              ]
            : []),
        ],
      }
    },
  }
}
