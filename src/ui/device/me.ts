'use client'
import { useEffect, useState } from 'react'
import { Answered, ask, setPerson } from './api'
import { inGoodTime, type Me, recall, remember } from './store'

export type MeState = { state: 'loading' } | { state: 'in'; me: Me } | { state: 'out' }

/** Who works on this device: the server's word, or the last known person where there is no reception. */
export function useMe(): MeState {
  const [state, setState] = useState<MeState>({ state: 'loading' })
  useEffect(() => {
    let gone = false
    const settle = (next: MeState): void => {
      if (!gone) setState(next)
    }
    void (async () => {
      const recalled = inGoodTime(() => recall<Me>('me'))
      try {
        const me = await ask<Me>('/api/me')
        setPerson(me.id)
        void remember('me', me)
        settle({ state: 'in', me })
      } catch (error) {
        if (error instanceof Answered && error.status === 401) {
          await inGoodTime(() => remember('me', null))
          settle({ state: 'out' })
        } else {
          const known = await recalled
          settle(known ? { state: 'in', me: known } : { state: 'out' })
        }
      }
    })()
    return () => {
      gone = true
    }
  }, [])
  useEffect(() => {
    if (state.state === 'out')
      window.location.replace(`/sign-in?then=${encodeURIComponent(window.location.pathname + window.location.hash)}`)
  }, [state])
  return state
}
