'use client'
import { useCallback, useRef, useState } from 'react'
import type { PartData } from '@/core/plant/part'
import type { JobStore } from '../device/jobStore'

/** A part as it is to be; null where it is taken out. */
export type Change = { id: string; data: PartData | null }
type Done = { id: string; before: PartData | null; after: PartData | null }[]
type History = { done: readonly Done[]; undone: readonly Done[] }

const ways = ({ done, undone }: History) => ({ canUndo: done.length > 0, canRedo: undone.length > 0 })

/** So many steps may be taken back after the page was loaded anew. */
const MOST_REMEMBERED = 40
const keyOf = (jobId: string): string => `upstand.undo.${jobId}`

/** What this tab did before it was loaded anew; another tab has its own. */
function historyOf(jobId: string): History {
  try {
    return (JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? 'null') as History | null) ?? { done: [], undone: [] }
  } catch {
    return { done: [], undone: [] }
  }
}

function rememberHistory(jobId: string, { done, undone }: History): void {
  const kept: History = { done: done.slice(-MOST_REMEMBERED), undone: undone.slice(-MOST_REMEMBERED) }
  try {
    sessionStorage.setItem(keyOf(jobId), JSON.stringify(kept))
  } catch {
    // No room: what was done stays done, and can be undone until the page goes.
  }
}

/**
 * Plant changes as entries; what was done together is kept, undone and done again together, newest first, by further
 * entries: nothing is ever taken back.
 */
export function usePlantChanges(store: JobStore) {
  // What was done is known at once: whoever undoes twice in a breath undoes two things.
  const [before] = useState(() => historyOf(store.jobId))
  const history = useRef(before)
  const [{ canUndo, canRedo }, show] = useState(ways(before))
  const remember = useCallback(
    (next: History): void => {
      history.current = next
      rememberHistory(store.jobId, next)
      show(ways(next))
    },
    [store],
  )
  const put = useCallback(
    async (changes: readonly Change[]): Promise<Done | null> => {
      const parts = store.read().evaluation?.parts
      const step = changes.map(({ id, data }) => {
        const now = parts?.get(id)
        return { id, before: now && !now.retired ? now.data : null, after: data, base: now?.revision || null }
      })
      const kept = await store.addAll(
        step.map(({ id, before, after, base }) => ({
          body: { kind: 'plant-change', v: 1, before, after, base },
          about: { partId: id },
        })),
      )
      return kept ? step : null
    },
    [store],
  )
  const apply = useCallback(
    async (changes: readonly Change[]): Promise<boolean> => {
      const step = await put(changes)
      if (step) remember({ done: [...history.current.done, step], undone: [] })
      return step !== null
    },
    [put, remember],
  )
  const undo = async (): Promise<void> => {
    const { done, undone } = history.current
    const last = done.at(-1)
    if (!last) return
    remember({ done: done.slice(0, -1), undone: [...undone, last] })
    await put([...last].reverse().map(({ id, before }) => ({ id, data: before })))
  }
  const redo = async (): Promise<void> => {
    const { done, undone } = history.current
    const last = undone.at(-1)
    if (!last) return
    remember({ done: [...done, last], undone: undone.slice(0, -1) })
    await put(last.map(({ id, after }) => ({ id, data: after })))
  }
  return { apply, undo, redo, canUndo, canRedo }
}
