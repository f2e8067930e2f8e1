'use client'
/** Words and drawings of earth and the AC side: they come where a plant has such parts, and nowhere else. */
import { useEffect, useState } from 'react'
import type { Evaluation } from '@/core/evaluation/types'
import { acKinds } from '@/core/plant/part'

let isHere = false

async function load(): Promise<void> {
  const [{ acDrawings }, { rcdDrawings }, { plugDrawings }, { addDrawings }] = await Promise.all([
    import('./hookup/acDrawings'),
    import('./hookup/rcdDrawings'),
    import('./hookup/plugDrawings'),
    import('./hookup/drawings'),
    import('@/words/ac'),
  ])
  addDrawings(acDrawings)
  addDrawings(rcdDrawings)
  addDrawings(plugDrawings)
  isHere = true
}

/** True once everything that this plant's tests say and draw is here. */
export function useAcSide(evaluation: Evaluation | null): boolean {
  const [ready, setReady] = useState(isHere)
  const wanted = evaluation !== null && [...acKinds].some((kind) => evaluation.plant.ofKind(kind).length > 0)
  useEffect(() => {
    if (wanted && !ready) void load().then(() => setReady(true))
  }, [wanted, ready])
  return ready || !wanted
}
