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
          <rect x="-24" y="-8" width="17" height="17" fill={fill} stroke={stroke} strokeWidth="2" />
          <path d="M-19 .5H-12" stroke={stroke} strokeWidth="3" />
          <path d="M-15.5 9V27M-7 .5H2" stroke={stroke} strokeWidth="2" />
          <rect x="2" y="-17" width="23" height="34" fill={fill} stroke={stroke} strokeWidth="2" />
          <path d="M7-11H20V-4H7Z" fill="none" stroke={stroke} strokeWidth="1.6" />
          <circle cx="13.5" cy="6" r="3" fill="none" stroke={stroke} strokeWidth="1.6" />
        </>
      )
    case 'board':
      return (
        <>
          <rect x="-21" y="-15" width="42" height="30" fill={fill} stroke={stroke} strokeWidth="2" />
          {[-13, -4, 5, 14].map((x) => (
            <path key={x} d={`M${x}-8V8`} stroke={stroke} strokeWidth="3" />
          ))}
        </>
      )
    case 'rcd':
      return (
        <>
          <rect x="-14" y="-18" width="28" height="36" fill={fill} stroke={stroke} strokeWidth="2" />
          <ellipse cx="0" cy="6" rx="9" ry="4" fill="none" stroke={stroke} strokeWidth="2" />
          <circle cx="5" cy="-9" r="3.4" fill={fill} stroke={stroke} strokeWidth="2" />
        </>
      )
    case 'charge-point':
      return (
        <>
          <rect x="-17" y="-22" width="22" height="44" fill={fill} stroke={stroke} strokeWidth="2" />
          <circle cx="-6" cy="-10" r="5" fill="none" stroke={stroke} strokeWidth="2" />
          <path d="M-11 4H-1" stroke={stroke} strokeWidth="2" />
          <path d="M5 8H12V18Q12 22 16 22T20 18V-6" fill="none" stroke={stroke} strokeWidth="2" />
          <path d="M15-6H25V-14H15Z" fill={fill} stroke={stroke} strokeWidth="2" />
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

export function SunSymbol() {
  return (
    <svg width="44" height="44" viewBox="-22 -22 44 44" aria-hidden="true">
      <circle r="9" fill="var(--close-fill)" stroke="var(--mark-edge)" strokeWidth="1.8" />
      {[0, 45, 90, 135, 180, 225, 270, 315].map((angle) => (
        <path key={angle} d="M13.5 0H18" transform={`rotate(${angle})`} stroke="var(--ink)" strokeWidth="2" />
      ))}
    </svg>
  )
}
