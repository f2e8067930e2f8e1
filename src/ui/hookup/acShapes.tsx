/** What the drawings of earth and the AC side are made of. */
import type { ReactNode } from 'react'
import { say } from '@/words/say'
import { Box, Meter, Named, Wire } from './shapes'

export type Lead = (balloon: number) => string

export const Word = ({ x, y, children }: { x: number; y: number; children: ReactNode }) => (
  <text x={x} y={y}>
    {children}
  </text>
)

/** A board: a row of devices in a box, its main switch on the left. */
export function Board({ x, y, on = true }: { x: number; y: number; on?: boolean }) {
  return (
    <Box x={x} y={y} w={96} h={48}>
      {[0, 1, 2, 3, 4].map((k) => (
        <g key={k}>
          <rect
            x={x + 8 + 17 * k}
            y={y + 10}
            width="12"
            height="28"
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
          <path
            d={`M${x + 14 + 17 * k} ${y + (on || k > 0 ? 16 : 26)}v8`}
            stroke="var(--ink)"
            strokeWidth={k === 0 ? 5 : 3}
          />
        </g>
      ))}
    </Box>
  )
}

/** Three conductors of a circuit from a board to its end; the far end is a socket. */
export function Circuit({ joined = false }: { joined?: boolean }) {
  return (
    <>
      <Board x={8} y={40} />
      <Wire d="M104 52H246" />
      <Wire d="M104 64H246" />
      <Wire d="M104 76H246" lead="earth" />
      {joined && <path d="M112 52V76" stroke="var(--lead-red)" strokeWidth="4" />}
      <Box x={246} y={42} w={44} h={44}>
        <circle cx="258" cy="58" r="3.4" fill="var(--ink)" />
        <circle cx="278" cy="58" r="3.4" fill="var(--ink)" />
        <path d="M268 70v8" stroke="var(--ink)" strokeWidth="4" />
      </Box>
    </>
  )
}

export const Tester = ({ x = 150, shows }: { x?: number; shows: string }) => (
  <Meter x={x} y={112} w={104} shows={shows} name={say('hookup.tester-ac')} />
)

/** Ground with hatching below, from x to x. */
export const Ground = ({ y }: { y: number }) => (
  <path
    d={`M4 ${y}H302M16 ${y}l-8 10M56 ${y}l-8 10M96 ${y}l-8 10M136 ${y}l-8 10M176 ${y}l-8 10M216 ${y}l-8 10M256 ${y}l-8 10M296 ${y}l-8 10`}
    stroke="var(--ink)"
    strokeWidth="1.6"
  />
)

export const Spike = ({ x, y, long }: { x: number; y: number; long: number }) => (
  <path d={`M${x} ${y - 12}V${y + long}`} stroke="var(--ink)" strokeWidth="5" />
)

/** Balloons with their words in two columns under a drawing. */
export const Words = ({ lead, count, y = 128 }: { lead: Lead; count: number; y?: number }) => (
  <>
    {Array.from({ length: count }, (_, k) => (
      <Named
        key={lead(k + 1) + String(k)}
        x={22 + (k % 2) * 150}
        y={y + Math.floor(k / 2) * 28}
        n={k + 1}
        words={lead(k + 1)}
      />
    ))}
  </>
)
