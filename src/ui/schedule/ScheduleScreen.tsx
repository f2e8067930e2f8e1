'use client'
import '@/words/schedule'
import { useMemo, useState } from 'react'
import type { Evaluation } from '@/core/evaluation/types'
import { kinds, nameOf } from '@/core/plant/kinds'
import type { PartKind } from '@/core/plant/part'
import type { Facts } from '@/core/record/facts'
import { say, type WordKey } from '@/words/say'
import { Cautions } from '../bench/Before'
import { hardCautions } from '../bench/minded'
import type { JobStore, Snapshot } from '../device/jobStore'
import type { JobRoute } from '../shell/route'
import { rowsOf, stepsInGrid } from './model'
import { ScheduleGrid } from './ScheduleGrid'

type Props = {
  store: JobStore
  snapshot: Snapshot
  facts: Facts
  evaluation: Evaluation
  route: JobRoute
  go(route: JobRoute): void
}

/** Kinds of part that have a schedule of their own. */
const KINDS: readonly PartKind[] = kinds
  .filter((kind) => kind.scheduled !== undefined)
  .sort((a, b) => a.scheduled! - b.scheduled!)
  .map(nameOf)

/** The schedule of test results: a row a circuit, a row a device, filled from the keyboard like a spreadsheet. */
export function ScheduleScreen({ store, snapshot, facts, evaluation, route, go }: Props) {
  const [ticked, setTicked] = useState<readonly string[]>([])
  const canWrite = snapshot.right !== 'viewer' && !snapshot.notSaved
  const grids = useMemo(
    () =>
      KINDS.map((kind) => ({ kind, steps: stepsInGrid(evaluation, kind), rows: rowsOf(evaluation, kind) })).filter(
        ({ rows }) => rows.length > 0,
      ),
    [evaluation],
  )
  const hard = hardCautions(grids.flatMap(({ steps }) => [...steps]))
  const ready = hard.every(({ id }) => ticked.includes(id))
  return (
    <section className="pane schedule">
      <div className="dayhd">
        <h1>{say('schedule.title')}</h1>
      </div>
      {grids.length === 0 ? (
        <p style={{ paddingTop: 12 }}>{say('schedule.empty')}</p>
      ) : (
        <>
          <p className="src" style={{ paddingTop: 8 }}>
            {say('schedule.about')}
          </p>
          {canWrite && !ready && (
            <div className="chk row-chk">
              <b>{say('bench.before')}</b>
              <Cautions cautions={hard} ticked={ticked} onTick={setTicked} />
            </div>
          )}
          {grids.map(({ kind, steps, rows }) => (
            <ScheduleGrid
              key={kind}
              title={say(`schedule.of-${kind}` as WordKey)}
              store={store}
              facts={facts}
              evaluation={evaluation}
              steps={steps}
              rows={rows}
              canWrite={canWrite && ready}
              onBench={(one) => go({ ...route, view: 'run', step: one.step.id, partId: one.part.id })}
            />
          ))}
        </>
      )}
    </section>
  )
}
