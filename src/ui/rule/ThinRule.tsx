import type { RuleData } from '@/core/verdict/judgement'
import type { Verdict } from '@/core/verdict/verdict'
import { MarkShape } from '../mark/Mark'
import { scaleOf } from './scale'

const WIDE = 342
const PAD = 8
const TOP = 20
const STRIP = 16
const HIGH = 42

/** The rule in small, for lists: limits as upstands and where the figure stands. What it says stands in words beside it. */
export function ThinRule({ rule, verdict }: { rule: RuleData; verdict: Verdict }) {
  const { band, measured } = rule
  const scale = scaleOf(rule)
  const x = (value: number): number => Math.round((PAD + scale.share(value) * (WIDE - 2 * PAD)) * 10) / 10
  const foot = TOP + STRIP
  const [low, high] = [band.low ?? scale.min, band.high ?? scale.max]
  const zones = [
    { from: scale.min, to: low, fill: 'url(#p-no)' },
    { from: low, to: band.closeLow ?? low, fill: 'url(#p-close)' },
    { from: band.closeLow ?? low, to: band.closeHigh ?? high, fill: 'var(--within-tint)' },
    { from: band.closeHigh ?? high, to: high, fill: 'url(#p-close)' },
    { from: high, to: scale.max, fill: 'url(#p-no)' },
  ].filter(({ from, to }) => to > from)
  const at = measured ? x(measured.value) : null
  return (
    <svg className="thin-rule" aria-hidden="true" viewBox={`0 0 ${WIDE} ${HIGH}`}>
      {zones.map(({ from, to, fill }) => (
        <rect key={fill + from} x={x(from)} y={TOP} width={Math.max(0, x(to) - x(from))} height={STRIP} fill={fill} />
      ))}
      <path d={`M${PAD} ${TOP}H${WIDE - PAD}`} stroke="var(--ink)" strokeWidth="1" />
      <path d={`M${PAD - 6} ${foot}H${WIDE - PAD + 6}`} stroke="var(--ink)" strokeWidth="2" />
      {[
        { value: band.low, side: -1 },
        { value: band.high, side: 1 },
      ].map(({ value, side }) =>
        value === null ? null : (
          <g key={side}>
            <path d={`M${x(value)} ${TOP - 6}V${foot + 1}`} stroke="var(--ink)" strokeWidth="5" />
            <path d={`M${x(value) - side * 2.5} ${foot + 1.5}h${side * 16}`} stroke="var(--ink)" strokeWidth="6" />
          </g>
        ),
      )}
      {at !== null && (
        <>
          <path d={`M${at} ${TOP - 6}V${foot + 4}`} stroke="var(--ink)" strokeWidth="3.4" />
          <g transform={`translate(${at} ${TOP - 8}) scale(0.8)`}>
            <circle r="14" fill="var(--paper)" />
            <MarkShape verdict={verdict} />
          </g>
        </>
      )}
    </svg>
  )
}
