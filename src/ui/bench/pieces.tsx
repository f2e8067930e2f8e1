'use client'
import type { ReactNode } from 'react'
import { Button } from 'antd'
import type { Instrument } from '@/core/record/instrument'
import { say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'
import { LateSelect } from '../shell/LateSelect'
import { yearDay } from '../shell/time'
import { type Draft, type DraftState, type Place, places } from './draft'
import { intoSight } from './useDock'

/** A bolt where it is live, a padlock where it is dead. */
export function TagShape({ dead }: { dead: boolean }) {
  return (
    <svg width="12" height="14" viewBox="0 0 12 14" aria-hidden="true">
      {dead ? (
        <path d="M1 6H11V13H1ZM3 6V4a3 3 0 0 1 6 0V6" fill="none" stroke="currentColor" strokeWidth="1.8" />
      ) : (
        <path d="M7 0 1 8H5L4 14 11 5H7Z" fill="currentColor" />
      )}
    </svg>
  )
}

export function PadShape() {
  return (
    <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
      {[2, 10, 18].flatMap((x) =>
        [0, 7, 14, 21].map((y) => <rect key={`${x} ${y}`} x={x} y={y} width="5" height="5" fill="currentColor" />),
      )}
    </svg>
  )
}

/** Until when it is calibrated; one that ran out may be used, and says so here and on the certificate. */
function Calibrated({ tool }: { tool: Instrument | null }) {
  const due = tool?.calibrationDue
  if (!due) return <span className="small quiet">{say('slot.uncalibrated')}</span>
  const date = yearDay(due, 'UTC')
  if (isInDate(due)) return <span className="small quiet">{say('slot.until', { date })}</span>
  return (
    <span className="small t-outside">
      <Mark verdict="outside" size={16} named={false} /> {say('today.ran-out', { date })}
    </span>
  )
}

const isInDate = (due: string): boolean => Date.parse(`${due}T23:59:59Z`) >= Date.now()

/** Which instrument reads, and until when it is calibrated. */
export function InstrumentCell({
  kit,
  tool,
  canWrite,
  onTool,
  children,
}: {
  kit: readonly Instrument[]
  tool: Instrument | null
  canWrite: boolean
  onTool(id: string): void
  /** Where it is read, in the same box: a row of its own would push the verdict off the screen. */
  children?: ReactNode
}) {
  if (kit.length === 0)
    return (
      <div className="slot auto small quiet">
        <p>{say('slot.no-tool')}</p>
        {children}
      </div>
    )
  return (
    <div className="slot auto">
      <label className="nm" htmlFor="slot-with">
        {say(tool?.standIn ? 'slot.instrument-simulated' : 'slot.instrument')}
      </label>
      <LateSelect
        id="slot-with"
        value={tool?.id ?? null}
        disabled={!canWrite}
        onValue={onTool}
        options={kit.map((one) => ({ value: one.id, text: `${one.tag} ${one.name}` }))}
        testId="instrument"
      />
      <Calibrated tool={tool} />
      {children}
    </div>
  )
}

/** Where a string is read: the same figure means another length of cable. */
export function PlaceSelect({
  place,
  readOnly,
  onPlace,
}: {
  place: Place | null
  readOnly: boolean
  onPlace(place: Place): void
}) {
  return (
    <LateSelect
      id="slot-place"
      label={say('slot.place')}
      value={place ?? 'plugs'}
      disabled={readOnly}
      onValue={(next) => onPlace(next as Place)}
      options={places.map((one) => ({ value: one, text: sayCode('place', one) }))}
      testId="place"
    />
  )
}

/** 1,234 could be either: it is asked about, never guessed. */
export function DecimalAsk({
  draft,
  state,
  slot,
  onChoose,
}: {
  draft: Draft
  state: DraftState
  slot: string
  onChoose(text: string): void
}) {
  const parsed = state.parsed[slot]
  if (parsed?.state !== 'ask') return null
  const [decimal, thousand] = parsed.choices.map((one) => String(one.value)) as [string, string]
  return (
    <div className="ask" ref={intoSight} role="alert">
      <p>{say('refused.thousand-or-decimal', { text: draft.texts[slot] ?? '', decimal, thousand })}</p>
      {[decimal, thousand].map((text) => (
        <Button key={text} onClick={() => onChoose(text)}>
          {text}
        </Button>
      ))}
    </div>
  )
}
