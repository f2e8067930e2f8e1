import type { PlugColumn } from '@/core/steps/panel'

const HIGH = 100
const TOP_V = 13.5
const BOTTOM_V = -13.5
const WIDE = 72
/** Pulses drawn in one column: their true rate is a thousand a second. */
const PULSES = 3
const LOW_V = -12
const LINES_V = [12, 9, 6, 3, 0, -12]
/** Every line at which a number has room. */
const NUMBERED_V = [12, 6, 0, -12]

const yOf = (volts: number): number => ((TOP_V - volts) / (TOP_V - BOTTOM_V)) * HIGH

/** What the pilot does in one state: a level, or pulses from it down to the lower one, as wide as its duty. */
function waveOf({ level_V, band, duty_pct, swings }: PlugColumn): string {
  const level = level_V ?? (band.low + band.high) / 2
  const [from, to] = [6, WIDE - 6]
  if (!swings || duty_pct === null) return `M${from} ${yOf(level)}H${to}`
  const each = (to - from) / PULSES
  const up = (each * Math.min(100, Math.max(0, duty_pct))) / 100
  const pulses = Array.from({ length: PULSES }, (_, k) => {
    const x = from + k * each
    return `M${x} ${yOf(level)}h${up}V${yOf(LOW_V)}h${each - up}${k < PULSES - 1 ? `V${yOf(level)}` : ''}`
  })
  return pulses.join('')
}

/** The pilot of each state as it would look in time: expected levels as boxes, what was read in ink. */
export function PlugTrack({ columns, now }: { columns: readonly PlugColumn[]; now: string | null }) {
  const wide = columns.length * WIDE
  return (
    <svg className="plug-track" viewBox={`0 0 ${wide} ${HIGH}`} width={wide} height={HIGH} aria-hidden="true">
      {LINES_V.map((volts) => (
        <path key={volts} d={`M0 ${yOf(volts)}H${wide}`} stroke="var(--hair)" strokeWidth="1" />
      ))}
      {columns.map((column, k) => {
        const { band, level_V, isAsked, id } = column
        const known = level_V !== null || column.duty_pct !== null
        const stroke = id === now ? 'var(--accent)' : known ? 'var(--ink)' : 'var(--pencil)'
        return (
          <g key={id} transform={`translate(${k * WIDE} 0)`}>
            {id === now && <rect width={WIDE} height={HIGH} fill="var(--accent-tint)" />}
            <rect
              x="4"
              y={yOf(band.high)}
              width={WIDE - 8}
              height={yOf(band.low) - yOf(band.high)}
              fill={isAsked ? 'var(--within-tint)' : 'none'}
              stroke={isAsked ? 'var(--within)' : 'var(--pencil)'}
              strokeWidth="1.4"
              strokeDasharray={isAsked ? undefined : '4 3'}
            />
            {(isAsked || known) && (
              <path
                d={waveOf(column)}
                fill="none"
                stroke={stroke}
                strokeWidth={known || id === now ? 3 : 2}
                strokeDasharray={known ? undefined : '7 4'}
              />
            )}
            <path d={`M${WIDE} 0V${HIGH}`} stroke="var(--hair)" strokeWidth="1" />
          </g>
        )
      })}
    </svg>
  )
}

export const TRACK = { high: HIGH, wide: WIDE, yOf, lines: NUMBERED_V }
