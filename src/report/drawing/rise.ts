/** A figure while it was watched, a line a slot, for the print. */
import type { Unit } from '@/core/quantity/unit'
import type { RiseLine, RisePicture } from '@/core/steps/picture'
import { quantity, say, sayCode } from '@/words/say'
import { type Drawing, line, type Node, words } from './node'

const WIDE = 344
const HIGH = 170
const FROM = 16
const TO = WIDE - 16
const TOP = 30
const FOOT = HIGH - 34
const dashes = ['', '6 4', '2 3'] as const

export const riseFigure = (value: number, unit: Unit): string => quantity(value, unit, value < 10 ? 2 : 1)

/** A line in one sentence: how it went, between what, and where it ended. */
export const riseText = (line: RiseLine, unit: Unit): string =>
  say('rise.line', {
    what: sayCode('slot', line.slot),
    course: sayCode('rise.course', line.course),
    lowest: riseFigure(line.lowest, unit),
    highest: riseFigure(line.highest, unit),
    last: riseFigure(line.last, unit),
    seconds: line.points.at(-1)![0],
  })

export function riseDrawing({ lines, unit }: RisePicture): Drawing {
  const most = 1.1 * Math.max(...lines.map((one) => one.highest))
  const last_s = Math.max(...lines.map((one) => one.points.at(-1)![0]))
  const x = (seconds: number): number => FROM + (last_s === 0 ? 0 : seconds / last_s) * (TO - FROM)
  const y = (value: number): number => FOOT - (value / most) * (FOOT - TOP)
  const pathOf = ({ points }: RiseLine): string =>
    points.map(([seconds, value], k) => `${k === 0 ? 'M' : 'L'}${x(seconds)} ${y(value)}`).join('')
  return {
    name: 'rise',
    wide: WIDE,
    high: HIGH,
    label: lines.map((one) => riseText(one, unit)).join('. '),
    nodes: [
      line(`M${FROM - 8} ${FOOT}H${TO + 8}`, 'ink', 1.6),
      ...lines.flatMap((one, k): Node[] => [
        line(pathOf(one), 'ink', 2, dashes[k % dashes.length]!),
        words(FROM - 8, 12 + k * 16, `${sayCode('slot', one.slot)}: ${sayCode('rise.course', one.course)}`),
      ]),
      words(FROM - 8, FOOT + 18, '0 s'),
      words(TO + 8, FOOT + 18, `${Math.round(last_s)} s`, 'end'),
    ],
  }
}
