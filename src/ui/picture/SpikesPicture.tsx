import type { SpikesPicture as Data } from '@/core/steps/picture'
import { figure, say } from '@/words/say'

const WIDE = 344
const HIGH = 192
const FROM = 24
const TO = WIDE - 30
const GROUND = 118
/** Readings stand above the ground, this high at twice the mean. */
const TALL = 92

/** The way from the electrode to the current spike, what was read in each place, and the mean with what it may spread. */
export function SpikesPicture({ picture }: { picture: Data }) {
  const { distance_m, places, mean_ohm, spread_pct } = picture
  const x = (share: number): number => FROM + share * (TO - FROM)
  const height = (ohm: number): number => (mean_ohm ? Math.min(1, ohm / (2 * mean_ohm)) * TALL : 0)
  const half = mean_ohm === null ? 0 : height(mean_ohm) * (spread_pct / 200)
  return (
    <svg
      width="100%"
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label={say('picture.spikes', { places: places.length })}
      style={{ maxWidth: WIDE, marginTop: 8 }}
    >
      {mean_ohm !== null && (
        <g>
          <rect
            x={FROM}
            y={GROUND - height(mean_ohm) - half}
            width={TO - FROM}
            height={2 * half}
            fill="var(--within-tint)"
          />
          <path
            d={`M${FROM} ${GROUND - height(mean_ohm)}H${TO}`}
            stroke="var(--ink)"
            strokeWidth="1.8"
            strokeDasharray="11 3 2.5 3"
          />
          <text x={FROM} y="14" className="lab">
            {say('picture.mean', { mean: mean_ohm, spread: spread_pct / 2 })}
          </text>
        </g>
      )}
      <path d={`M4 ${GROUND}H${WIDE - 4}`} stroke="var(--ink)" strokeWidth="2" />
      <path d={`M${FROM} ${GROUND - 8}v34M${TO} ${GROUND - 8}v22`} stroke="var(--ink)" strokeWidth="5" />
      {places.map(({ share, read_ohm }, k) => (
        <g key={share}>
          <path
            d={`M${x(share)} ${GROUND - 6}v18`}
            stroke={read_ohm === null ? 'var(--pencil)' : 'var(--ink)'}
            strokeWidth="4"
            strokeDasharray={read_ohm === null ? '3 3' : undefined}
          />
          {read_ohm !== null && (
            <circle
              cx={x(share)}
              cy={GROUND - height(read_ohm)}
              r="6"
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth="2"
            />
          )}
          <text x={x(share)} y={GROUND + (k === 0 ? 30 : 46)} textAnchor="middle" className="tick-t">
            {distance_m === null
              ? `${figure(share * 100, 0)} %`
              : say('picture.away', { distance: share * distance_m })}
          </text>
        </g>
      ))}
      <text x="4" y={HIGH - 6} className="lab">
        {say('picture.electrode')}
      </text>
      <text x={WIDE - 4} y={HIGH - 6} textAnchor="end" className="lab">
        {say('picture.current-spike')}
        {distance_m === null ? '' : `, ${say('picture.away', { distance: distance_m })}`}
      </text>
    </svg>
  )
}
