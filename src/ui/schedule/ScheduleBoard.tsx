'use client'
import { type FocusEvent, useEffect, useMemo, useRef, useState } from 'react'
import { contextIn } from '@/core/evaluation/draft'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { shownFor } from '@/core/steps/step'
import type { Judgement } from '@/core/verdict/judgement'
import { say } from '@/words/say'
import { useMinded } from '../bench/minded'
import type { JobStore } from '../device/jobStore'
import type { Live } from '../live/liveFeed'
import { useKeys } from '../shell/keys'
import { useNarrow, usePhone } from '../shell/narrow'
import { useSize } from '../shell/useSize'
import { columnsOf, groupsOf, type Row, stepsInGrid, underOf } from './model'
import { Groups, ScheduleBar } from './ScheduleBar'
import { ScheduleDock } from './ScheduleDock'
import { ScheduleFoot } from './ScheduleFoot'
import { ScheduleTable, type Sizes } from './ScheduleTable'
import { useGrid } from './useGrid'
import { useSchedule } from './useSchedule'
import { useShown } from './useShown'
import { useStable } from './useStable'

/** So many headings have room beside the circuits. */
const COLUMNS_ON = { tablet: 4, phone: 3 }
/** Width of the circuits' own column, and of the narrowest cell, px. */
const WIDTHS = { wide: [334, 76], tablet: [282, 76], phone: [132, 76] } as const

type Props = {
  store: JobStore
  evaluation: Evaluation
  rows: readonly Row[]
  boardId: string | null
  partId: string | null
  mayWrite: boolean
  live: Live
  onBoard(id: string): void
  onBench(one: StepEvaluation): void
}

/** A board's circuits with all their tests. */
export function ScheduleBoard({ store, evaluation, rows, boardId, partId, mayWrite, live, onBoard, onBench }: Props) {
  const [isNarrow, isPhone] = [useNarrow(), usePhone()]
  const inGrid = useMemo(
    () => stepsInGrid(evaluation).filter((step) => rows.some(({ byStep }) => byStep.has(step))),
    [evaluation, rows],
  )
  const steps = useStable(inGrid, (a, b) => a.length === b.length && a.every((step, k) => step === b[k]))
  const schedule = useSchedule({ store, evaluation, steps, rows, canWrite: mayWrite })
  const all = columnsOf(steps, rows, underOf(evaluation), schedule.setUp)
  const groups = isNarrow ? groupsOf(all, isPhone ? COLUMNS_ON.phone : COLUMNS_ON.tablet) : [steps]
  const [chosen, setGroup] = useState<number | null>(null)
  const toDo = groups.findIndex((group) => group.some((step) => rows.some(({ byStep }) => isToDo(byStep.get(step)))))
  const now = Math.min(chosen ?? Math.max(0, toDo), groups.length - 1)
  const shown = groups[now] ?? []
  const columns = all.filter(({ step }) => shown.includes(step))
  const grid = useGrid({ rows, columns, under: underOf(evaluation), schedule, mayWrite, partId })
  const { at, here, leave } = grid

  const draft = here ? schedule.drafts[here.one.key] : undefined
  const saying = here && draft ? schedule.judged(here.one, draft) : null
  const stood = here ? schedule.stoodAt(here.one) : null
  const minded = useMinded(evaluation, here?.one.part ?? rows[0]!.part)
  const choices = here ? (draft?.choices ?? schedule.setUp[here.one.step.id] ?? {}) : {}
  const before = here ? shownFor(here.one.step, choices, { part: here.one.part, plant: evaluation.plant }) : null
  const isReady = !before || minded.isReady(before.hookup, before.cautions)
  const isShut = here?.one.shut?.hard === true
  const canRead = mayWrite && isReady && !isShut

  const frame = useRef<HTMLDivElement>(null)
  const find = useRef<HTMLDivElement>(null)
  const { width, height } = useSize(frame)
  const [head, least] = WIDTHS[isPhone ? 'phone' : isNarrow ? 'tablet' : 'wide']
  const sizes: Sizes = { width, height, head, least }
  // Once everything is minded the pen is where it was.
  useEffect(() => {
    if (isReady) frame.current?.querySelector<HTMLInputElement>('.on input')?.focus()
  }, [isReady])
  useKeys({
    f: () => find.current?.querySelector('input')?.focus(),
    b: () => here && onBench(here.one),
    y: () =>
      before &&
      minded.tick(
        before.hookup,
        before.cautions.map(({ id }) => id),
      ),
  })
  const tool = here && schedule.toolFor(here.one)
  const shownThere = useShown({
    live,
    evaluation,
    schedule,
    here: canRead ? here : null,
    officeTime: store.officeTime,
    toSlot: grid.toSlot,
  })
  return (
    <section className="sched" aria-label={say('schedule.title')}>
      <ScheduleBar
        evaluation={evaluation}
        schedule={schedule}
        rows={rows}
        steps={shown}
        boardId={boardId}
        mayWrite={mayWrite}
        find={find}
        onBoard={onBoard}
        onRow={grid.toRow}
        onCopy={() => void grid.copy()}
      />
      {isNarrow && groups.length > 1 && (
        <Groups
          groups={groups}
          now={now}
          rows={rows}
          onGroup={(k) => {
            leave(null)
            setGroup(k)
          }}
        />
      )}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: keys of the grid inside it */}
      <div
        ref={frame}
        className="sg"
        onKeyDown={(event) => grid.onKey(event, isReady)}
        onPaste={(event) => void grid.onPaste(event, isReady)}
        onBlur={(event: FocusEvent) => {
          if (here && !event.currentTarget.contains(event.relatedTarget as Node | null)) void schedule.keep(here.one)
        }}
      >
        {width > 0 && (
          <ScheduleTable
            evaluation={evaluation}
            schedule={schedule}
            rows={rows}
            columns={columns}
            at={at}
            entry={grid.entry}
            sizes={sizes}
            canWrite={mayWrite && isReady}
            isDocked={isNarrow}
            onOpen={leave}
          />
        )}
      </div>
      {isNarrow && here && canRead && here.slot.kind === 'number' && stood && (
        <ScheduleDock
          evaluation={evaluation}
          one={here.one}
          slot={here.slot}
          isOneOf={here.isOneOf}
          stood={stood}
          onText={(text) => schedule.write(here.one, here.slot, text)}
        />
      )}
      <ScheduleFoot
        one={here?.one ?? null}
        saying={saying}
        said={schedule.said}
        evaluation={evaluation}
        judgement={here ? judgementOf(evaluation, here.one, stood?.judged?.judgement ?? null) : null}
        rows={rows}
        drafts={schedule.drafts}
        mayKeepOf={(one) => schedule.judged(one, schedule.drafts[one.key]!).mayKeep}
        before={
          before && mayWrite && !isReady && !isShut
            ? {
                cautions: before.cautions,
                ticked: minded.ticked(before.hookup),
                onTick: (list) => minded.tick(before.hookup, list),
              }
            : null
        }
        tester={canRead && here?.slot.measures && tool?.standIn ? tool.tag : null}
        shown={shownThere}
        instrumentTag={(id) => evaluation.facts.instruments.find((one) => one.id === id)?.tag ?? ''}
        onPress={() => void grid.press()}
        onConfirm={(code) => here && void schedule.confirm(here.one, code)}
        onEither={(text) => here && saying?.either && schedule.write(here.one, saying.either.slot, text)}
        onBench={onBench}
      />
    </section>
  )
}

const isToDo = (one: StepEvaluation | undefined): boolean => one !== undefined && !one.done && !one.shut?.hard

/** What a test comes to: as it is typed, else as it was kept, else what it should come to. */
function judgementOf(evaluation: Evaluation, one: StepEvaluation, typed: Judgement | null): Judgement {
  return typed ?? one.judgement ?? one.step.judge(contextIn(evaluation, one, null))
}
