/** A measured curve over the expected one as an option of the chart library: current, power, what is lost, difference. */
import '@/words/curve'
import type { CustomSeriesRenderItemAPI } from 'echarts'
import type { CurvePoint } from '@/core/curve/points'
import type { CurvePicture } from '@/core/steps/picture'
import { figure, say } from '@/words/say'
import type { ChartMark } from '../chart/Chart'
import type { ChartOption } from '../chart/echarts'
import { chartText, tooltipLook } from '../chart/look'
import type { Palette } from '../chart/palette'
import { currentOf, type CurveView, differenceOf, drawnIn, type OtherCurve } from './curveShape'
import { drawLost } from './lostCurrent'

const CHAIN = [11, 3, 2.5, 3]
const DOTS = [2, 4]
const KNEE_FROM = 0.62
/** A difference beyond this share of the short-circuit current is drawn as one. */
const STANDS_OUT_pct = 3

const powerOf = (points: readonly CurvePoint[]): (readonly [number, number])[] =>
  points.map(([voltage, current]) => [voltage, (voltage * current) / 1000])

/** The highest voltage, current and power of all that is drawn. */
function reachOf(lists: readonly (readonly CurvePoint[])[]): { volts: number; amperes: number; kilowatts: number } {
  let [volts, amperes, kilowatts] = [1, 0.1, 0.01]
  for (const [voltage, current] of lists.flat()) {
    volts = Math.max(volts, voltage)
    amperes = Math.max(amperes, current)
    kilowatts = Math.max(kilowatts, (voltage * current) / 1000)
  }
  return { volts, amperes, kilowatts }
}

/** The next round figure above a value. */
function roundUp(value: number): number {
  const decade = 10 ** Math.floor(Math.log10(value))
  const step = value < 2 * decade ? decade / 5 : value < 5 * decade ? decade / 2 : decade
  return Math.ceil((value * 1.02) / step) * step
}

type Drawn = { measured: readonly CurvePoint[]; expected: readonly CurvePoint[] }

function lineSeries(
  name: string,
  data: readonly (readonly [number, number])[],
  line: { color: string; [more: string]: unknown },
  more: object = {},
): object {
  const { color } = line
  return { type: 'line', name, data, symbol: 'none', itemStyle: { color }, lineStyle: line, silent: true, ...more }
}

function seriesOf(
  { measured, expected }: Drawn,
  picture: CurvePicture,
  view: CurveView,
  others: readonly OtherCurve[],
  palette: Palette,
): object[] {
  const ink = { color: palette.ink, width: 3 }
  const chain = { color: palette.ink2, width: 2, type: CHAIN }
  const lost = {
    type: 'custom',
    name: say('curve.lost'),
    silent: true,
    z: 1,
    data: expected.length > 1 && measured.length > 1 ? [[0, 0]] : [],
    renderItem: (_: unknown, api: CustomSeriesRenderItemAPI) => drawLost(measured, expected, api, palette),
  }
  const marks = view.at !== 'swept' || picture.vmp_V === 0 ? [] : balloonsOf(picture)
  return [
    {
      type: 'line',
      name: say('curve.measured'),
      data: measured,
      z: 4,
      symbol: 'circle',
      symbolSize: 5,
      showSymbol: measured.length <= 160,
      itemStyle: { color: palette.sheet, borderColor: palette.ink, borderWidth: 1.5 },
      lineStyle: ink,
    },
    lineSeries(say('curve.expected'), expected, chain, { z: 3 }),
    lost,
    ...others.map(({ tag, points, isAsked, isExpected }) =>
      lineSeries(
        tag,
        points,
        isAsked
          ? { color: palette.accent, width: 2.5, type: DOTS }
          : { color: palette.pencil, width: 1, ...(isExpected ? { type: CHAIN } : {}) },
        { z: isAsked ? 5 : 2 },
      ),
    ),
    lineSeries(say('curve.power'), powerOf(measured), { color: palette.ink, width: 1.5 }, { yAxisIndex: 1, z: 3 }),
    lineSeries('', powerOf(expected), { ...chain, width: 1 }, { yAxisIndex: 1, z: 2 }),
    {
      type: 'scatter',
      name: 'odd',
      silent: true,
      z: 5,
      symbolSize: 6,
      itemStyle: { color: palette.outside },
      data: others.filter(({ isOdd }) => isOdd).flatMap(namedPlace),
      label: { show: true, formatter: '{b}', position: 'right', color: palette.ink, fontSize: 14, fontWeight: 640 },
    },
    {
      type: 'scatter',
      name: 'lights',
      silent: true,
      z: 5,
      symbolSize: 1,
      data: others.filter(({ isExpected }) => isExpected).flatMap(lightPlace),
      label: { show: true, formatter: '{b}', position: 'top', distance: 2, color: palette.ink2, fontSize: 14 },
    },
    {
      type: 'scatter',
      name: 'marks',
      silent: true,
      z: 6,
      symbolSize: 22,
      data: marks.map(({ n, voltage_V, current_A, offset }) => ({
        value: [voltage_V, current_A],
        symbolOffset: offset,
        label: { show: true, formatter: String(n), color: palette.ink, fontSize: 14, fontWeight: 640 },
      })),
      itemStyle: { color: palette.sheet, borderColor: palette.ink, borderWidth: 2, opacity: 1 },
    },
    {
      type: 'bar',
      name: say('curve.difference'),
      xAxisIndex: 1,
      yAxisIndex: 2,
      barWidth: 5,
      silent: true,
      data: differenceOf(measured, expected).map(([voltage, share]) => ({
        value: [voltage, share],
        itemStyle: { color: share < -STANDS_OUT_pct ? palette.outside : palette.ink2 },
      })),
    },
  ]
}

/** The names of odd sisters stand where their current has come down to this share. */
const NAMED_AT = 0.55

function namedPlace({ tag, points }: OtherCurve): { value: CurvePoint; name: string } | [] {
  const isc_A = points[0]?.[1] ?? 0
  const at = points.find(([voltage, current]) => voltage > 0 && current <= NAMED_AT * isc_A)
  return at ? { value: at, name: tag } : []
}

/** Curves of other light are named where they are flat. */
const LIGHT_AT = 0.12

function lightPlace({ tag, points }: OtherCurve): { value: CurvePoint; name: string } | [] {
  const end_V = points.at(-1)?.[0] ?? 0
  const at = points.find(([voltage]) => voltage >= LIGHT_AT * end_V)
  return at ? { value: at, name: tag } : []
}

export type Balloon = {
  n: number
  what: 'ledge' | 'top'
  voltage_V: number
  current_A: number
  offset: [number, number]
}

/** Numbered places on the curve: ledges first, then the highest power. */
export function balloonsOf({ steps, measured, vmp_V, imp_A }: CurvePicture): Balloon[] {
  const ledges = steps.map((step, k): Balloon => {
    const voltage_V = step.voltage_V + step.width_V * 0.35
    return { n: k + 1, what: 'ledge', voltage_V, current_A: currentOf(measured, voltage_V) ?? 0, offset: [0, 26] }
  })
  return [...ledges, { n: steps.length + 1, what: 'top', voltage_V: vmp_V, current_A: imp_A, offset: [-6, -26] }]
}

export function curveOption(
  picture: CurvePicture,
  view: CurveView,
  others: readonly OtherCurve[],
  palette: Palette,
): ChartOption {
  const drawn = drawnIn(picture, view.at)
  const reach = reachOf([drawn.measured, drawn.expected, ...others.map(({ points }) => points)])
  const text = chartText(palette)
  const most_V = Math.ceil((reach.volts * 1.01) / 10) * 10
  const from_V = view.zoom === 'knee' ? Math.floor((KNEE_FROM * reach.volts) / 10) * 10 : 0
  const line = { lineStyle: { color: palette.ink } }
  const split = { show: true, lineStyle: { color: palette.hair } }
  const names = [
    say('curve.measured'),
    say('curve.expected'),
    ...others.filter(({ isAsked }) => isAsked).map((one) => one.tag),
  ]
  return {
    animation: false,
    textStyle: text,
    legend: { top: 0, left: 36, itemWidth: 34, itemHeight: 12, selectedMode: false, textStyle: text, data: names },
    grid: [
      { left: 44, right: 46, top: 38, bottom: 104 },
      { left: 44, right: 46, height: 46, bottom: 22 },
    ],
    tooltip: {
      trigger: 'axis',
      ...tooltipLook(palette),
      formatter: (params: unknown) => cursorText(params, drawn),
    },
    axisPointer: { link: [{ xAxisIndex: 'all' }], lineStyle: { color: palette.accent } },
    dataZoom: [
      { type: 'inside', xAxisIndex: [0, 1], zoomOnMouseWheel: 'ctrl', moveOnMouseWheel: false, filterMode: 'none' },
    ],
    xAxis: [
      {
        type: 'value',
        min: from_V,
        max: most_V,
        axisLine: line,
        splitLine: split,
        axisLabel: { ...text, formatter: (volts: number) => `${volts} V`, hideOverlap: true },
      },
      { type: 'value', gridIndex: 1, min: from_V, max: most_V, show: false },
    ],
    yAxis: [
      {
        type: 'value',
        min: 0,
        max: roundUp(reach.amperes),
        axisLine: { show: true, ...line },
        splitLine: split,
        name: 'A',
        nameTextStyle: { ...text, align: 'right', padding: [0, 14, -4, 0] },
        nameGap: 10,
        axisLabel: { ...text, showMaxLabel: false },
      },
      {
        type: 'value',
        min: 0,
        // Power is kept under the current: its top comes to two thirds of the height.
        max: roundUp(1.5 * reach.kilowatts),
        axisLine: { show: true, ...line },
        splitLine: { show: false },
        name: 'kW',
        nameGap: 10,
        nameTextStyle: { ...text, align: 'left', padding: [0, 0, -4, 14] },
        axisLabel: {
          ...text,
          showMaxLabel: false,
          formatter: (kW: number) => figure(kW, kW < 10 && kW % 1 !== 0 ? 1 : 0),
        },
      },
      {
        type: 'value',
        gridIndex: 1,
        min: ({ min }: { min: number }) => Math.min(-10, Math.floor(min / 10) * 10),
        max: ({ max }: { max: number }) => Math.max(10, Math.ceil(max / 10) * 10),
        interval: 1000,
        name: say('curve.difference'),
        nameGap: 4,
        nameTextStyle: { ...text, align: 'left' },
        axisLabel: { ...text, formatter: (share: number) => figure(share, 0) },
        axisLine: { show: true, ...line },
        splitLine: { show: false },
      },
    ],
    series: seriesOf(drawn, picture, view, others, palette),
  }
}

type Under = { seriesIndex?: number; value?: [number, number]; axisValue?: number }

/** What lies under the cursor, in words. */
function cursorText(params: unknown, { measured, expected }: Drawn): string {
  const [first] = (Array.isArray(params) ? params : [params]) as Under[]
  const voltage = first?.axisValue ?? first?.value?.[0]
  return voltage === undefined ? '' : pointText(voltage, measured, expected)
}

/** A place of the curve in one sentence. */
export function pointText(voltage_V: number, measured: readonly CurvePoint[], expected: readonly CurvePoint[]): string {
  const current = currentOf(measured, voltage_V)
  const should = currentOf(expected, voltage_V)
  const figures = { voltage_V, current_A: current ?? 0, power_W: voltage_V * (current ?? 0), expected_A: should ?? 0 }
  if (current === null) return say('curve.cursor-expected', figures)
  return say(should === null ? 'curve.cursor-measured' : 'curve.cursor', figures)
}

/** Every point as the arrow keys go through them. */
export function curveMarks(picture: CurvePicture, view: CurveView): ChartMark[] {
  const { measured, expected } = drawnIn(picture, view.at)
  return measured.map(([voltage], index) => ({ series: 0, index, says: pointText(voltage, measured, expected) }))
}
