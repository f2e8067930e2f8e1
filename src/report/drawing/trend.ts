/** Readings of one part over time, against its limit: full where they were set up alike, rings where they were not. */
import { spoken } from '@/words/language'
import type { TrendPicture } from '@/core/steps/picture'
import { quantity, say, sayCode } from '@/words/say'
import { type Drawing, dot, line, type Node, words } from './node'

const WIDE = 344
const HIGH = 190
const FROM = 30
const TO = WIDE - 40
const TOP = 34
const FOOT = HIGH - 44
/** Readings are told in words up to here; of more, the first, the last and what lies out. */
const FEW = 5
/** Words of two points nearer than this would lie on each other. */
const CROWDED = 56

/** A day on the scale: never without its year. */
export const trendDay = (at: number, timeZone: string): string =>
  new Intl.DateTimeFormat(spoken().locale, { day: 'numeric', month: 'short', year: '2-digit', timeZone }).format(at)

/** What the newest reading is to the one before it: by its day, or by the rods that were driven in between. */
export function changeText(
  { percent, sinceAt, counts }: NonNullable<TrendPicture['change']>,
  timeZone: string,
): string {
  if (counts === null || counts[0] === counts[1])
    return say('picture.trend-change', { percent, day: trendDay(sinceAt, timeZone) })
  return say('picture.trend-change-rods', { percent, before: counts[0], count: counts[1] })
}

export function trendDrawing({ points, unit, decimals, change }: TrendPicture, timeZone: string): Drawing {
  const times = points.map((one) => one.at)
  const [first, last] = [Math.min(...times), Math.max(...times)]
  const most = 1.15 * Math.max(...points.map((one) => one.value))
  const x = (at: number): number =>
    last === first ? (FROM + TO) / 2 : FROM + ((at - first) / (last - first)) * (TO - FROM)
  const y = (value: number): number => FOOT - (value / most) * (FOOT - TOP)
  const alike = points.filter((one) => one.alike)
  const path = alike.map((one, k) => `${k === 0 ? 'M' : 'L'}${x(one.at)} ${y(one.value)}`).join('')
  const newest = points.at(-1)!
  const day = (at: number): string => trendDay(at, timeZone)
  const isTold = (k: number): boolean => points.length <= FEW || k === 0 || k === points.length - 1
  /** Two that were taken soon after each other are told above and below. */
  const isBelow = (k: number): boolean => k > 0 && x(points[k]!.at) - x(points[k - 1]!.at) < CROWDED && !isBelow(k - 1)
  return {
    name: 'trend',
    wide: WIDE,
    high: HIGH,
    label: say('picture.trend', { count: points.length, last: quantity(newest.value, unit, decimals) }),
    nodes: [
      line(`M${FROM - 8} ${FOOT}H${TO + 8}`, 'ink', 1.6),
      ...(alike.length > 1 ? [line(path, 'ink', 2)] : []),
      ...points.flatMap((one, k): Node[] => [
        dot(x(one.at), y(one.value), 6, one.alike),
        ...(isTold(k)
          ? [words(x(one.at), y(one.value) + (isBelow(k) ? 22 : -12), quantity(one.value, unit, decimals), 'middle')]
          : []),
      ]),
      words(FROM - 8, FOOT + 18, day(first)),
      words(TO + 8, FOOT + 18, day(last), 'end'),
      ...noteNodes(points, x),
      ...(change ? [words(TO + 8, 14, changeText(change, timeZone), 'end')] : []),
      ...(alike.length < points.length ? [words(FROM - 8, 14, say('picture.trend-other'))] : []),
    ],
  }
}

/** What was noted at the first and at the newest: dry, damp, frozen. */
function noteNodes(points: TrendPicture['points'], x: (at: number) => number): Node[] {
  const [first, newest] = [points[0]!, points.at(-1)!]
  return [
    ...(first.note ? [words(x(first.at) - 8, FOOT + 36, sayCode('choice', first.note))] : []),
    ...(newest.note ? [words(x(newest.at) + 8, FOOT + 36, sayCode('choice', newest.note), 'end')] : []),
  ]
}
