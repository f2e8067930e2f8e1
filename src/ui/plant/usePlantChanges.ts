'use client'
import { useCallback, useRef, useState } from 'react'
import type { PartData } from '@/core/plant/part'
import type { JobStore } from '../device/jobStore'

/** A part as it is to be; null where it is taken out. */
export type Change = { id: string; data: PartData | null }
type Done = { id: string; before: PartData | null; after: PartData | null }[]
type History = { done: readonly Done[]; undone: readonly Done[] }

/**
 * Plant changes as entries; what was done together is kept, undone and done again together, newest first, by further
 * entries: nothing is ever taken back.
 */
export function usePlantChanges(store: JobStore) {
  // What was done is known at once: whoever undoes twice in a breath undoes two things.
  const history = useRef<History>({ done: [], undone: [] })
  const [{ canUndo, canRedo }, show] = useState({ canUndo: false, canRedo: false })
  const remember = useCallback((next: History): void => {
    history.current = next
    show({ canUndo: next.done.length > 0, canRedo: next.undone.length > 0 })
  }, [])
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
