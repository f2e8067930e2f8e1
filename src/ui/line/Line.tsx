'use client'
import { Fragment, type KeyboardEvent, type ReactNode, useRef } from 'react'
import type { StationState } from '@/core/evaluation/types'
import { stationsOfLine } from '@/core/plant/stations'
import { isOpen, type Verdict } from '@/core/verdict/verdict'
import { sayCode, say } from '@/words/say'
import { Mark } from '../mark/Mark'
import { SunSymbol, stationSymbol } from './symbols'

const sides = new Map<string, string>(stationsOfLine.map(({ id, side }) => [id, side]))
/** Two conductors on DC; beyond the inverter there is one. */
const isAc = (station: string | undefined): boolean => station !== undefined && sides.get(station) !== 'dc'
/** Where the line begins here, no sun shines on it. */
const isSunless = (station: string): boolean => sides.get(station) === 'ac'

type Props = {
  stations: readonly StationState[]
  now: string | null
  lanes: readonly Verdict[]
  count: string
  onOpen(station: string): void
  /** Stands in place of the board's station where there are several boards. */
  tree: ReactNode
}

/** The installation as one line from sun to earth: stations are buttons, arrows move along it. */
export function Line({ stations, now, lanes, count, onOpen, tree }: Props) {
  const row = useRef<HTMLElement>(null)
  const onKey = (event: KeyboardEvent): void => {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
    if (!step) return
    const buttons = [...(row.current?.querySelectorAll('button') ?? [])]
    const next = buttons[buttons.indexOf(document.activeElement as HTMLButtonElement) + step]
    if (next) {
      event.preventDefault()
      next.focus()
    }
  }
  return (
    <nav className="stations" aria-label={say('line.name')} ref={row} onKeyDown={onKey}>
      {!isSunless(stations[0]?.station ?? '') && (
        <div className="station" style={{ flex: '0 1 96px', minWidth: 56 }} aria-hidden="true">
          <span className="cap">&nbsp;</span>
          <span className="draw">
            <span className="wire right light" style={{ left: '72%' }} />
            <SunSymbol />
          </span>
        </div>
      )}
      {stations.map(({ station, verdict }, k) => {
        if (station === 'board' && tree) return <Fragment key={station}>{tree}</Fragment>
        const pencil = isOpen(verdict)
        const stroke = pencil ? 'var(--pencil)' : 'var(--ink)'
        const fill = now === station ? 'var(--accent-tint)' : 'var(--sheet)'
        const before = k > 0 && !isOpen(stations[k - 1]!.verdict)
        const pen = (inked: boolean): string => (inked ? '' : 'pen')
        return (
          <button
            type="button"
            key={station}
            className={`station ${pencil ? 'pen' : ''} ${now === station ? 'now' : ''}`}
            aria-current={now === station ? 'true' : undefined}
            onClick={() => onOpen(station)}
          >
            <span className="cap">
              {verdict && <Mark verdict={verdict} size={16} />}
              {station === 'strings' && count ? count : sayCode('station', station)}
            </span>
            <span className="draw">
              {k > 0 && <span className={`wire left ${isAc(stations[k - 1]!.station) ? '' : 'pair'} ${pen(before)}`} />}
              {k === 0 && !isSunless(station) && <span className="wire left light" />}
              {(k < stations.length - 1 || !isAc(station)) && (
                <span className={`wire right ${isAc(station) ? '' : 'pair'} ${pen(!pencil)}`} />
              )}
              <svg className="sym" width="60" height="64" viewBox="-30 -32 60 64" aria-hidden="true">
                {stationSymbol(station, stroke, fill, lanes)}
              </svg>
            </span>
          </button>
        )
      })}
    </nav>
  )
}

/** A station that the plant has and no test asks about. */
function StationDot() {
  return (
    <svg className="mk" width="20" height="20" viewBox="-12 -12 24 24" aria-hidden="true">
      <circle r="4" fill="var(--ink)" />
    </svg>
  )
}

/** The line in small, for lists: marks on a wire. */
export function MiniLine({ stations }: { stations: readonly StationState[] }) {
  return (
    <span className="mini">
      {stations.map(({ station, verdict }, k) => (
        <span key={station} style={{ display: 'contents' }}>
          {k > 0 && <i className={isOpen(stations[k - 1]!.verdict) ? 'pen' : ''} />}
          <span title={sayCode('station', station)}>
            {verdict ? <Mark verdict={verdict} size={20} /> : <StationDot />}
          </span>
        </span>
      ))}
    </span>
  )
}
