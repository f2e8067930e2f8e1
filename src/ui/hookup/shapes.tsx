/** What the hook-up drawings are put together from: modules, plugs, boxes, leads and numbered balloons. */
import type { ReactNode } from 'react'

export const strong = { fontWeight: 'var(--w-strong)' } as const
const MOST_DRAWN = 11

type ModulesProps = { count: number; x?: number; y?: number; wide?: number; high?: number }

/** Modules in series, drawn across; more than eleven are drawn as eleven. */
export function Modules({ count, x = 9, y = 26, wide = 284, high = 36 }: ModulesProps) {
  const drawn = Math.max(1, Math.min(count, MOST_DRAWN))
  const pitch = wide / drawn
  const own = pitch - 3
  return (
    <>
      {Array.from({ length: drawn }, (_, k) => k * pitch + x).map((at, k) => (
        <g key={at}>
          <rect x={at} y={y} width={own} height={high} fill="var(--well)" stroke="var(--ink)" strokeWidth="1.6" />
          <path
            d={`M${at + own / 2} ${y}V${y + high}M${at} ${y + high / 2}h${own}`}
            stroke="var(--hair)"
            strokeWidth="1"
          />
          {k < drawn - 1 && <path d={`M${at + own} ${y + high - 6}h3`} stroke="var(--ink)" strokeWidth="2.4" />}
        </g>
      ))}
    </>
  )
}

export function Plug({ x, y = 82, sign, joined }: { x: number; y?: number; sign: '+' | '−'; joined?: boolean }) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <path d="M0-20V0" stroke="var(--ink)" strokeWidth="2.4" />
      <rect x="-9" width="18" height="22" fill="var(--well)" stroke="var(--ink)" strokeWidth="2" />
      {joined && <rect x="-9" y="24" width="18" height="20" fill="var(--ink)" />}
      <text y="16" textAnchor="middle" style={{ ...strong, fontSize: 18 }}>
        {sign}
      </text>
    </g>
  )
}

export function Balloon({ x, y, n }: { x: number; y: number; n: number }) {
  return (
    <g>
      <circle cx={x} cy={y} r="10.5" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
      <text x={x} y={y + 5} textAnchor="middle" style={strong}>
        {n}
      </text>
    </g>
  )
}

/** A device as an outlined box. */
export function Box({ x, y, w, h, children }: { x: number; y: number; w: number; h: number; children?: ReactNode }) {
  return (
    <g>
      <rect x={x} y={y} width={w} height={h} fill="var(--well)" stroke="var(--ink)" strokeWidth="2" />
      {children}
    </g>
  )
}

/** An instrument: filled, with what it shows and what it is. */
export function Meter({
  x,
  y,
  w = 92,
  shows,
  name,
}: {
  x: number
  y: number
  w?: number
  shows: string
  name: string
}) {
  return (
    <g>
      <rect x={x} y={y} width={w} height="52" fill="var(--ink)" />
      <text x={x + w / 2} y={y + 22} textAnchor="middle" style={{ ...strong, fill: 'var(--sheet)', fontSize: 18 }}>
        {shows}
      </text>
      <text x={x + w / 2} y={y + 42} textAnchor="middle" style={{ fill: 'var(--sheet)' }}>
        {name}
      </text>
    </g>
  )
}

/** An open switch: nothing passes. */
export function OpenSwitch({ x, y }: { x: number; y: number }) {
  return (
    <g>
      <circle cx={x} cy={y} r="3.4" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      <circle cx={x + 24} cy={y} r="3.4" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      <path d={`M${x + 2} ${y - 3}L${x + 21} ${y - 17}`} stroke="var(--ink)" strokeWidth="3" />
    </g>
  )
}

export function Wire({ d, lead }: { d: string; lead?: 'red' | 'black' | 'earth' }) {
  const stroke = lead === 'red' ? 'var(--lead-red)' : lead === 'earth' ? 'var(--within)' : 'var(--ink)'
  const dash = lead === 'earth' ? '10 4' : undefined
  return <path d={d} fill="none" stroke={stroke} strokeWidth={lead ? 4 : 2.4} strokeDasharray={dash} />
}

/** Earth: three strokes, ever shorter. */
export function Earth({ x, y }: { x: number; y: number }) {
  return (
    <path
      d={`M${x} ${y - 12}V${y}M${x - 13} ${y}h26M${x - 8} ${y + 5}h16M${x - 3} ${y + 10}h6`}
      stroke="var(--ink)"
      strokeWidth="2.4"
    />
  )
}

/** A numbered balloon with its words to the right. */
export function Named({ x, y, n, words }: { x: number; y: number; n: number; words: string }) {
  return (
    <g>
      <Balloon x={x} y={y} n={n} />
      <text x={x + 16} y={y + 5}>
        {words}
      </text>
    </g>
  )
}
