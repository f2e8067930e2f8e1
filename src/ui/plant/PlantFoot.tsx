'use client'
import { Button } from 'antd'
import type { StepEvaluation } from '@/core/evaluation/types'
import type { Trouble } from '@/core/evaluation/troubles'
import { lackingIn, missingOf } from '@/core/plant/missing'
import type { Part } from '@/core/plant/part'
import { partName, say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'
import { labelOf } from './partForm'

type Props = {
  troubles: readonly Trouble[]
  /** What the check of the plant comes to as a whole, null where nothing is checked. */
  check: StepEvaluation | null
  /** Parts in service, as they are asked. */
  parts: readonly Part[]
  /** How many parts of a table stand in pencil, null where none is read. */
  drafts: number | null
  isEmpty: boolean
  onSelect(id: string): void
  onReady(): void
}

/** What stands against the plant as it is entered, the worst first, and the way to the run sheet. */
export function PlantFoot({ troubles, check, parts, drafts, isEmpty, onSelect, onReady }: Props) {
  const lacking = lackingIn(parts)
  const [worst] = troubles
  const said = saidOf({ worst, check, lacking, drafts, isEmpty })
  const to = worst?.part ?? lacking[0]
  return (
    <div className={`plant-foot ${said.verdict ?? ''}`} role="status">
      {said.verdict && <Mark verdict={said.verdict} size={24} />}
      <p>
        <b>{said.title}</b>
        <span>{said.text}</span>
      </p>
      {to && drafts === null && (
        <Button onClick={() => onSelect(to.id)} data-testid="go-to">
          {say('foot.go-to', { part: to.data.kind === 'site' ? partName(to) : to.data.tag })}
        </Button>
      )}
      {!isEmpty && drafts === null && (
        <Button type="primary" onClick={onReady} data-testid="ready">
          {say('foot.ready')}
        </Button>
      )}
    </div>
  )
}

type Saying = {
  worst: Trouble | undefined
  check: StepEvaluation | null
  lacking: readonly Part[]
  drafts: number | null
  isEmpty: boolean
}

function saidOf({ worst, check, lacking, drafts, isEmpty }: Saying) {
  if (drafts !== null)
    return { verdict: 'not-yet', title: say('foot.pencil', { count: drafts }), text: say('foot.pencil-is') } as const
  if (isEmpty) return { verdict: 'not-yet', title: say('foot.empty'), text: say('foot.empty-is') } as const
  if (worst) {
    const { part, one } = worst
    return {
      verdict: one.verdict,
      title: say(one.verdict === 'outside' ? 'foot.outside' : 'foot.close', { part: partName(part) }),
      text: sayCode('finding', one.finding.code, one.finding.figures),
    }
  }
  const [first] = lacking
  if (first) {
    const names = missingOf(first.data).map((field) => labelOf(field).split(',')[0]!.toLowerCase())
    return {
      verdict: 'not-yet',
      title: say('foot.missing', { count: lacking.length }),
      text: say('foot.missing-is', { part: partName(first), what: names.join(', ') }),
    } as const
  }
  return {
    verdict: check?.verdict ?? null,
    title: say('foot.whole'),
    text: check ? sayCode('finding', check.finding.code, check.finding.figures) : say('foot.whole-is'),
  }
}
