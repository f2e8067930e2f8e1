import { evaluate } from '@/core/evaluate'
import type { Facts } from '@/core/record/facts'
import { conditions, START_ms } from '@/core/testing/factsBuilder'
import { Bench } from '../bench/Bench'
import type { BenchProps } from '../bench/types'
import { noActions } from './noActions'
import { noDrafts } from './noDrafts'

const nothing = (): undefined => undefined

type Props = { facts: Facts; stepKey: string } & Partial<
  Pick<BenchProps, 'actions' | 'conditions' | 'latest' | 'opened' | 'drafts' | 'instrumentId'>
>

/** The bench for a step of these facts; where nothing else is said with no instrument and in the builder's light. */
export function TestBench({
  facts,
  stepKey,
  actions = noActions,
  conditions: light = conditions(),
  latest = {},
  opened = 0,
  drafts = noDrafts,
  instrumentId = null,
}: Props) {
  const evaluation = evaluate(facts, START_ms)
  return (
    <Bench
      facts={facts}
      evaluation={evaluation}
      one={evaluation.byKey.get(stepKey)!}
      stepNumber="step"
      canWrite
      conditions={light}
      without={null}
      latest={latest}
      watched={[]}
      opened={opened}
      instrumentId={instrumentId}
      setInstrument={nothing}
      actions={actions}
      drafts={drafts}
      onLook={nothing}
      side={null}
    />
  )
}
