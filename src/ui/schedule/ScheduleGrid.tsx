'use client'
import { Button } from 'antd'
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { unitSpellings } from '@/core/quantity/unit'
import type { Facts } from '@/core/record/facts'
import type { AnyReadStep } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import type { JobStore } from '../device/jobStore'
import { GridRow } from './GridRow'
import { cellsOf, type Column, columnsOf, type Row } from './model'
import { ScheduleFoot } from './ScheduleFoot'
import { SetUpBar } from './SetUpBar'
import { useSchedule } from './useSchedule'
import { useStable } from './useStable'

type Props = {
  title: string
  store: JobStore
  facts: Facts
  evaluation: Evaluation
  steps: readonly AnyReadStep[]
  rows: readonly Row[]
  canWrite: boolean
  onBench(one: StepEvaluation): void
}

const isSameColumns = (a: readonly Column[], b: readonly Column[]): boolean =>
  a.length === b.length && a.every(({ step, slot }, k) => step === b[k]!.step && slot === b[k]!.slot)

type Place = { row: number; column: number }

/** One grid: arrows, Enter and Tab move, a block can be pasted, and what is typed is judged at once. */
export function ScheduleGrid(props: Props) {
  const { facts, evaluation, steps, rows, canWrite, onBench, title } = props
  const schedule = useSchedule(props)
  const { setUp, drafts } = schedule
  const now = useMemo(() => columnsOf(steps, rows, facts.regime, setUp), [steps, rows, facts.regime, setUp])
  const columns = useStable(now, isSameColumns)
  const [at, setAt] = useState<Place | null>(null)
  const table = useRef<HTMLTableElement>(null)

  const cellAt = (place: Place | null) => {
    const column = place ? columns[place.column] : undefined
    const row = place ? rows[place.row] : undefined
    const one = column && row?.byStep.get(column.step)
    return column && row && one ? { column, row, one } : null
  }
  const here = cellAt(at)
  const isAsked = (row: Row, column: Column): boolean =>
    cellsOf(column.step, row.part, facts.regime, setUp).includes(column.slot)

  /** Leaves a cell: the test of it is kept where all its cells are there and the next cell is another test's. */
  const leave = (to: Place | null): void => {
    const next = cellAt(to)
    if (here && here.one !== next?.one) void schedule.keep(here.one)
    setAt(to)
  }
  const step = (from: Place, by: { row?: number; column?: number }): Place => {
    const place = { row: from.row, column: from.column }
    for (let n = 0; n < rows.length + columns.length; n++) {
      place.row += by.row ?? 0
      place.column += by.column ?? 0
      const row = rows[place.row]
      const column = columns[place.column]
      if (!row || !column) return from
      if (isAsked(row, column)) return { ...place }
    }
    return from
  }
  const onKey = (event: KeyboardEvent<HTMLTableElement>): void => {
    if (!at || !here) return
    if (event.key === 'Escape') {
      schedule.write(here.one, here.column.slot, '')
      return event.preventDefault()
    }
    if (event.key === 'p' && event.altKey) {
      void schedule.press(here.one, here.column.slot)
      return event.preventDefault()
    }
    const by = moveOf(event)
    if (!by) return
    const to = step(at, by)
    event.preventDefault()
    if (to.row === at.row && to.column === at.column) void schedule.keep(here.one)
    leave(to)
  }

  useEffect(() => {
    if (!at) return
    const input = table.current?.querySelector<HTMLInputElement>('td.on input')
    input?.focus()
    input?.select()
  }, [at])

  const draftHere = here && drafts[here.one.key]
  const asked = here && draftHere ? schedule.judged(here.one, draftHere).ask : undefined
  // Whichever way a cell is left, by key or by finger, its test is kept.
  const leaving = useRef(leave)
  leaving.current = leave
  const open = useCallback((row: number, column: number) => leaving.current({ row, column }), [])
  return (
    <section aria-label={title}>
      <h2 className="sect">
        {title} <span>{rows.length}</span>
      </h2>
      <SetUpBar steps={steps} rows={rows} facts={facts} setUp={setUp} canWrite={canWrite} onChoose={schedule.choose} />
      <div className="gridwrap">
        <table
          ref={table}
          aria-label={title}
          className="cells own-table"
          onKeyDown={onKey}
          onBlur={(event) => {
            if (here && !event.currentTarget.contains(event.relatedTarget)) void schedule.keep(here.one)
          }}
          onPaste={(event) => {
            const text = event.clipboardData.getData('text/plain')
            if (!at || !canWrite || !/[\t\n]/.test(text)) return
            event.preventDefault()
            void schedule.paste(text, columns, at)
          }}
        >
          <Head steps={steps} columns={columns} />
          <tbody>
            {rows.map((row, r) => (
              <GridRow
                key={row.part.id}
                row={row}
                index={r}
                columns={columns}
                facts={facts}
                setUp={setUp}
                canWrite={canWrite}
                onColumn={at?.row === r ? at.column : null}
                drafts={steps.map((one) => drafts[row.byStep.get(one)?.key ?? ''])}
                evaluation={evaluation}
                onOpen={open}
                onWrite={schedule.write}
                judgedVerdict={(one, draft) => schedule.judged(one, draft).verdict}
              />
            ))}
          </tbody>
        </table>
      </div>
      <ScheduleFoot
        here={here}
        rows={rows}
        steps={steps}
        drafts={drafts}
        judged={schedule.judged}
        said={schedule.said}
        onBench={onBench}
      >
        {asked && here && (
          <Button
            className="small"
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => void schedule.confirm(here.one, asked)}
            data-testid="schedule-confirm"
          >
            {say('ask.keep')}
          </Button>
        )}
        {here && canWrite && here.column.slot.measures && (
          <Button
            className="small"
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => void schedule.press(here.one, here.column.slot)}
            data-testid="schedule-press"
          >
            {say('standin.press', {
              tag: facts.instruments.find((tool) => tool.id === schedule.toolOf(here.one))?.tag ?? '',
            })}{' '}
            <kbd>Alt P</kbd>
          </Button>
        )}
      </ScheduleFoot>
    </section>
  )
}

/** Where a key moves to: up and down always, left and right from the ends of what is typed. */
function moveOf({ key, shiftKey, target }: KeyboardEvent): { row?: number; column?: number } | null {
  if (key === 'ArrowUp' || (key === 'Enter' && shiftKey)) return { row: -1 }
  if (key === 'ArrowDown' || key === 'Enter') return { row: 1 }
  const input = target instanceof HTMLInputElement ? target : null
  const whole = !input || isAllSelected(input)
  if (key === 'ArrowLeft' && (whole || (input.selectionStart === 0 && input.selectionEnd === 0))) return { column: -1 }
  if (key === 'ArrowRight' && (whole || input.selectionStart === input.value.length)) return { column: 1 }
  return null
}

const isAllSelected = (input: HTMLInputElement): boolean =>
  input.value !== '' && input.selectionStart === 0 && input.selectionEnd === input.value.length

function Head({ steps, columns }: { steps: readonly AnyReadStep[]; columns: readonly Column[] }) {
  return (
    <thead>
      <tr>
        <th rowSpan={2} scope="col">
          {say('schedule.part')}
        </th>
        {steps.map((step) => {
          const span = columns.filter((one) => one.step === step).length
          return (
            span > 0 && (
              <th key={step.id} colSpan={span} scope="colgroup" className="over">
                {step.order} {sayCode('step', `${step.id}.short`)}
              </th>
            )
          )
        })}
      </tr>
      <tr>
        {columns.map(({ id, slot }) => (
          <th key={id} scope="col">
            {sayCode('slot', slot.id)}
            <small>{slot.kind === 'number' ? unitSpellings[slot.unit].written : ''}</small>
          </th>
        ))}
      </tr>
    </thead>
  )
}
