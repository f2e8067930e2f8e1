'use client'
import { Modal } from 'antd'
import { useState } from 'react'
import { say } from '@/words/say'
import { Answered, ask } from '../device/api'
import { remember } from '../device/store'

/** Asks before somebody leaves; without reception nobody could come in again, and that is said instead. */
export function LeaveDialog({ onClose }: { onClose(): void }) {
  const [away, setAway] = useState(false)
  const leave = async (): Promise<void> => {
    try {
      // In another tab somebody else may have signed in: it is not they who leave here.
      await ask('/api/me')
      await ask('/api/auth/sign-out', {})
    } catch (error) {
      if (!(error instanceof Answered)) return setAway(true)
      if (error.code === 'door.another-person') return window.location.assign('/')
    }
    await remember('me', null)
    window.location.assign('/sign-in')
  }
  return (
    <Modal
      open
      title={say('who.leave-ask')}
      onCancel={onClose}
      onOk={leave}
      okText={say('who.leave-yes')}
      cancelText={say('who.leave-no')}
      footer={away ? null : undefined}
    >
      <p>{say(away ? 'who.no-reception' : 'who.leave-why')}</p>
    </Modal>
  )
}
