/** A figure while it was watched as an option of the chart library: a line a slot, the least as a bar. */
import type { RiseLine, RisePicture } from '@/core/steps/picture'
import { riseFigure } from '@/report/drawing/rise'
import { say, sayCode } from '@/words/say'
import type { ChartMark } from '../chart/Chart'
import type { ChartOption } from '../chart/echarts'
import type { ChartFigures } from '../chart/FiguresTable'
import { chartText, tooltipLook, upFromNothing } from '../chart/look'
import type { Palette } from '../chart/palette'

const pointText = ({ unit }: RisePicture, { slot }: RiseLine, [seconds, value]: readonly [number, number]): string =>
  say('rise.point', { what: sayCode('slot', slot), seconds, value: riseFigure(value, unit) })

/** The second line is dashed: ink alone must tell them apart. */
const styles = ['solid', 'dashed', 'dotted'] as const

export function riseOption(picture: RisePicture, palette: Palette): ChartOption {
  const text = chartText(palette)
  const most = Math.max(...picture.lines.map((line) => line.highest))
  const last_s = Math.max(...picture.lines.map((line) => line.points.at(-1)![0]))
  const isNear = picture.least !== null && picture.least * 3 > most
  return {
    animation: false,
    textStyle: text,
    grid: { left: 52, right: 16, top: 20, bottom: 30 },
    tooltip: { trigger: 'item', ...tooltipLook(palette), formatter: ({ name }: { name: string }) => name },
    dataZoom: [{ type: 'inside', filterMode: 'none' }],
    xAxis: {
      type: 'value',
      min: 0,
      max: last_s,
      axisLine: { lineStyle: { color: palette.ink } },
      axisLabel: { ...text, formatter: (seconds: number) => `${seconds} s`, hideOverlap: true },
      splitLine: { show: false },
    },
    yAxis: upFromNothing(palette),
    series: [
      ...picture.lines.map((line, k) => ({
        type: 'line',
        name: sayCode('slot', line.slot),
        symbol: 'circle',
        symbolSize: 7,
        lineStyle: { color: palette.ink, width: 2, type: styles[k % styles.length] },
        itemStyle: { color: palette.ink },
        data: line.points.map((point) => ({ value: [...point], name: pointText(picture, line, point) })),
      })),
      ...(isNear
        ? [
            {
              type: 'line',
              showSymbol: false,
              silent: true,
              lineStyle: { color: palette.ink, width: 4 },
              data: [
                [0, picture.least],
                [last_s, picture.least],
              ],
            },
          ]
        : []),
    ],
  }
}

export const riseMarks = (picture: RisePicture): ChartMark[] =>
  picture.lines.flatMap((line, series) =>
    line.points.map((point, index) => ({ series, index, says: pointText(picture, line, point) })),
  )

export function riseFigures(picture: RisePicture): ChartFigures {
  return {
    columns: [say('rise.seconds'), ...picture.lines.map((line) => sayCode('slot', line.slot))],
    rows: [...new Set(picture.lines.flatMap((line) => line.points.map(([seconds]) => seconds)))]
      .sort((a, b) => a - b)
      .map((seconds) => [
        String(Math.round(seconds * 10) / 10),
        ...picture.lines.map((line) => {
          const at = line.points.find(([when]) => when === seconds)
          return at ? riseFigure(at[1], picture.unit) : ''
        }),
      ]),
  }
}
