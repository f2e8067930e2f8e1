import type { PlannedTrip } from '@/core/steps/charge-point/tripPlan'
import type { Verdict } from '@/core/verdict/verdict'
import { unitSpellings } from '@/core/quantity/unit'
import { say } from '@/words/say'
import { MarkShape } from '../mark/Mark'

export type TripFigure = { slot: string; text: string; value: number; verdict: Verdict }
type Props = { trips: readonly PlannedTrip[]; figures: readonly TripFigure[]; now: string | null }

const WIDE = 200
/** How much of the bar lies beyond the limit. */
const BEYOND = 1.35

/** What a row of trips is called: what flows, or that it rises. */
export function tripName({ current_mA, isDirect, slot }: PlannedTrip): string {
  if (current_mA === null) return say(isDirect ? 'guide.ramp-dc' : 'guide.ramp')
  return say(isDirect ? 'guide.direct' : 'guide.current', { current: current_mA, id: slot.id })
}

/** Trips that differ by their half-wave or polarity only stand on one rule. */
function pairsOf(trips: readonly PlannedTrip[]): PlannedTrip[][] {
  const pairs = new Map<string, PlannedTrip[]>()
  for (const one of trips) {
    const name = tripName(one)
    pairs.set(name, [...(pairs.get(name) ?? []), one])
  }
  return [...pairs.values()]
}

/** All trips with their limits: 0 degrees or + above the line, 180 degrees or - below; the one that is due is blue. */
export function TripRules({ trips, figures, now }: Props) {
  return (
    <ul className="trip-rules" aria-label={say('guide.trips-so-far')}>
      {pairsOf(trips).map((pair) => (
        <Pair key={pair[0]!.slot.id} pair={pair} figures={figures} now={now} />
      ))}
    </ul>
  )
}

function Pair({
  pair,
  figures,
  now,
}: {
  pair: readonly PlannedTrip[]
  figures: readonly TripFigure[]
  now: string | null
}) {
  const [first] = pair as [PlannedTrip]
  const { low, high, unit } = first
  const most = (high ?? low ?? 1) * BEYOND
  const x = (value: number): number => Math.min(WIDE - 4, Math.max(4, (value / most) * WIDE))
  const own = pair.flatMap(({ slot, angle_deg }) => {
    const figure = figures.find((one) => one.slot === slot.id)
    return figure ? [{ ...figure, angle_deg }] : []
  })
  const isNow = pair.some(({ slot }) => slot.id === now)
  const from = low === null ? 0 : x(low)
  const to = high === null ? WIDE : x(high)
  const written = unitSpellings[unit].written
  const said = own.map((one) => `${one.text} ${written}, ${say(`verdict.${one.verdict}`)}`).join('; ')
  return (
    <li className={isNow ? 'now' : ''} aria-label={`${tripName(first)}: ${said || say('guide.to-come')}`}>
      <span className="name">{tripName(first)}</span>
      <svg viewBox={`0 0 ${WIDE} 30`} width={WIDE} height="30" aria-hidden="true">
        <path
          d={`M0 8H${WIDE}M0 22H${WIDE}`}
          stroke={own.length > 0 || isNow ? 'var(--ink2)' : 'var(--pencil)'}
          strokeDasharray={own.length > 0 || isNow ? undefined : '4 3'}
        />
        <rect
          x={from}
          y="8"
          width={Math.max(0, to - from)}
          height="14"
          fill={own.length > 0 ? 'var(--within-tint)' : 'none'}
        />
        {low !== null && <path d={`M${from} 3V27h-7`} fill="none" stroke="var(--ink)" strokeWidth="3" />}
        {high !== null && <path d={`M${to} 3V27h7`} fill="none" stroke="var(--ink)" strokeWidth="3" />}
        {own.map((one) => (
          <g key={one.slot} transform={`translate(${x(one.value)} ${one.angle_deg === 0 ? 9 : 21}) scale(0.6)`}>
            <circle r="13" fill="var(--sheet)" />
            <MarkShape verdict={one.verdict} />
          </g>
        ))}
      </svg>
      <span className="read">
        {own.length > 0 ? (
          <>
            <b>{own.at(-1)!.text}</b> {written}
          </>
        ) : null}
      </span>
    </li>
  )
}
