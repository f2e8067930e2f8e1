'use client'
import { Dropdown, Modal } from 'antd'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { say, type WordKey } from '@/words/say'
import { Answered, ask } from '../device/api'
import { type Me, remember } from '../device/store'

const SessionsDialog = dynamic(() => import('./SessionsDialog').then((module) => module.SessionsDialog))
const PasswordDialog = dynamic(() => import('./PasswordDialog').then((module) => module.PasswordDialog))

const JobPeopleDialog = dynamic(() => import('./JobPeopleDialog').then((module) => module.JobPeopleDialog))

const Glossary = dynamic(() => import('../help/Glossary').then((module) => module.Glossary))

type Open = 'glossary' | 'sessions' | 'password' | 'people' | 'no-reception' | null
/** The job that is open. */
type OpenJob = { id: string; number: string; timeZone: string }

/** Who works on this device, and what is theirs: other devices, password, the way out. What waits stays under its own name. */
export function WhoCell({ me, job, onTour }: { me: Me; job?: OpenJob; onTour?: (() => void) | undefined }) {
  const [open, setOpen] = useState<Open>(null)
  const [modal, holder] = Modal.useModal()
  const leave = async (): Promise<void> => {
    try {
      // In another tab somebody else may have signed in: it is not they who leave here.
      await ask('/api/me')
      await ask('/api/auth/sign-out', {})
    } catch (error) {
      // Without reception nobody could come in again.
      if (!(error instanceof Answered)) return setOpen('no-reception')
      if (error.code === 'door.another-person') return window.location.assign('/')
    }
    await remember('me', null)
    window.location.assign('/sign-in')
  }
  const askToLeave = (): void => {
    modal.confirm({
      title: say('who.leave-ask'),
      content: say('who.leave-why'),
      okText: say('who.leave-yes'),
      cancelText: say('who.leave-no'),
      icon: null,
      onOk: leave,
    })
  }
  const items = [
    ...(job ? [{ key: 'people', label: say('who.people'), onClick: () => setOpen('people') }] : []),
    { key: 'glossary', label: say('who.glossary'), onClick: () => setOpen('glossary') },
    ...(onTour ? [{ key: 'tour', label: say('who.tour'), onClick: onTour }] : []),
    { key: 'sessions', label: say('who.sessions'), onClick: () => setOpen('sessions') },
    ...(me.oneTap ? [] : [{ key: 'password', label: say('who.password'), onClick: () => setOpen('password') }]),
    { key: 'leave', label: say('who.leave'), onClick: askToLeave },
  ]
  const close = (): void => setOpen(null)
  return (
    <>
      <Dropdown menu={{ items }} trigger={['click']} placement="bottomRight">
        <button type="button" className="who-cell" aria-haspopup="menu" aria-label={`${me.name}: ${say('who.menu')}`}>
          <b>{me.name}</b>
          <small>{say(`role.${me.role}` as WordKey)}</small>
        </button>
      </Dropdown>
      {holder}
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
      {open === 'no-reception' && (
        <Modal open title={say('who.leave-ask')} onCancel={close} footer={null}>
          <p>{say('who.no-reception')}</p>
        </Modal>
      )}
    </>
  )
}
