'use client'
import { type ReactNode, useEffect, useRef, useState } from 'react'
import type { Cause } from '@/core/verdict/cause'
import type { RuleData } from '@/core/verdict/judgement'
import type { Verdict } from '@/core/verdict/verdict'
import { figure, quantity, say } from '@/words/say'
import { MarkShape } from '../mark/Mark'
import { scaleOf } from '@/report/drawing/scale'

const STRIP = 30
const TOP = 46
const PAD = 14
const WHISKER_LEAST_PX = 14

type Props = {
  rule: RuleData
  verdict: Verdict
  decimals: number
  others?: { label: string; value: number }[]
  ghosts?: Cause[]
}

function useWidth(): [React.RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(600)
  useEffect(() => {
    const element = ref.current
    if (!element) return
    const observer = new ResizeObserver(([entry]) => setWidth(Math.max(260, Math.round(entry!.contentRect.width))))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  return [ref, width]
}

/** The one rule for every verdict: limits as upstands, expected as a chain line, measured in ink with its whisker. */
export function Rule({ rule, verdict, decimals, others = [], ghosts = [] }: Props) {
  const [ref, width] = useWidth()
  const { band, expected, measured, unit } = rule
  const scale = scaleOf(rule)
  // Only a band around what is expected is told in per cent of it.
  const inPerCent = band.low !== null && band.high !== null && unit !== 'deg'
  const around = inPerCent ? (expected?.value ?? null) : null
  const y0 = TOP
  const y1 = TOP + STRIP
  const x = (value: number): number => {
    return Math.round((PAD + scale.share(value) * (width - 2 * PAD)) * 10) / 10
  }
  const zones: { from: number; to: number; fill: string }[] = []
  const zone = (from: number | null, to: number | null, fill: string): void => {
    if (from !== null && to !== null && to > from) zones.push({ from, to, fill })
  }
  zone(scale.min, band.low, 'url(#p-no)')
  zone(band.low, band.closeLow, 'url(#p-close)')
  zone(band.closeLow ?? band.low ?? scale.min, band.closeHigh ?? band.high ?? scale.max, 'var(--within-tint)')
  zone(band.closeHigh, band.high, 'url(#p-close)')
  zone(band.high, scale.max, 'url(#p-no)')

  const taken = [band.low, band.high, expected?.value ?? null].filter((one) => one !== null).map(x)

  return (
    <div ref={ref} style={{ minWidth: 0 }}>
      <svg
        className="rule"
        role="img"
        aria-label={ariaOf(rule, verdict, decimals)}
        width={width}
        height={y1 + 30}
        viewBox={`0 0 ${width} ${y1 + 30}`}
      >
        {zones.map((one) => (
          <rect
            key={one.from}
            x={x(one.from)}
            y={y0}
            width={Math.max(0, x(one.to) - x(one.from))}
            height={STRIP}
            fill={one.fill}
          />
        ))}
        <path d={`M${PAD} ${y0}H${width - PAD}`} stroke="var(--ink)" strokeWidth="1" />
        <path d={`M${PAD - 6} ${y1}H${width - PAD + 6}`} stroke="var(--ink)" strokeWidth="2" />
        {scale.minor.map((value) => (
          <path key={value} d={`M${x(value)} ${y1}v6`} stroke="var(--ink)" strokeWidth="1" />
        ))}
        {scale.major.map((value) => (
          <g key={value}>
            <path d={`M${x(value)} ${y1}v11`} stroke="var(--ink)" strokeWidth="1.6" />
            <text
              x={x(value)}
              y={y1 + 27}
              textAnchor={x(value) < 40 ? 'start' : x(value) > width - 40 ? 'end' : 'middle'}
              className="tick-t"
            >
              {quantity(value, unit, value < 1 && scale.decimals === 0 && value > 0 ? 2 : scale.decimals)}
            </text>
          </g>
        ))}
        {ghosts.map(
          (cause) =>
            cause.predicted !== null &&
            cause.predicted > scale.min &&
            cause.predicted < scale.max && (
              <g key={cause.code}>
                <path d={`M${x(cause.predicted)} 19V${y1}`} stroke="var(--ink)" strokeWidth="2" strokeDasharray="2 4" />
                {isClear(x(cause.predicted), taken) && (
                  <text x={Math.max(PAD, x(cause.predicted) - 40)} y="14" className="lab">
                    {say('rule.if-so', { value: figure(cause.predicted, decimals) })}
                  </text>
                )}
              </g>
            ),
        )}
        {expected && (
          <Expected
            x={x}
            expected={expected}
            y0={y0}
            y1={y1}
            label={`${say('rule.expected')} ${figure(expected.value, decimals)}`}
          />
        )}
        {others.map((one) => (
          <Other key={one.label} at={x(one.value)} y={y0 + STRIP / 2} label={one.label} />
        ))}
        {band.low !== null && (
          <Limit at={x(band.low)} side={-1} y1={y1} label={limitLabel(band.low, around, decimals)} />
        )}
        {band.high !== null && (
          <Limit at={x(band.high)} side={1} y1={y1} label={limitLabel(band.high, around, decimals)} />
        )}
        {measured && (
          <Measured
            x={x}
            y0={y0}
            y1={y1}
            width={width}
            measured={measured}
            verdict={verdict}
            off={offSide(measured.value, scale)}
          />
        )}
      </svg>
    </div>
  )
}

/** Room for a label of its own between those that stand already. */
const isClear = (at: number, taken: readonly number[]): boolean => taken.every((one) => Math.abs(one - at) > 110)

function offSide(value: number, scale: { min: number; max: number }): 'left' | 'right' | null {
  return value < scale.min ? 'left' : value > scale.max ? 'right' : null
}

function limitLabel(limit: number, expected: number | null, decimals: number): string {
  if (expected === null || expected === 0) return figure(limit, Number.isInteger(limit) ? 0 : decimals)
  return `${figure(100 * (limit / expected - 1), 0, true)} %`
}

type Across = (value: number) => number

function Expected({
  x,
  expected,
  y0,
  y1,
  label,
}: {
  x: Across
  expected: NonNullable<RuleData['expected']>
  y0: number
  y1: number
  label: string
}) {
  const [low, high, at] = [
    x(expected.value - expected.uncertainty),
    x(expected.value + expected.uncertainty),
    x(expected.value),
  ]
  return (
    <g>
      <path
        d={`M${low} ${y0 - 10}V${y0 - 2}M${high} ${y0 - 10}V${y0 - 2}M${low} ${y0 - 6}H${high}`}
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
      <path d={`M${at} 19V${y1 + 9}`} stroke="var(--ink)" strokeWidth="1.8" strokeDasharray="11 3 2.5 3" fill="none" />
      <text x={Math.max(at, 58)} y="14" textAnchor="middle" className="lab">
        {label}
      </text>
    </g>
  )
}

function Limit({ at, side, y1, label }: { at: number; side: -1 | 1; y1: number; label: string }) {
  return (
    <g>
      <path d={`M${at} 19V${y1 + 1}`} stroke="var(--ink)" strokeWidth="5" />
      <path d={`M${at - side * 2.5} ${y1 + 1.5}h${side * 24}`} stroke="var(--ink)" strokeWidth="6" />
      <text x={at} y="14" textAnchor="middle" className="lab strong">
        {label}
      </text>
    </g>
  )
}

function Other({ at, y, label }: { at: number; y: number; label: string }) {
  const wide = Math.max(19, label.length * 8 + 11)
  return (
    <g>
      <rect
        x={at - wide / 2}
        y={y - 9.5}
        width={wide}
        height={19}
        rx={9.5}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <text x={at} y={y + 5} textAnchor="middle" className="sib">
        {label}
      </text>
    </g>
  )
}

function Measured(props: {
  x: Across
  y0: number
  y1: number
  width: number
  measured: NonNullable<RuleData['measured']>
  verdict: Verdict
  off: 'left' | 'right' | null
}) {
  const { x, y0, y1, width, measured, verdict, off } = props
  const at = x(measured.value)
  const low = x(measured.value - measured.whisker)
  const high = x(measured.value + measured.whisker)
  const y = y0 + STRIP / 2 + 3
  const whisker = `M${low} ${y}H${high}M${low} ${y - 6}V${y + 6}M${high} ${y - 6}V${y + 6}`
  const text = `${off === 'left' ? '← ' : ''}${measured.text}${off === 'right' ? ' →' : ''}`
  const onLeft = at > width / 2
  const rest: ReactNode = high - low > WHISKER_LEAST_PX && (
    <>
      <path d={whisker} stroke="var(--sheet)" strokeWidth="6" />
      <path d={whisker} stroke="var(--ink)" strokeWidth="2.4" />
    </>
  )
  return (
    <g>
      <path d={`M${at} ${y0 - 4}V${y1 + 9}`} stroke="var(--sheet)" strokeWidth="8" />
      <path d={`M${at} ${y0 - 6}V${y1 + 9}`} stroke="var(--ink)" strokeWidth="3.4" />
      {rest}
      <circle cx={at} cy={y0 - 8} r="15.5" fill="var(--sheet)" />
      <g transform={`translate(${at} ${y0 - 8}) scale(1.08)`}>
        <MarkShape verdict={verdict} />
      </g>
      <text
        x={onLeft ? at - 20 : at + 20}
        y={y0 - 2}
        textAnchor={onLeft ? 'end' : 'start'}
        className="mlab"
        stroke="var(--sheet)"
        strokeWidth="5"
        paintOrder="stroke"
      >
        {text}
      </text>
    </g>
  )
}

function ariaOf(rule: RuleData, verdict: Verdict, decimals: number): string {
  const { band, expected, measured, unit } = rule
  return say('rule.aria', {
    measured: measured ? `${measured.text}` : say('rule.nothing'),
    unit,
    expected: expected ? figure(expected.value, decimals) : '',
    low: band.low === null ? '' : figure(band.low, decimals),
    high: band.high === null ? '' : figure(band.high, decimals),
    verdict: say(`verdict.${verdict}`),
  })
}
