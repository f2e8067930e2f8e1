'use client'
import { useCallback, useEffect, useState } from 'react'
import type { JobLine } from '@/core/record/jobSummary'
import { say } from '@/words/say'
import { Answered, ask, NoReception } from '../device/api'
import { type Me, recall, remember } from '../device/store'

export type List =
  | { state: 'loading' }
  | { state: 'here'; jobs: JobLine[]; at: string; reception: boolean }
  | { state: 'none'; why: string }

const LOOK_EVERY_ms = 30_000
/** What an older version of this page left on the device lacks what this one reads: it is read anew. */
const KEPT_AS = 'jobs-2'

/** The jobs of somebody, read again and again; without reception those that the device remembers. */
export function useJobs(me: Me | null): { list: List; again(): void } {
  const [list, setList] = useState<List>({ state: 'loading' })
  const load = useCallback(async (): Promise<List | null> => {
    if (!me) return null
    const key = `${KEPT_AS}:${me.id}`
    try {
      const { jobs } = await ask<{ jobs: JobLine[] }>('/api/jobs')
      const at = new Date().toISOString()
      await remember(key, { jobs, at })
      return { state: 'here', jobs, at, reception: true }
    } catch (error) {
      const kept = await recall<{ jobs: JobLine[]; at: string }>(key)
      if (kept) return { state: 'here', ...kept, reception: !(error instanceof NoReception) }
      return { state: 'none', why: error instanceof Answered ? error.message : say('today.no-reception') }
    }
  }, [me])
  const again = useCallback(() => {
    void load().then((next) => next && setList(next))
  }, [load])
  useEffect(() => {
    again()
    const timer = setInterval(again, LOOK_EVERY_ms)
    return () => clearInterval(timer)
  }, [again])
  return { list, again }
}
