'use client'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { say, type WordKey } from '@/words/say'
import type { Me } from '../device/store'
import { PressMenu } from './PressMenu'

const SessionsDialog = dynamic(() => import('./SessionsDialog').then((module) => module.SessionsDialog))
const PasswordDialog = dynamic(() => import('./PasswordDialog').then((module) => module.PasswordDialog))

const JobPeopleDialog = dynamic(() => import('./JobPeopleDialog').then((module) => module.JobPeopleDialog))

const LeaveDialog = dynamic(() => import('./LeaveDialog').then((module) => module.LeaveDialog))
const Glossary = dynamic(() => import('../help/Glossary').then((module) => module.Glossary))

type Open = 'glossary' | 'sessions' | 'password' | 'people' | 'leave' | null
/** The job that is open. */
type OpenJob = { id: string; number: string; timeZone: string }

/** Who works on this device, and what is theirs: other devices, password, the way out. What waits stays under its own name. */
export function WhoCell({ me, job, onTour }: { me: Me; job?: OpenJob; onTour?: (() => void) | undefined }) {
  const [open, setOpen] = useState<Open>(null)
  const items = [
    ...(job ? [{ key: 'people', label: say('who.people'), onClick: () => setOpen('people') }] : []),
    { key: 'glossary', label: say('who.glossary'), onClick: () => setOpen('glossary') },
    ...(onTour ? [{ key: 'tour', label: say('who.tour'), onClick: onTour }] : []),
    { key: 'sessions', label: say('who.sessions'), onClick: () => setOpen('sessions') },
    ...(me.oneTap ? [] : [{ key: 'password', label: say('who.password'), onClick: () => setOpen('password') }]),
    { key: 'leave', label: say('who.leave'), onClick: () => setOpen('leave') },
  ]
  const close = (): void => setOpen(null)
  return (
    <>
      <PressMenu
        items={items}
        placement="bottomRight"
        button={
          <button type="button" className="who-cell" aria-haspopup="menu" aria-label={`${me.name}: ${say('who.menu')}`}>
            <b>{me.name}</b>
            <small>{say(`role.${me.role}` as WordKey)}</small>
          </button>
        }
      />
      {open === 'glossary' && <Glossary onClose={close} />}
      {open === 'sessions' && <SessionsDialog onClose={close} />}
      {open === 'password' && <PasswordDialog onClose={close} />}
      {open === 'people' && job && (
        <JobPeopleDialog
          jobId={job.id}
          number={job.number}
          timeZone={job.timeZone}
          mayChange={me.role === 'supervisor'}
          onClose={close}
        />
      )}
      {open === 'leave' && <LeaveDialog onClose={close} />}
    </>
  )
}
