'use client'
import { say, type WordKey } from '@/words/say'
import { ask } from '../device/api'
import { type Me, remember } from '../device/store'

/** Who works on this device; one press hands it to somebody else. What waits in the queue stays under its own name. */
export function WhoCell({ me }: { me: Me }) {
  const leave = async (): Promise<void> => {
    await ask('/api/auth/sign-out', {}).catch(() => undefined)
    await remember('me', null)
    window.location.assign('/sign-in')
  }
  return (
    <button type="button" className="who-cell" onClick={() => void leave()} title={say('who.change')}>
      <b>{me.name}</b>
      <small>{say(`role.${me.role}` as WordKey)}</small>
    </button>
  )
}
