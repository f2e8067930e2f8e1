'use client'
import type { ReactNode } from 'react'
import type { StepEvaluation } from '@/core/evaluation/types'
import type { AnyStep } from '@/core/steps/step'
import { type Verdict, worst } from '@/core/verdict/verdict'
import { say, sayCode, stepShort } from '@/words/say'
import { Mark } from '../mark/Mark'
import type { Column, Row } from './model'
import type { Drafts, Judged } from './useSchedule'

type Props = {
  here: { column: Column; row: Row; one: StepEvaluation } | null
  rows: readonly Row[]
  steps: readonly AnyStep[]
  drafts: Drafts
  judged(one: StepEvaluation, draft: Drafts[string]): Judged
  said: string | null
  onBench(one: StepEvaluation): void
  children: ReactNode
}

/** At the foot of the grid: the cell one is in, what waits, and the worst of all, explained. */
export function ScheduleFoot({ here, rows, steps, drafts, judged, said, onBench, children }: Props) {
  const all = rows.flatMap((row) => steps.flatMap((step) => row.byStep.get(step) ?? []))
  const verdict = worst(all.map((one) => one.verdict))
  const bad = all.find((one) => one.verdict === verdict && (verdict === 'outside' || verdict === 'close'))
  const waiting = all.filter((one) => drafts[one.key] && !judged(one, drafts[one.key]!).whole).length
  const now = here && saying(here.one, drafts[here.one.key], judged)
  return (
    <div className="gridfoot" role="status" data-testid="schedule-foot">
      {now && (
        <p data-testid="schedule-here" data-verdict={now.verdict}>
          <Mark verdict={now.verdict} size={20} /> <b>{stepShort(here.one)}</b> {now.sentence}
        </p>
      )}
      {said && <p className="said bad">{said}</p>}
      {bad && bad !== here?.one && (
        <p>
          <Mark verdict={bad.verdict} size={20} /> <b>{stepShort(bad)}</b>{' '}
          {sayCode('finding', bad.finding.code, bad.finding.figures)}{' '}
          <button type="button" className="slim-btn" onClick={() => onBench(bad)}>
            {say('schedule.on-bench')}
          </button>
        </p>
      )}
      <div className="acts-row">
        {children}
        {here && (
          <button type="button" className="slim-btn" onClick={() => onBench(here.one)} data-testid="schedule-bench">
            {say('schedule.on-bench')}
          </button>
        )}
        {waiting > 0 && <span className="quiet">{say('schedule.waiting', { count: waiting })}</span>}
      </div>
    </div>
  )
}

/** What is said of the cell one is in: of what is typed, else of what was kept. */
function saying(
  one: StepEvaluation,
  draft: Drafts[string] | undefined,
  judged: Props['judged'],
): { verdict: Verdict; sentence: string } {
  if (!draft) return { verdict: one.verdict, sentence: sayCode('finding', one.finding.code, one.finding.figures) }
  const { judgement, said } = judged(one, draft)
  if (said) return { verdict: 'held-back', sentence: said }
  if (!judgement) return { verdict: 'not-yet', sentence: say('schedule.goes-on') }
  return {
    verdict: judgement.verdict,
    sentence: sayCode('finding', judgement.finding.code, judgement.finding.figures),
  }
}
