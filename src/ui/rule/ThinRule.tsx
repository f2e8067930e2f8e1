import type { RuleData } from '@/core/verdict/judgement'
import type { Verdict } from '@/core/verdict/verdict'
import { MarkShape } from '../mark/Mark'
import { scaleOf } from '@/report/drawing/scale'

const PAD = 8

type Props = {
  rule: RuleData
  verdict: Verdict
  wide?: number
  /** Lower still, for a row of several. */
  low?: boolean
}

/** The rule in small, for lists: limits as upstands and where the figure stands. What it says stands in words beside it. */
export function ThinRule({ rule, verdict, wide = 342, low: isLow = false }: Props) {
  const { band, measured, expected } = rule
  const [top, strip, mark] = isLow ? [11, 8, 0.5] : [20, 16, 0.8]
  const scale = scaleOf(rule)
  const x = (value: number): number => Math.round((PAD + scale.share(value) * (wide - 2 * PAD)) * 10) / 10
  const foot = top + strip
  const high = foot + (isLow ? 4 : 6)
  const [least, most] = [band.low ?? scale.min, band.high ?? scale.max]
  const zones = [
    { from: scale.min, to: least, fill: 'url(#p-no)' },
    { from: least, to: band.closeLow ?? least, fill: 'url(#p-close)' },
    { from: band.closeLow ?? least, to: band.closeHigh ?? most, fill: 'var(--within-tint)' },
    { from: band.closeHigh ?? most, to: most, fill: 'url(#p-close)' },
    { from: most, to: scale.max, fill: 'url(#p-no)' },
  ].filter(({ from, to }) => to > from)
  const at = measured ? x(measured.value) : null
  const weight = isLow ? 3.4 : 5
  return (
    <svg className="thin-rule" aria-hidden="true" viewBox={`0 0 ${wide} ${high}`}>
      {zones.map(({ from, to, fill }) => (
        <rect key={fill + from} x={x(from)} y={top} width={Math.max(0, x(to) - x(from))} height={strip} fill={fill} />
      ))}
      <path d={`M${PAD} ${top}H${wide - PAD}`} stroke="var(--ink)" strokeWidth="1" />
      <path d={`M${PAD - 6} ${foot}H${wide - PAD + 6}`} stroke="var(--ink)" strokeWidth="2" />
      {expected && (
        <path
          d={`M${x(expected.value)} ${top - 5}V${foot + 3}`}
          stroke="var(--ink)"
          strokeWidth="1.6"
          strokeDasharray="5 2 1.5 2"
        />
      )}
      {[
        { value: band.low, side: -1 },
        { value: band.high, side: 1 },
      ].map(({ value, side }) =>
        value === null ? null : (
          <g key={side}>
            <path d={`M${x(value)} ${top - 6}V${foot + 1}`} stroke="var(--ink)" strokeWidth={weight} />
            <path
              d={`M${x(value) - (side * weight) / 2} ${foot + 1}h${side * weight * 3}`}
              stroke="var(--ink)"
              strokeWidth={weight}
            />
          </g>
        ),
      )}
      {at !== null && (
        <>
          <path d={`M${at} ${top - 6}V${foot + 3}`} stroke="var(--ink)" strokeWidth={isLow ? 2.4 : 3.4} />
          <g transform={`translate(${at} ${isLow ? top - 4 : top - 8}) scale(${mark})`}>
            <circle r="14" fill="var(--paper)" />
            <MarkShape verdict={verdict} />
          </g>
        </>
      )}
    </svg>
  )
}
