'use client'
/** Words and drawings that come only where a plant's tests need them: earth and the AC side, curves, the hunt for a fault. */
import { useEffect, useMemo, useState } from 'react'
import type { Evaluation } from '@/core/evaluation/types'
import { acKinds } from '@/core/plant/part'
import type { AnyStep } from '@/core/steps/step'

type Late = 'ac' | NonNullable<AnyStep['comesWith']>

const loaders: Record<Late, () => Promise<unknown>> = {
  ac: async () => {
    const [{ acDrawings }, { acLookDrawings }, { rcdDrawings }, { plugDrawings }, { addDrawings }] = await Promise.all([
      import('./hookup/acDrawings'),
      import('./hookup/acLookDrawings'),
      import('./hookup/rcdDrawings'),
      import('./hookup/plugDrawings'),
      import('./hookup/drawings'),
      import('@/words/ac'),
    ])
    for (const drawings of [acDrawings, acLookDrawings, rcdDrawings, plugDrawings]) addDrawings(drawings)
  },
  curve: () => import('@/words/curve'),
  fault: async () => {
    const [{ faultDrawings }, { addDrawings }] = await Promise.all([
      import('./hookup/faultDrawings'),
      import('./hookup/drawings'),
      import('@/words/fault'),
    ])
    addDrawings(faultDrawings)
  },
}

const here = new Set<Late>()
const load = async (late: Late): Promise<void> => {
  await loaders[late]()
  here.add(late)
}

/** What the tests of this plant say and draw that no first screen brings. */
function wantedBy(evaluation: Evaluation): Set<Late> {
  const wanted = new Set<Late>()
  if ([...acKinds].some((kind) => evaluation.plant.ofKind(kind).length > 0)) wanted.add('ac')
  for (const { step } of evaluation.steps) if (step.comesWith) wanted.add(step.comesWith)
  return wanted
}

/** A screen that somebody works on must not go away while words are fetched: those of a hunt come before it is needed. */
const SOON_ms = 4000

/** True once everything that this plant's tests say and draw is here. */
export function useLateParts(evaluation: Evaluation | null): boolean {
  const [, setCount] = useState(0)
  const wanted = useMemo(() => (evaluation ? [...wantedBy(evaluation)] : []), [evaluation])
  const missing = wanted.filter((late) => !here.has(late))
  const asked = missing.join(' ')
  useEffect(() => {
    if (asked === '') return
    void Promise.all((asked.split(' ') as Late[]).map(load)).then(() => setCount(here.size))
  }, [asked])
  const hasStrings = (evaluation?.plant.ofKind('string').length ?? 0) > 0
  useEffect(() => {
    if (!hasStrings || here.has('fault')) return
    const timer = setTimeout(() => void load('fault'), SOON_ms)
    return () => clearTimeout(timer)
  }, [hasStrings])
  return missing.length === 0
}
