'use client'
import { useState } from 'react'
import type { Evaluation } from '@/core/evaluation/types'
import type { Part, PartData } from '@/core/plant/part'
import type { JobStore } from '../device/jobStore'

type Done = { id: string; before: PartData | null }[]

/** Plant changes as entries; each can be undone, newest first, by a further entry: nothing is ever taken back. */
export function usePlantChanges(store: JobStore, evaluation: Evaluation) {
  const [done, setDone] = useState<readonly Done[]>([])
  const put = (id: string, after: PartData | null): Promise<boolean> => {
    const now = evaluation.parts.get(id)
    const before = now && !now.retired ? now.data : null
    return store.add({ kind: 'plant-change', v: 1, before, after, base: now?.revision || null }, { partId: id })
  }
  const change = async (part: Part, after: PartData | null): Promise<void> => {
    if (await put(part.id, after)) setDone([...done, [{ id: part.id, before: part.data }]])
  }
  const add = async (list: readonly { id: string; data: PartData }[]): Promise<void> => {
    for (const one of list) await put(one.id, one.data)
    setDone([...done, list.map((one) => ({ id: one.id, before: null }))])
  }
  const undo = async (): Promise<void> => {
    const last = done.at(-1)
    if (!last) return
    setDone(done.slice(0, -1))
    for (const one of [...last].reverse()) await put(one.id, one.before)
  }
  return { change, add, undo, canUndo: done.length > 0 }
}
