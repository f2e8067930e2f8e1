/** What was read with the potential spike in each of its places, as an option of the chart library. */
import type { CustomSeriesRenderItemAPI, CustomSeriesRenderItemParams } from 'echarts'
import type { SpikesPicture } from '@/core/steps/picture'
import { figure, quantity, say } from '@/words/say'
import type { ChartMark } from '../chart/Chart'
import type { ChartOption } from '../chart/echarts'
import type { ChartFigures } from '../chart/FiguresTable'
import { chartText, tooltipLook } from '../chart/look'
import type { Palette } from '../chart/palette'

const CHAIN = [11, 3, 2.5, 3]

/** Where a place lies: in metres from the electrode, else as a share of the way. */
const placeText = ({ distance_m }: SpikesPicture, share: number): string =>
  distance_m === null ? `${figure(share * 100, 0)} %` : quantity(share * distance_m, 'm', 1)
const xOf = ({ distance_m }: SpikesPicture, share: number): number => share * (distance_m ?? 100)

const readOf = (picture: SpikesPicture) =>
  picture.places.flatMap(({ share, read_ohm }) => (read_ohm === null ? [] : [{ share, read_ohm }]))

const pointText = (picture: SpikesPicture, { share, read_ohm }: { share: number; read_ohm: number }): string =>
  say('picture.spike-point', { place: placeText(picture, share), value: quantity(read_ohm, 'ohm', 1) })

/** How far readings may lie from their mean, as a band over the whole way. */
function band(picture: SpikesPicture, mean_ohm: number, palette: Palette): object {
  const half = (mean_ohm * picture.spread_pct) / 200
  return {
    type: 'custom',
    silent: true,
    z: 1,
    data: [[0, mean_ohm]],
    renderItem: (_: CustomSeriesRenderItemParams, api: CustomSeriesRenderItemAPI) => {
      const [left, top] = api.coord([0, mean_ohm + half]) as [number, number]
      const [right, bottom] = api.coord([xOf(picture, 1), mean_ohm - half]) as [number, number]
      const shape = { x: left, y: top, width: right - left, height: bottom - top }
      return { type: 'rect', shape, style: { fill: palette['within-tint'] } }
    },
  }
}

const path = (data: readonly (readonly [number, number])[], style: object): object => ({
  type: 'line',
  showSymbol: false,
  silent: true,
  lineStyle: style,
  data,
})

/** The mean with its band, or even soil and the place at which a curve is read off. */
function references(picture: SpikesPicture, palette: Palette): object[] {
  const { mean_ohm, true_share, even_soil } = picture
  if (mean_ohm === null) return []
  const chain = { color: palette.ink, width: 1.8, type: CHAIN }
  if (true_share === null)
    return [
      band(picture, mean_ohm, palette),
      path(
        [
          [0, mean_ohm],
          [xOf(picture, 1), mean_ohm],
        ],
        chain,
      ),
    ]
  const at = xOf(picture, true_share)
  return [
    path(
      even_soil.map(({ share, read_ohm }) => [xOf(picture, share), read_ohm] as const),
      chain,
    ),
    path(
      [
        [at, 0],
        [at, mean_ohm],
      ],
      { color: palette.pencil, width: 1.6, type: 'dashed' },
    ),
  ]
}

export function spikesOption(picture: SpikesPicture, palette: Palette): ChartOption {
  const text = chartText(palette)
  const read = readOf(picture)
  const most = 1.3 * (Math.max(...read.map((one) => one.read_ohm), picture.mean_ohm ?? 0) || 1)
  return {
    animation: false,
    textStyle: text,
    grid: { left: 48, right: 14, top: 14, bottom: 46 },
    tooltip: { trigger: 'item', ...tooltipLook(palette), formatter: ({ name }: { name: string }) => name },
    xAxis: {
      type: 'value',
      min: 0,
      max: xOf(picture, 1),
      name: `${say('picture.electrode')} – ${say('picture.current-spike')}`,
      nameLocation: 'middle',
      nameGap: 28,
      nameTextStyle: text,
      axisLine: { show: true, lineStyle: { color: palette.ink, width: 2 } },
      axisLabel: {
        ...text,
        hideOverlap: true,
        formatter: (at: number) => (picture.distance_m === null ? `${figure(at, 0)} %` : `${figure(at, 0)} m`),
      },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      min: 0,
      max: most,
      axisLabel: {
        ...text,
        formatter: (ohm: number) => figure(ohm, Number.isInteger(ohm) ? 0 : 1),
        showMaxLabel: false,
      },
      splitNumber: 3,
      splitLine: { lineStyle: { color: palette.hair } },
    },
    series: [
      {
        type: 'scatter',
        symbolSize: 13,
        z: 3,
        itemStyle: { color: palette.ink, opacity: 1 },
        data: read.map((one) => ({ value: [xOf(picture, one.share), one.read_ohm], name: pointText(picture, one) })),
      },
      ...references(picture, palette),
      // Places that wait for their reading stand on the ground.
      {
        type: 'scatter',
        symbol: 'emptyCircle',
        symbolSize: 10,
        itemStyle: { color: palette.pencil, opacity: 1 },
        data: picture.places
          .filter((one) => one.read_ohm === null)
          .map(({ share }) => ({
            value: [xOf(picture, share), 0],
            name: `${placeText(picture, share)}: ${say('picture.not-read')}`,
          })),
      },
    ],
  }
}

export const spikesMarks = (picture: SpikesPicture): ChartMark[] =>
  readOf(picture).map((one, index) => ({ series: 0, index, says: pointText(picture, one) }))

export function spikesFigures(picture: SpikesPicture): ChartFigures {
  const soil = new Map(picture.even_soil.map(({ share, read_ohm }) => [share, read_ohm]))
  const hasSoil = picture.places.some(({ share }) => soil.has(share))
  return {
    columns: [
      say('picture.column-place'),
      say('picture.column-value'),
      ...(hasSoil ? [say('picture.column-even-soil')] : []),
    ],
    rows: picture.places.map(({ share, read_ohm }) => {
      const even = soil.get(share)
      return [
        placeText(picture, share),
        read_ohm === null ? say('picture.not-read') : quantity(read_ohm, 'ohm', 1),
        ...(hasSoil ? [even === undefined ? '' : quantity(even, 'ohm', 1)] : []),
      ]
    }),
  }
}
