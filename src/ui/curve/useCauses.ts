'use client'
import { useEffect, useMemo, useState } from 'react'
import { causes, toExplain } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Cause } from '@/core/verdict/cause'
import type { ExplainerAnswer } from '@/workers/explainer'

export type CausesFound = {
  list: readonly Cause[]
  /** Share of the work that is done, null where none is under way. */
  working: number | null
  cancel(): void
}
const nothing = (): void => {}

/** Causes of what a step came to. Those of a curve are found beside the screen, with progress; another curve stops them. */
export function useCauses(evaluation: Evaluation, one: StepEvaluation): CausesFound {
  const { judgement, counting } = one
  // biome-ignore lint/correctness/useExhaustiveDependencies: a reading and what it came to are all that is explained
  const question = useMemo(() => toExplain(evaluation, one), [judgement, counting])
  const quick = useMemo(() => (question ? [] : causes(evaluation, one)), [question, evaluation, one])
  const [found, setFound] = useState<CausesFound>({ list: [], working: null, cancel: nothing })
  useEffect(() => {
    if (!question) return
    const worker = new Worker('/explainer.js')
    const cancel = (): void => {
      worker.terminate()
      setFound((before) => ({ ...before, working: null }))
    }
    setFound({ list: [], working: 0, cancel })
    worker.onmessage = ({ data }: MessageEvent<ExplainerAnswer>) =>
      setFound(
        'causes' in data
          ? { list: data.causes, working: null, cancel: nothing }
          : { list: [], working: data.share, cancel },
      )
    worker.onerror = () => setFound({ list: [], working: null, cancel: nothing })
    worker.postMessage(question)
    return () => worker.terminate()
  }, [question])
  return question ? found : { list: quick, working: null, cancel: nothing }
}
