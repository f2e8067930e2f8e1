'use client'
import type { ReactNode } from 'react'
import type { StepEvaluation } from '@/core/evaluation/types'
import type { AnyReadStep } from '@/core/steps/step'
import { worstFirst } from '@/core/verdict/verdict'
import { say, sayFinding, stepShort } from '@/words/say'
import { Mark } from '../mark/Mark'
import type { Column, Row } from './model'
import type { Drafts, Judged } from './useSchedule'

type Props = {
  here: { column: Column; row: Row; one: StepEvaluation } | null
  rows: readonly Row[]
  steps: readonly AnyReadStep[]
  drafts: Drafts
  judged(one: StepEvaluation, draft: Drafts[string]): Judged
  said: string | null
  onBench(one: StepEvaluation): void
  children: ReactNode
}

/** At the foot of the grid: the cell one is in, what waits, and the worst of all, explained. */
export function ScheduleFoot({ here, rows, steps, drafts, judged, said, onBench, children }: Props) {
  const all = rows.flatMap((row) => steps.flatMap((step) => row.byStep.get(step) ?? []))
  // The worst of what was read here: what waits to be read is no news.
  const bad = all
    .filter((one) => one.counting && one.verdict !== 'within')
    .sort((a, b) => worstFirst(a.verdict, b.verdict))[0]
  const waiting = all.filter((one) => drafts[one.key] && !judged(one, drafts[one.key]!).mayKeep).length
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
          <Mark verdict={bad.verdict} size={20} /> <b>{stepShort(bad)}</b> {sayFinding(bad.finding)}{' '}
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
function saying(one: StepEvaluation, draft: Drafts[string] | undefined, judged: Props['judged']) {
  if (!draft) return { verdict: one.verdict, sentence: sayFinding(one.finding) }
  const { verdict, said } = judged(one, draft)
  return { verdict, sentence: said ?? say('schedule.goes-on') }
}
