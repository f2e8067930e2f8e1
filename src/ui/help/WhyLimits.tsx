import { heldAgainst } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { SourceId } from '@/core/regime/sources'
import { mainSlot } from '@/core/steps/step'
import type { Judgement } from '@/core/verdict/judgement'
import { say, type WordKey } from '@/words/say'
import { limitText, originsOf } from './whyOf'

type Props = { evaluation: Evaluation; one: StepEvaluation; judgement: Judgement | null }

/** What a test is made for, each limit of it, where that comes from and how sure it is. */
export function WhyLimits({ evaluation, one, judgement }: Props) {
  const { regime } = evaluation.facts
  const judged = judgement?.limits ?? []
  // Before anything is read the limits stand all the same.
  const conditions = one.counting?.entry.body.conditions ?? null
  const limits = judged.length > 0 ? judged : (heldAgainst(evaluation, one, conditions)?.limits ?? [])
  const hasFigure = mainSlot(one.step)?.kind === 'number'
  const rest = judgement?.lines.flatMap((line) => line.source ?? []) ?? []
  const named = [...new Set<SourceId>([...limits.map((limit) => limit.source), ...rest])]
  return (
    <div className="why-limits" data-testid="why-limits">
      <p>{say(`why.${one.step.id}` as WordKey)}</p>
      {limits.length > 0 ? (
        <ul>
          {[...new Set(limits.map(limitText))].map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      ) : (
        <p className="quiet">{say(hasFigure ? 'why.limits-later' : 'why.no-limits')}</p>
      )}
      {originsOf(named, regime.changed).map(({ names, standing }) => (
        <p key={standing} className="small">
          {names.length > 0 && <b>{names.join('; ')}. </b>}
          {standing}
        </p>
      ))}
      <p className="small quiet">{say('why.local', { name: regime.name, version: regime.version })}</p>
    </div>
  )
}
