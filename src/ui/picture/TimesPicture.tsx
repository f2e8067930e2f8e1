import type { TimesPicture as Data } from '@/core/steps/picture'
import { figure, say } from '@/words/say'
import { MarkShape } from '../mark/Mark'

const WIDE = 344
const HIGH = 206
const LEFT = 46
const TOP = 12
const BOTTOM = 46
/** Times are told on a scale of decades, from 5 ms to 3 s. */
const SCALE = { least_ms: 5, most_ms: 3000 }
const TICKS_ms = [10, 40, 100, 300, 1000, 2000]

const y = (time_ms: number): number => {
  const share = Math.log(time_ms / SCALE.least_ms) / Math.log(SCALE.most_ms / SCALE.least_ms)
  return TOP + (1 - Math.max(0, Math.min(1, share))) * (HIGH - TOP - BOTTOM)
}

/** Time against the multiple of the rated current: limits as upstands across, readings as marks, both half-waves. */
export function TimesPicture({ picture }: { picture: Data }) {
  const { limits, trips } = picture
  const lane = (WIDE - LEFT - 8) / limits.length
  const x = (multiple: number): number => LEFT + lane * (limits.findIndex((one) => one.multiple === multiple) + 0.5)
  return (
    <svg
      width="100%"
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label={say('picture.times', { trips: trips.length })}
      style={{ maxWidth: WIDE, marginTop: 8 }}
    >
      {TICKS_ms.map((time_ms) => (
        <g key={time_ms}>
          <path d={`M${LEFT} ${y(time_ms)}H${WIDE - 8}`} stroke="var(--hair)" />
          <text x={LEFT - 6} y={y(time_ms) + 5} textAnchor="end" className="tick-t">
            {time_ms >= 1000 ? `${time_ms / 1000} s` : time_ms}
          </text>
        </g>
      ))}
      {limits.map(({ multiple, current_mA, least_ms, most_ms }) => {
        const [from, to] = [x(multiple) - lane / 2 + 6, x(multiple) + lane / 2 - 6]
        const isWait = most_ms === null
        return (
          <g key={multiple}>
            {least_ms !== null && (
              <rect x={from} y={y(least_ms)} width={to - from} height={HIGH - BOTTOM - y(least_ms)} fill="url(#p-no)" />
            )}
            {most_ms !== null && (
              <rect x={from} y={TOP} width={to - from} height={y(most_ms) - TOP} fill="url(#p-no)" />
            )}
            {least_ms !== null && <path d={`M${from} ${y(least_ms)}H${to}`} stroke="var(--ink)" strokeWidth="4" />}
            {most_ms !== null && <path d={`M${from} ${y(most_ms)}H${to}`} stroke="var(--ink)" strokeWidth="4" />}
            <text x={x(multiple)} y={HIGH - 24} textAnchor="middle" className="lab strong">
              {multiple === 0.5 ? '½' : multiple === 1 ? '' : figure(multiple, 0)} IΔn
            </text>
            <text x={x(multiple)} y={HIGH - 7} textAnchor="middle" className="tick-t">
              {say('picture.current', { current: current_mA })}
            </text>
            {isWait && (
              <text x={x(multiple)} y={y(least_ms ?? 300) - 7} textAnchor="middle" className="lab">
                {say('picture.wait')}
              </text>
            )}
          </g>
        )
      })}
      {trips.map((trip) => {
        const at = x(trip.multiple) + (trip.angle_deg === 0 ? -14 : 14)
        return (
          <g key={`${trip.multiple} ${trip.angle_deg}`}>
            <g transform={`translate(${at} ${y(trip.time_ms)}) scale(0.72)`}>
              <MarkShape verdict={trip.verdict} />
            </g>
            {trip.isBound && (
              <path
                d={`M${at} ${y(trip.time_ms) - 11}v-9m-4 4l4-5l4 5`}
                stroke="var(--ink)"
                fill="none"
                strokeWidth="2"
              />
            )}
            <text x={at} y={y(trip.time_ms) + 24} textAnchor="middle" className="tick-t">
              {say(trip.angle_deg === 0 ? 'picture.half-wave-0' : 'picture.half-wave-180')}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
