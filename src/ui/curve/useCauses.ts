'use client'
import { useEffect, useMemo, useState } from 'react'
import { causes, toExplain } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Cause } from '@/core/verdict/cause'
import { askExplainer } from './explainer'

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
    const stop = askExplainer({ ask: 'causes', of: question }, (answer) => {
      if (answer === null) setFound({ list: [], working: null, cancel: nothing })
      else if ('causes' in answer) setFound({ list: answer.causes, working: null, cancel: nothing })
      else if ('share' in answer) setFound({ list: [], working: answer.share, cancel })
    })
    const cancel = (): void => {
      stop()
      setFound({ list: [], working: null, cancel: nothing })
    }
    setFound({ list: [], working: 0, cancel })
    return stop
  }, [question])
  return question ? found : { list: quick, working: null, cancel: nothing }
}
