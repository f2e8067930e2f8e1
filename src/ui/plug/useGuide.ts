import { useCallback, useEffect, useRef, useState } from 'react'
import {
  byNow,
  freshGuide,
  type Guide,
  guideFrom,
  type Move,
  moved,
  type Ritual,
} from '@/core/steps/charge-point/tripGuide'
import { recall, remember } from '../device/store'

const TICK_ms = 250

export type GuideState = {
  guide: Guide
  now: number
  move(move: Move): Promise<Guide>
  mark(step: string): Promise<void>
}

/**
 * Where somebody is in the ritual, kept on the device at each moment: a reload, a call, a phone that locks or an hour come
 * back to the same one. Null until it was looked up.
 *
 * @param key of the person, the job and the point.
 */
export function useGuide(key: string, ritual: Ritual): GuideState | null {
  const [guide, setGuide] = useState<Guide | null>(null)
  const [now, setNow] = useState(() => Date.now())
  const latest = useRef<Guide | null>(null)
  const put = useCallback(
    async (next: Guide): Promise<void> => {
      latest.current = next
      // What is shown stands on the device already; where that refuses, going on is worth more than coming back.
      await remember(key, next).catch(() => undefined)
      if (latest.current === next) setGuide(next)
    },
    [key],
  )
  useEffect(() => {
    let gone = false
    void recall<unknown>(key).then((stored) => {
      if (gone) return
      const known = guideFrom(stored, ritual)
      const start = known && known.moment !== 'done' ? known : freshGuide(Date.now())
      latest.current = start
      setGuide(start)
    })
    return () => {
      gone = true
    }
  }, [key, ritual])
  useEffect(() => {
    const timer = setInterval(() => {
      setNow(Date.now())
      const known = latest.current
      const then = known && byNow(known, ritual, Date.now())
      if (then && then !== known) void put(then)
    }, TICK_ms)
    return () => clearInterval(timer)
  }, [ritual, put])
  if (!guide) return null
  return {
    guide,
    now,
    move: async (move) => {
      const next = moved(latest.current ?? guide, move, ritual, Date.now())
      await put(next)
      return next
    },
    mark: async (step) => {
      const known = latest.current ?? guide
      await put({ ...known, kept: [...known.kept, step] })
    },
  }
}

/** Asks the device to stay awake while somebody has both hands on an adapter; where it cannot, nothing happens. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null
    const ask = (): void => {
      if (document.visibilityState !== 'visible') return
      void navigator.wakeLock?.request('screen').then(
        (got) => {
          lock = got
        },
        () => undefined,
      )
    }
    ask()
    document.addEventListener('visibilitychange', ask)
    return () => {
      document.removeEventListener('visibilitychange', ask)
      void lock?.release().catch(() => undefined)
    }
  }, [])
}
