/** Alike strings side by side: a ring each on the strip of its test, the odd ones crossed and named. As on the screen. */
import '@/words/compare'
import type { Alike, Strip } from '@/core/evaluation/comparing'
import { figure, quantity, say, sayCode } from '@/words/say'
import { gapText } from '../gapText'
import { type Drawing, line, type Node, words } from './node'
import { type Scale, scaleOf } from './scale'
import { stacked } from './stacked'

const WIDE = 344
const PAD = 18
const STRIP = 14
/** Above so many the rings are dots without a name. */
const NAMED = 12
const RING = 8
const DOT = 3
/** Rings of one value stand above each other, as many as have a name; dots in fewer layers. */
const MOST_LEVELS = { rings: NAMED, dots: 9 }
/** A tick's words nearer to the edge than this begin or end there. */
const EDGE = 34
/** So many of the odd ones are told by name. */
const TOLD = 3
/** Of the ticks so many have room for their figures. */
const MOST_TICKS = 5
const HEAD = 18

export function stripDrawing(strip: Strip): Drawing {
  const { band, members, unit } = strip
  const scale = scaleOf({
    unit,
    scale: strip.scale,
    measured: { value: farthest(strip), bound: 'exact', whisker: 0, text: '' },
    expected: null,
    band,
    source: strip.source,
  })
  const x = (value: number): number => PAD + scale.share(value) * (WIDE - 2 * PAD)
  const isMany = members.length > NAMED
  const radius = isMany ? DOT : RING
  const high = 2 * radius + 2
  const placed = stacked(
    members.map((one) => ({ one, x: x(one.value) })),
    high,
    isMany ? MOST_LEVELS.dots : MOST_LEVELS.rings,
  )
  const levels = Math.max(...placed.map(({ level }) => level)) + 1
  const foot = HEAD + 12 + levels * high
  const top = foot - STRIP
  const what = sayCode('step', `${strip.step.id}.short`)
  const told = placed.filter(({ one }) => one.verdict === 'outside').slice(0, TOLD)
  return {
    name: `strip-${strip.step.id}`,
    wide: WIDE,
    high: foot + 26,
    label: [what, ...told.map(({ one }) => `${one.part.data.tag}: ${gapText(one.gap)}`)].join(', '),
    nodes: [
      words(0, 13, what, 'start', true),
      ...zones(strip, scale, x, top),
      line(`M${PAD - 6} ${foot}H${WIDE - PAD + 6}`, 'ink', 2),
      ...ticks(strip, scale, x, foot),
      ...[band.low, band.high].flatMap((limit) =>
        limit === null ? [] : [line(`M${x(limit)} ${top - 8}V${foot}`, 'ink', 4)],
      ),
      ...placed.flatMap(({ one, x: cx, level }) => ring(one, cx, foot - radius - level * high - 1, radius)),
      ...told.map(({ one, x: cx, level }) => {
        const isRight = cx > WIDE / 2
        const y = foot - radius - level * high - radius - 3
        return words(
          cx + (isRight ? -radius - 4 : radius + 4),
          y,
          `${one.part.data.tag}: ${gapText(one.gap)}`,
          isRight ? 'end' : 'start',
        )
      }),
    ],
  }
}

/** The figure that has to be on the strip whatever its limits are: the odd one farthest off, else the last. */
function farthest({ members, scale }: Strip): number {
  const values = members.map(({ value }) => value)
  const [least, most] = [Math.min(...values), Math.max(...values)]
  if (scale === 'log') return most
  return Math.abs(most - 100) > Math.abs(least - 100) ? most : least
}

/** What is allowed, as a tint; what is not stays paper. */
function zones({ band }: Strip, scale: Scale, x: (value: number) => number, top: number): Node[] {
  const from = x(band.low ?? scale.min)
  const to = x(band.high ?? scale.max)
  return [{ tag: 'rect', attrs: { x: from, y: top, width: to - from, height: STRIP, fill: 'var(--within-tint)' } }]
}

function ticks({ unit }: Strip, scale: Scale, x: (value: number) => number, foot: number): Node[] {
  const every = Math.ceil(scale.major.length / MOST_TICKS)
  return scale.major
    .filter((_, k) => k % every === 0)
    .flatMap((value): Node[] => {
      const anchor = x(value) < EDGE ? 'start' : x(value) > WIDE - EDGE ? 'end' : 'middle'
      return [
        line(`M${x(value)} ${foot}v6`, 'ink', 1.4),
        words(
          anchor === 'start' ? 0 : anchor === 'end' ? WIDE : x(value),
          foot + 20,
          unit === 'pct' ? `${figure(value, scale.decimals)} %` : quantity(value, unit, value < 1 ? 2 : 0),
          anchor,
        ),
      ]
    })
}

/** A ring with its tag where there is room; one that is outside as a cross. */
function ring({ part, verdict }: Alike, x: number, y: number, radius: number): Node[] {
  if (verdict === 'outside')
    return [
      line(
        `M${x - radius} ${y - radius}l${2 * radius} ${2 * radius}m0-${2 * radius}l-${2 * radius} ${2 * radius}`,
        'outside',
        3,
      ),
    ]
  const circle: Node = {
    tag: 'circle',
    attrs: {
      cx: x,
      cy: y,
      r: radius,
      fill: 'var(--sheet)',
      stroke: 'var(--ink)',
      'stroke-width': radius === DOT ? 1 : 1.4,
    },
  }
  const name: Node = {
    tag: 'text',
    attrs: { x, y: y + 3.5, 'text-anchor': 'middle', 'font-size': 10, fill: 'var(--ink)' },
    text: part.data.tag,
  }
  return radius === DOT ? [circle] : [circle, name]
}

/** What two groups of strips are called on the sheet. */
export const stripsTitle = (array: string | undefined): string =>
  array ? `${say('compare.table')}, ${array}` : say('compare.table')
