'use client'
import type { Alike, Strip } from '@/core/evaluation/comparing'
import { figure, quantity, say, sayCode } from '@/words/say'
import { MarkShape } from '../mark/Mark'
import { scaleOf } from '@/report/drawing/scale'
import { gapText } from '@/report/gapText'
import { stacked } from '@/report/drawing/stacked'

const PAD = 14
const STRIP = 20
const RING = 10
/** Above so many the rings are dots without a name, in more layers. */
const NAMED = 12
const LEVELS = { rings: 5, dots: 9 }
/** Outside ones that are told by name beside their mark. */
const TOLD = 3

type Props = { strip: Strip; width: number; at: string | null; onAt(key: string): void; onOpen(key: string): void }

/** One test of all alike strings: a ring each, the odd ones with their mark and what they lack. */
export function StripPlot({ strip, width, at, onAt, onOpen }: Props) {
  const { band, members, unit } = strip
  const far = members.filter(({ verdict }) => verdict === 'outside').map(({ value }) => value)
  const [least, most] = [Math.min(...far, members[0]!.value), Math.max(...far, members.at(-1)!.value)]
  const reach = Math.abs(most - 100) > Math.abs(least - 100) ? most : least
  const measured = { value: strip.scale === 'log' ? most : reach, bound: 'exact' as const, whisker: 0, text: '' }
  const scale = scaleOf({ unit, scale: strip.scale, measured, expected: null, band, source: strip.source })
  const x = (value: number): number => Math.round((PAD + scale.share(value) * (width - 2 * PAD)) * 10) / 10
  const small = members.length > NAMED
  const radius = small ? 4 : RING
  const placed = stacked(
    members.map((one) => ({ one, x: x(one.value) })),
    2 * radius + 1,
    small ? LEVELS.dots : LEVELS.rings,
  )
  const levels = Math.max(...placed.map(({ level }) => level)) + 1
  const y0 = 30 + levels * (2 * radius + 2) - radius
  const y1 = y0 + STRIP
  const zone = (from: number | null, to: number | null, fill: string) =>
    from !== null && to !== null && x(to) > x(from) ? (
      <rect key={fill + from} x={x(from)} y={y0} width={x(to) - x(from)} height={STRIP} fill={fill} />
    ) : null
  const told = placed.filter(({ one }) => one.verdict === 'outside').slice(0, TOLD)
  const ringY = (level: number): number => y1 - radius - level * (2 * radius + 2)
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing is no fieldset
    <svg
      className="strip-plot"
      width={width}
      height={y1 + 28}
      viewBox={`0 0 ${width} ${y1 + 28}`}
      role="group"
      aria-label={sayCode('step', `${strip.step.id}.short`)}
    >
      {zone(scale.min, band.low, 'url(#p-no)')}
      {zone(band.low, band.closeLow, 'url(#p-close)')}
      {zone(band.closeLow ?? band.low ?? scale.min, band.closeHigh ?? band.high ?? scale.max, 'var(--within-tint)')}
      {zone(band.closeHigh, band.high, 'url(#p-close)')}
      {zone(band.high, scale.max, 'url(#p-no)')}
      <path d={`M${PAD} ${y0}H${width - PAD}`} stroke="var(--ink)" strokeWidth="1" />
      <path d={`M${PAD - 6} ${y1}H${width - PAD + 6}`} stroke="var(--ink)" strokeWidth="2" />
      {scale.major.map((value) => (
        <g key={value}>
          <path d={`M${x(value)} ${y1}v8`} stroke="var(--ink)" strokeWidth="1.4" />
          <text x={x(value)} y={y1 + 24} textAnchor="middle" className="tick-t">
            {unit === 'pct' ? `${figure(value, scale.decimals)} %` : quantity(value, unit, value < 1 ? 2 : 0)}
          </text>
        </g>
      ))}
      {[band.low, band.high].map((limit, k) =>
        limit === null ? null : (
          <g key={k === 0 ? 'low' : 'high'}>
            <path d={`M${x(limit)} ${y0 - 22}V${y1 + 1}`} stroke="var(--ink)" strokeWidth="5" />
            <path
              d={`M${x(limit) + (k === 0 ? 2.5 : -2.5)} ${y1 + 1.5}h${k === 0 ? -18 : 18}`}
              stroke="var(--ink)"
              strokeWidth="5"
            />
          </g>
        ),
      )}
      {unit === 'pct' && (
        <path d={`M${x(100)} ${y0 - 18}V${y1 + 8}`} stroke="var(--ink)" strokeWidth="1.6" strokeDasharray="9 3 2 3" />
      )}
      {placed.map(({ one, x: cx, level }) => (
        <Ring
          key={one.key}
          one={one}
          strip={strip}
          cx={cx}
          cy={ringY(level)}
          radius={radius}
          small={small}
          now={one.key === at}
          onAt={onAt}
          onOpen={onOpen}
        />
      ))}
      {told.map(({ one, x: cx, level }) => (
        <text
          key={one.key}
          x={cx > width / 2 ? cx - radius - 8 : cx + radius + 8}
          y={ringY(level) - radius}
          textAnchor={cx > width / 2 ? 'end' : 'start'}
          className="mlab"
          stroke="var(--sheet)"
          strokeWidth="5"
          paintOrder="stroke"
        >
          {`${one.part.data.tag}: ${gapText(one.gap)}`}
        </text>
      ))}
    </svg>
  )
}

type RingProps = {
  one: Alike
  strip: Strip
  cx: number
  cy: number
  radius: number
  small: boolean
  now: boolean
  onAt(key: string): void
  onOpen(key: string): void
}

function Ring({ one, strip, cx, cy, radius, small, now, onAt, onOpen }: RingProps) {
  const { tag } = one.part.data
  const value = strip.unit === 'pct' ? `${figure(one.value, 1)} %` : quantity(one.value, strip.unit, 1)
  const isOdd = one.verdict === 'outside'
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button cannot be drawn in a drawing
    <g
      role="button"
      tabIndex={now ? 0 : -1}
      aria-label={say('compare.member', { tag, value, verdict: say(`verdict.${one.verdict}`) })}
      data-alike={one.key}
      onFocus={() => onAt(one.key)}
      onClick={() => onAt(one.key)}
      onDoubleClick={() => onOpen(one.key)}
      onKeyDown={(event) => event.key === 'Enter' && onOpen(one.key)}
    >
      {isOdd ? (
        <g transform={`translate(${cx} ${cy}) scale(${small ? 0.6 : 0.95})`}>
          <MarkShape verdict="outside" />
        </g>
      ) : (
        <circle cx={cx} cy={cy} r={radius} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={small ? 1.2 : 1.6} />
      )}
      {!isOdd && !small && (
        <text x={cx} y={cy + 5} textAnchor="middle" className="sib">
          {tag}
        </text>
      )}
      {now && <circle cx={cx} cy={cy} r={radius + 4} fill="none" stroke="var(--accent)" strokeWidth="3" />}
    </g>
  )
}
