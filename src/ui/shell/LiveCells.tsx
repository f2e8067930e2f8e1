'use client'
import { useState } from 'react'
import type { Instrument } from '@/core/record/instrument'
import { figure, say } from '@/words/say'
import { Answered } from '../device/api'
import { isFresh, type Live, lightTrend } from '../live/liveFeed'

function Spark({ light }: { light: Live['light'] }) {
  if (light.length < 2) return null
  const from = light[0]!.at
  const span = Math.max(1, light.at(-1)!.at - from)
  const low = Math.min(...light.map((one) => one.value))
  const high = Math.max(...light.map((one) => one.value), low + 20)
  const points = light.map(
    ({ at, value }) => [((at - from) / span) * 56, 24 - ((value - low) / (high - low)) * 18] as const,
  )
  const last = points.at(-1)!
  return (
    <svg className="spark" width="64" height="28" viewBox="0 0 64 28" aria-hidden="true">
      <path d="M0 27.5H64" stroke="var(--hair)" />
      <polyline
        points={points.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <circle cx={last[0]} cy={last[1]} r="3.4" fill="var(--accent)" />
    </svg>
  )
}

type Props = { live: Live; now: number; meter: Instrument | null; onPair(meter: Instrument): Promise<unknown> }

const whyNot = (error: unknown): string => (error instanceof Answered ? error.message : say('record.needs-reception'))

/** Light and warmth as the paired instruments show them now; without one, the kit's light meter can be brought here. */
export function LiveCells({ live, now, meter, onPair }: Props) {
  const [said, setSaid] = useState<string | null>(null)
  const light = live.latest.irradiance
  const back = live.latest['module-back-temperature']
  if (!isFresh(light, now)) {
    return (
      <>
        <div>
          <b className="quiet">{say('live.none')}</b>
          <small>{say('live.none-why')}</small>
        </div>
        {meter && (
          <button
            type="button"
            className="pair"
            onClick={() =>
              onPair(meter).then(
                () => setSaid(null),
                (error) => setSaid(whyNot(error)),
              )
            }
            data-testid="pair"
          >
            <b>{say('live.pair', { tag: meter.tag })}</b>
            {said && <small role="alert">{said}</small>}
          </button>
        )}
      </>
    )
  }
  const trend = lightTrend(live.light)
  return (
    <>
      <div className="live" data-testid="live-light" data-trend={trend.state}>
        <Spark light={live.light} />
        <div>
          <div className="val">
            {figure(light.read.value, 0)} <span>W/m²</span>
          </div>
          <small>{say(`live.${trend.state}`, { seconds: Math.round(trend.seconds) })}</small>
        </div>
      </div>
      {isFresh(back, now) && (
        <div className="live">
          <div>
            <div className="val">
              {figure(back.read.value, 1)} <span>°C</span>
            </div>
            <small>{say('live.back')}</small>
          </div>
        </div>
      )}
    </>
  )
}
