import type { ReactNode } from 'react'
import type { Verdict } from '@/core/verdict/verdict'
import { MarkShape } from '../mark/Mark'

const fan = (verdicts: readonly Verdict[], stroke: string, fill: string): ReactNode => (
  <>
    {verdicts.map((verdict, k) => {
      const y = (k - (verdicts.length - 1) / 2) * 18
      const key = `${k}${verdict}`
      return (
        <g key={key}>
          <path d={`M-28 0L-20 ${y}H20L28 0`} fill="none" stroke={stroke} strokeWidth="2" />
          <circle cy={y} r="9" fill={fill} />
          <g transform={`translate(0 ${y}) scale(0.625)`}>
            <MarkShape verdict={verdict} />
          </g>
        </g>
      )
    })}
  </>
)

/** The station's symbol in a box of 60 x 64 around 0,0. */
export function stationSymbol(station: string, stroke: string, fill: string, lanes: readonly Verdict[]): ReactNode {
  switch (station) {
    case 'modules':
      return (
        <>
          <path d="M-10-14H22L12 14H-20Z" fill={fill} stroke={stroke} strokeWidth="2" />
          <path d="M.7-14-9.3 14M11.4-14 1.4 14M-15 0H17" stroke={stroke} strokeWidth="1.4" />
        </>
      )
    case 'strings':
      return (
        <>
          <rect x="-28" y="-27" width="56" height="54" fill={fill} />
          {fan(lanes, stroke, fill)}
        </>
      )
    case 'dc-switch':
      return (
        <>
          <rect x="-22" y="-20" width="44" height="26" fill={fill} />
          <circle cx="-16" r="3" fill={fill} stroke={stroke} strokeWidth="2" />
          <circle cx="16" r="3" fill={fill} stroke={stroke} strokeWidth="2" />
          <path d="M-13.5-1.6 12-16" stroke={stroke} strokeWidth="3" />
        </>
      )
    case 'inverter':
      return (
        <>
          <rect x="-17" y="-17" width="34" height="34" fill={fill} stroke={stroke} strokeWidth="2" />
          <path d="M-17 17 17-17" stroke={stroke} strokeWidth="1.6" />
          <path d="M-12-10H-2M-12-6H-2" stroke={stroke} strokeWidth="2" />
          <path d="M2.5 9q2.5-5 5 0t5 0" fill="none" stroke={stroke} strokeWidth="2" />
        </>
      )
    case 'supply':
      return (
        <>
          <rect x="-30" y="-16" width="25" height="32" fill={fill} stroke={stroke} strokeWidth="2" />
          <rect x="-25" y="-5" width="15" height="10" fill="none" stroke={stroke} strokeWidth="1.6" />
          <path d="M-30 0H-5" stroke={stroke} strokeWidth="1.6" />
          <path d="M-5 0H5" stroke={stroke} strokeWidth="3" />
          <rect x="5" y="-16" width="25" height="32" fill={fill} stroke={stroke} strokeWidth="2" />
          <path d="M5-7H30" stroke={stroke} strokeWidth="2" />
          <path d="M11-1H24V8H11ZM15.3-1V8M19.7-1V8" fill="none" stroke={stroke} strokeWidth="1.4" />
        </>
      )
    case 'board':
      return (
        <>
          <rect x="-21" y="-17" width="42" height="34" fill={fill} stroke={stroke} strokeWidth="2" />
          <path d="M-15-6H15" stroke={stroke} strokeWidth="3" />
          <path d="M-10-6V9M0-6V9M10-6V9" stroke={stroke} strokeWidth="1.8" />
        </>
      )
    case 'rcd':
      return (
        <>
          <rect x="-17" y="-17" width="34" height="34" fill={fill} stroke={stroke} strokeWidth="2" />
          <ellipse rx="5" ry="11" fill="none" stroke={stroke} strokeWidth="2" />
          <path d="M-17 0H17" stroke={stroke} strokeWidth="2" />
        </>
      )
    case 'charge-point':
      return (
        <>
          <rect x="-13" y="-19" width="20" height="38" fill={fill} stroke={stroke} strokeWidth="2" />
          <circle cx="-3" cy="-8" r="5" fill="none" stroke={stroke} strokeWidth="1.8" />
          <path d="M7 4c10 0 2 15 9 15s6-9 6-18" fill="none" stroke={stroke} strokeWidth="2" />
          <path d="M18-2h8v-6h-8z" fill={stroke} />
        </>
      )
    case 'electrode':
      return (
        <>
          <path d="M0-24V24" stroke={stroke} strokeWidth="4" />
          <path d="M-22-6H22M-16 2H16M-10 10H10" stroke={stroke} strokeWidth="2" />
        </>
      )
    default:
      return <circle r="10" fill={fill} stroke={stroke} strokeWidth="2" />
  }
}

/** The sun around 0,0. */
export function SunShape({ stroke }: { stroke: string }) {
  return (
    <>
      <circle r="9" fill="var(--close-fill)" stroke="var(--mark-edge)" strokeWidth="1.8" />
      {[0, 45, 90, 135, 180, 225, 270, 315].map((angle) => (
        <path key={angle} d="M13.5 0H18" transform={`rotate(${angle})`} stroke={stroke} strokeWidth="2" />
      ))}
    </>
  )
}

export function SunSymbol() {
  return (
    <svg width="44" height="44" viewBox="-22 -22 44 44" aria-hidden="true">
      <SunShape stroke="var(--ink)" />
    </svg>
  )
}
