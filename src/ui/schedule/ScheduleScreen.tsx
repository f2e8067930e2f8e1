'use client'
import '@/words/schedule'
import { useMemo, useState } from 'react'
import { boardIdOf, boardsOf } from '@/core/evaluation/boards'
import type { Evaluation } from '@/core/evaluation/types'
import { say } from '@/words/say'
import type { JobStore, Snapshot } from '../device/jobStore'
import type { Live } from '../live/liveFeed'
import { FoldedLine } from '../line/FoldedLine'
import { FoldedRow } from '../shell/FoldedRow'
import type { JobRoute } from '../shell/route'
import { rowsOf } from './model'
import { ScheduleBoard } from './ScheduleBoard'

type Props = {
  store: JobStore
  snapshot: Snapshot
  evaluation: Evaluation
  live: Live
  route: JobRoute
  hasSchedule: boolean
  go(route: JobRoute): void
}

/** The board that is shown first: that of the part one came from, else of what is next, else the first with rows. */
function boardOf(evaluation: Evaluation, partId: string | null): string | null {
  const on = (part: Parameters<typeof boardIdOf>[0] | undefined): string | null =>
    part ? boardIdOf(part, evaluation.plant) : null
  const own = on(partId ? evaluation.parts.get(partId) : undefined)
  if (own) return own
  const boards = boardsOf(evaluation)
    .map(({ part }) => part.id)
    .filter((id) => rowsOf(evaluation, id).length > 0)
  const ofNext = on(evaluation.next ? evaluation.byKey.get(evaluation.next)?.part : undefined)
  return boards.find((id) => id === ofNext) ?? boards[0] ?? null
}

/** The schedule of test results: a board's circuits with all their tests, filled from the keyboard like a spreadsheet. */
export function ScheduleScreen({ store, snapshot, evaluation, live, route, hasSchedule, go }: Props) {
  const [chosen, setBoard] = useState<string | null>(() => boardOf(evaluation, route.partId))
  const boardId = chosen !== null && evaluation.parts.has(chosen) ? chosen : boardOf(evaluation, null)
  const rows = useMemo(() => rowsOf(evaluation, boardId), [evaluation, boardId])
  const toBench = (one: { step: { id: string }; part: { id: string } } | undefined): void => {
    if (one) go({ ...route, view: 'run', step: one.step.id, partId: one.part.id })
  }
  const toStation = (station: string): void => {
    const own = evaluation.steps.filter(({ step }) => step.station === station)
    toBench(own.find((one) => !one.done) ?? own[0])
  }
  return (
    <>
      <FoldedRow route={route} hasSchedule={hasSchedule} go={go}>
        <FoldedLine evaluation={evaluation} boardId={boardId} onBoard={setBoard} onStation={toStation} />
      </FoldedRow>
      {rows.length === 0 ? (
        <p className="pane">{say('schedule.empty')}</p>
      ) : (
        <ScheduleBoard
          key={boardId}
          store={store}
          evaluation={evaluation}
          rows={rows}
          boardId={boardId}
          partId={route.partId}
          live={live}
          mayWrite={snapshot.right !== 'viewer' && !snapshot.notSaved}
          onBoard={setBoard}
          onBench={toBench}
        />
      )}
    </>
  )
}
