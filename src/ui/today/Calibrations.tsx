'use client'
import { useEffect, useState } from 'react'
import type { Instrument } from '@/core/record/instrument'
import { CLOSE_DAYS, calibrationVerdict, daysLeft } from '@/core/record/calibration'
import { say } from '@/words/say'
import { ask } from '../device/api'
import { type Me, recall, remember } from '../device/store'
import { Mark } from '../mark/Mark'
import { shortDay, yearDay } from '../shell/time'

/** The stretch of days that the rule shows, today at its place. */
const SHOWN = { from: -60, to: 180 }

function useKit(me: Me | null): Instrument[] {
  const [kit, setKit] = useState<Instrument[]>([])
  useEffect(() => {
    if (!me) return
    void (async () => {
      try {
        const { instruments } = await ask<{ instruments: Instrument[] }>('/api/instruments')
        await remember('kit', instruments)
        setKit(instruments)
      } catch {
        setKit((await recall<Instrument[]>('kit')) ?? [])
      }
    })()
  }, [me])
  return kit
}

/** The rule in its compact form: the day a calibration ends is the upstand, today is blue. */
function DayRule({ days }: { days: number }) {
  const WIDE = 360
  const x = (day: number): number =>
    ((Math.max(SHOWN.from, Math.min(SHOWN.to, day)) - SHOWN.from) / (SHOWN.to - SHOWN.from)) * WIDE
  const [y0, y1] = [8, 24]
  const zone = (from: number, to: number, fill: string) => (
    <rect x={x(from)} y={y0} width={Math.max(0, x(to) - x(from))} height={y1 - y0} fill={fill} />
  )
  return (
    <svg width="100%" height="32" viewBox={`0 0 ${WIDE} 32`} preserveAspectRatio="none" aria-hidden="true">
      {zone(SHOWN.from, days - CLOSE_DAYS, 'var(--within-tint)')}
      {zone(days - CLOSE_DAYS, days, 'url(#p-close)')}
      {zone(days, SHOWN.to, 'url(#p-no)')}
      <path d={`M0 ${y0}H${WIDE}`} stroke="var(--ink)" strokeWidth="1" />
      <path d={`M0 ${y1}H${WIDE}`} stroke="var(--ink)" strokeWidth="2" />
      {days < SHOWN.to && (
        <path d={`M${x(days)} 2V${y1 + 1}M${x(days) - 2.5} ${y1 + 1.5}h18`} stroke="var(--ink)" strokeWidth="5" />
      )}
      <path d={`M${x(0)} 0V31`} stroke="var(--accent)" strokeWidth="4" />
    </svg>
  )
}

export function Calibrations({ me, now }: { me: Me | null; now: number }) {
  const kit = useKit(me)
  const dated = kit
    .filter((one) => one.calibrationDue !== null)
    .map((one) => ({ one, days: daysLeft(one.calibrationDue!, now) }))
    .sort((a, b) => a.days - b.days)
  return (
    <section className="note" aria-labelledby="today-kit">
      <h2 id="today-kit">
        {say('today.kit')} <span>{say('today.soonest')}</span>
      </h2>
      {dated.length === 0 && <p className="src">{say('today.no-kit')}</p>}
      {dated.map(({ one, days }) => (
        <div className="ins" key={one.id}>
          <div className="hd">
            <b>
              <Mark verdict={calibrationVerdict(days)} size={20} /> {one.name} {one.tag}
            </b>
            <span className="small">
              {days < 0
                ? say('today.ran-out', { date: yearDay(one.calibrationDue!, 'UTC') })
                : say('today.days-left', { days, date: yearDay(one.calibrationDue!, 'UTC') })}
            </span>
          </div>
          <DayRule days={days} />
        </div>
      ))}
      {dated.length > 0 && <p className="src">{say('today.kit-key', { date: shortDay(now, 'UTC') })}</p>}
    </section>
  )
}
