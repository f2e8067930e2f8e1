import type { CustomSeriesRenderItemAPI } from 'echarts'
import type { CurvePoint } from '@/core/curve/points'
import type { Palette } from '../chart/palette'
import { currentOf } from './curveShape'

const HATCH_px = 8

/** Hatching over the current that is lost, between the two curves. */
export function drawLost(
  measured: readonly CurvePoint[],
  expected: readonly CurvePoint[],
  api: CustomSeriesRenderItemAPI,
  palette: Palette,
): object {
  const end = Math.min(measured.at(-1)![0], expected.at(-1)![0])
  const from = Math.max(measured[0]![0], expected[0]![0])
  const upper: number[][] = []
  const lower: number[][] = []
  for (let k = 0; k <= 160; k++) {
    const voltage = from + ((end - from) * k) / 160
    const [is, should] = [currentOf(measured, voltage) ?? 0, currentOf(expected, voltage) ?? 0]
    upper.push(api.coord([voltage, should]) as number[])
    lower.push(api.coord([voltage, Math.min(is, should)]) as number[])
  }
  const points = [...upper, ...lower.reverse()]
  const xs = points.map(([x]) => x!)
  const ys = points.map(([, y]) => y!)
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const lines: object[] = []
  for (let at = left - (bottom - top); at < right; at += HATCH_px)
    lines.push({
      type: 'line',
      shape: { x1: at, y1: bottom, x2: at + (bottom - top), y2: top },
      style: { stroke: palette.outside, lineWidth: 1, opacity: 0.6 },
    })
  return { type: 'group', children: lines, clipPath: { type: 'polygon', shape: { points } } }
}
