/** A measured curve over the expected one, as it is printed: the same points as on the screen. */
import type { CurvePoint } from '@/core/curve/points'
import type { CurvePicture } from '@/core/steps/picture'
import { quantity, say } from '@/words/say'
import { type Drawing, dot, line, type Node, words } from './node'

const WIDE = 344
const HIGH = 236
const LEFT = 34
const RIGHT = WIDE - 12
const TOP = 26
const FOOT = HIGH - 38
/** How many lines stand across. */
const LINES = 4
const CHAIN = '11 3 2.5 3'

export function curveDrawing({ measured, expected, vmp_V, imp_A, voc_V, isc_A }: CurvePicture): Drawing {
  const all = [...measured, ...expected]
  const most_V = stepFor(Math.max(...all.map(([voltage]) => voltage)))
  const most_A = stepFor(Math.max(...all.map(([, current]) => current)))
  const x = (voltage: number): number => LEFT + (voltage / (most_V * LINES)) * (RIGHT - LEFT)
  const y = (current: number): number => FOOT - (current / (most_A * LINES)) * (FOOT - TOP)
  const path = (points: readonly CurvePoint[]): string =>
    points
      .map(
        ([voltage, current], k) =>
          `${k === 0 ? 'M' : 'L'}${x(voltage).toFixed(1)} ${y(Math.max(0, current)).toFixed(1)}`,
      )
      .join('')
  const across = Array.from({ length: LINES + 1 }, (_, k) => k)
  return {
    name: 'curve',
    wide: WIDE,
    high: HIGH,
    label: say('curve.label', { voc_V, isc_A, power_W: vmp_V * imp_A, ledges: 0 }),
    nodes: [
      ...across.flatMap((k): Node[] => [
        line(`M${LEFT} ${y(k * most_A)}H${RIGHT}`, k === 0 ? 'ink' : 'hair', k === 0 ? 1.6 : 0.8),
        line(`M${x(k * most_V)} ${TOP}V${FOOT}`, k === 0 ? 'ink' : 'hair', k === 0 ? 1.6 : 0.8),
        words(LEFT - 6, y(k * most_A) + 5, figureOf(k * most_A), 'end'),
        words(x(k * most_V), FOOT + 18, figureOf(k * most_V), k === LINES ? 'end' : 'middle'),
      ]),
      words(LEFT, TOP - 10, 'A'),
      words(RIGHT, FOOT + 34, 'V', 'end'),
      ...(expected.length > 1 ? [line(path(expected), 'ink2', 1.4, CHAIN)] : []),
      line(path(measured), 'ink', 2.2),
      dot(x(vmp_V), y(imp_A), 5),
      words(x(vmp_V) - 8, y(imp_A) + 20, quantity(vmp_V * imp_A, 'W', 0), 'end', true),
    ],
  }
}

const figureOf = (value: number): string =>
  value >= 10 || value === 0 ? value.toFixed(0) : String(Number(value.toFixed(1)))

/** A round step of which so many reach beyond a value. */
function stepFor(most: number): number {
  const rough = most / LINES
  const unit = 10 ** Math.floor(Math.log10(rough))
  const times = [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10].find((one) => one * unit >= rough) ?? 10
  return times * unit
}
