'use client'
import { useCallback, useEffect, useState } from 'react'
import { say } from '@/words/say'
import { Answered, ask } from '../device/api'

export type Asked<T> = { state: 'loading' } | { state: 'here'; value: T } | { state: 'none'; why: string }

/** What a door answers, asked again after a change. */
export function useAsked<T>(path: string): [Asked<T>, () => void] {
  const [asked, setAsked] = useState<Asked<T>>({ state: 'loading' })
  const load = useCallback((): void => {
    ask<T>(path).then(
      (value) => setAsked({ state: 'here', value }),
      (error: unknown) => setAsked({ state: 'none', why: whyNot(error) }),
    )
  }, [path])
  useEffect(load, [load])
  return [asked, load]
}

/** The sentence of a door that refused, or that there is no reception. */
export const whyNot = (error: unknown): string =>
  error instanceof Answered ? error.message : say('record.needs-reception')

/** What stands in place of a list that is not there. */
export const quietly = (asked: Asked<unknown>): string =>
  asked.state === 'none' ? asked.why : asked.state === 'loading' ? say('loading.day') : ''
