'use client'
import { say } from '@/words/say'
import type { Snapshot } from '../device/jobStore'
import { Mark } from '../mark/Mark'
import { clockTime } from './time'

function ReceptionShape({ on }: { on: boolean }) {
  return (
    <svg width="26" height="26" viewBox="-13 -13 26 26" aria-hidden="true">
      <path d="M-9-1a13 13 0 0 1 18 0M-5 3.5a7 7 0 0 1 10 0" fill="none" stroke="currentColor" strokeWidth="2.2" />
      <circle cy="8" r="2" fill="currentColor" />
      {!on && <path d="M-10-10 10 10" stroke="currentColor" strokeWidth="2.4" />}
    </svg>
  )
}

/** What is saved where. No reception is normal and blocks nothing; a device that cannot keep an entry is not. */
export function SavedCell({ snapshot, timeZone }: { snapshot: Snapshot; timeZone: string }) {
  const { notSaved, reception, waiting, rejected, held, savedAt } = snapshot
  if (notSaved) {
    return (
      <div className="row bad" role="alert">
        <Mark verdict="outside" size={24} named={false} />
        <div>
          <b>{say('saved.not')}</b>
          <br />
          <small>{say('saved.not-why')}</small>
        </div>
      </div>
    )
  }
  const time = savedAt ? clockTime(savedAt, timeZone) : ''
  const second =
    rejected.length > 0
      ? say('saved.refused', { count: rejected.length })
      : held && waiting > 0
        ? say('saved.held', { count: waiting })
        : waiting > 0
          ? say(reception ? 'saved.sending' : 'saved.waiting', { count: waiting })
          : say(reception ? 'saved.all' : 'saved.no-reception')
  return (
    <div className="row" data-testid="saved" data-waiting={waiting}>
      <ReceptionShape on={reception} />
      <div>
        <b>{say(reception && waiting === 0 ? 'saved.office' : 'saved.here', { time })}</b>
        <br />
        <small>{second}</small>
      </div>
    </div>
  )
}
