'use client'
import { Table, type TableProps, Tooltip } from 'antd'
import { createElement, type ReactNode, type Ref, useEffect, useLayoutEffect, useRef } from 'react'
import type { PartOf } from '@/core/plant/plantIndex'
import type { Evaluation } from '@/core/evaluation/types'
import { unitSpellings } from '@/core/quantity/unit'
import { columnOf } from '@/core/steps/columns'
import type { Slot } from '@/core/steps/slot'
import type { AnyReadStep } from '@/core/steps/step'
import { hasWords, say, sayCode, sayFinding } from '@/words/say'
import { Mark } from '../mark/Mark'
import { GridCell } from './GridCell'
import { KeptCell } from './KeptCell'
import { type Cell, cellAt, type Column, type Row, underOf } from './model'
import type { Place } from './moves'
import { OpenRow } from './OpenRow'
import { RowHead } from './RowHead'
import { columnName, type Schedule, testName } from './useSchedule'

export type Sizes = { width: number; height: number; head: number; least: number }

type Props = {
  evaluation: Evaluation
  schedule: Schedule
  rows: readonly Row[]
  columns: readonly Column[]
  at: Place | null
  entry: Place | null
  sizes: Sizes
  canWrite: boolean
  /** Figures come from keys on the screen. */
  isDocked: boolean
  onOpen(place: Place): void
}

const HEAD_HEIGHT = 46

/** An element of the table in another part than its own: where it has a role already that one stays. */
const as =
  (tag: 'table' | 'tr' | 'th' | 'div', role: string) =>
  (props: { role?: string }): ReactNode =>
    createElement(tag, { ...props, role: props.role ?? role })

/** Rows and cells of a grid: the table of the headings is drawn for the eye only. */
const parts: TableProps<Row>['components'] = {
  header: { table: as('table', 'presentation'), row: as('tr', 'row'), cell: as('th', 'columnheader') },
  body: { row: as('div', 'row'), cell: as('div', 'gridcell') },
}

/** The grid: only what is in sight is drawn; the row that somebody is in opens below itself. */
export function ScheduleTable(props: Props) {
  const { evaluation, schedule, rows, columns, at, entry, sizes, canWrite, isDocked, onOpen } = props
  const table = useRef<{ scrollTo(to: { key: string }): void; nativeElement: HTMLElement } | null>(null)
  const here = at && rows[at.row]
  useEffect(() => {
    // It stays in sight when keys take room below.
    if (here && sizes.height > 0) table.current?.scrollTo({ key: here.part.id })
  }, [here, sizes.height])
  // The library gives the table itself no role, and what it lies in is announced as busy: a grid holds rows only.
  useLayoutEffect(() => {
    const grid = table.current?.nativeElement.querySelector('.ant-table')
    grid?.setAttribute('role', 'grid')
    grid?.setAttribute('aria-label', say('schedule.title'))
    grid?.setAttribute('aria-rowcount', String(rows.length + 1))
  }, [rows.length])
  const each = Math.max(sizes.least, Math.floor((sizes.width - sizes.head) / Math.max(1, columns.length)))
  const rcdOf = ({ part }: Row): PartOf<'rcd'> | null =>
    part.data.kind === 'circuit' && part.data.rcdId
      ? ((evaluation.parts.get(part.data.rcdId) as PartOf<'rcd'> | undefined) ?? null)
      : null
  const uses = new Map<string, number>()
  for (const row of rows) {
    const id = rcdOf(row)?.id
    if (id) uses.set(id, (uses.get(id) ?? 0) + 1)
  }
  const cell = (row: Row, column: Column) => cellAt(row, column, underOf(evaluation), schedule.setUp)
  /** How many columns from here on say that they are measured elsewhere; none where one before says so. */
  const spanAt = (row: Row, c: number): number => {
    const isElsewhere = (k: number): boolean => columns[k] !== undefined && cell(row, columns[k]).is === 'elsewhere'
    if (!isElsewhere(c)) return 1
    if (isElsewhere(c - 1)) return 0
    let count = 1
    while (isElsewhere(c + count)) count++
    return count
  }
  const shown: TableProps<Row>['columns'] = [
    {
      key: 'head',
      fixed: 'start',
      width: sizes.head,
      title: (
        <div className="hrow">
          <b>{say('schedule.circuit')}</b>
          <em>{say('schedule.device')}</em>
          <em className="rcd">{say('schedule.rcd')}</em>
        </div>
      ),
      onCell: () => ({ role: 'rowheader', className: 'ghead' }),
      render: (_, row) => {
        const rcd = rcdOf(row)
        return <RowHead row={row} rcd={rcd} isShared={rcd !== null && (uses.get(rcd.id) ?? 0) > 1} />
      },
    },
    ...columns.map((column, c) => {
      const first = columns.findIndex((one) => one.step === column.step)
      const count = columns.filter((one) => one.step === column.step).length
      return {
        key: column.id,
        width: each,
        colSpan: c === first ? count : 0,
        title: <Heading step={column.step} columns={columns.slice(first, first + count)} rows={rows} />,
        onCell: (row: Row) => ({
          colSpan: spanAt(row, c),
          className: classOf(cell(row, column).is, c === first),
          'data-cell': `${(row.byStep.get(column.step)?.part ?? row.part).data.tag}.${column.heading.id}`,
        }),
        render: (_: unknown, row: Row, r: number) => {
          const own = cell(row, column)
          if (own.is === 'elsewhere')
            return <span className="quiet">{say('schedule.elsewhere', { tag: own.tag, device: own.device })}</span>
          if (own.is === 'none')
            return (
              <Tooltip title={whyNot(column.step)} trigger={['hover', 'focus', 'click']}>
                <span className="none">{whyNot(column.step)}</span>
              </Tooltip>
            )
          if (own.is === 'kept') return <KeptCell one={own.one} slots={own.slots} />
          const isHere = at?.row === r && at.column === c
          return (
            <GridCell
              one={own.one}
              slots={own.slots}
              apart={own.apart}
              heading={columnName(column)}
              draft={schedule.drafts[own.one.key]}
              judgedIn={evaluation}
              stoodAt={schedule.stoodAt}
              here={isHere}
              isEntry={!at && entry?.row === r && entry.column === c}
              canWrite={canWrite}
              isDocked={isDocked}
              onOpen={() => onOpen({ row: r, column: c, slot: 0 })}
              onText={(typed) => schedule.write(own.one, own.slots[0]!, typed)}
            />
          )
        },
      }
    }),
  ]
  const opened = here && at && columns[at.column] ? cell(here, columns[at.column]!) : null
  return (
    <Table<Row>
      ref={table as Ref<never>}
      virtual
      sticky
      pagination={false}
      rowHoverable={false}
      size="small"
      rowKey={({ part }) => part.id}
      columns={shown}
      dataSource={rows}
      components={parts}
      scroll={{ x: Math.max(sizes.width, sizes.head + each * columns.length), y: sizes.height - HEAD_HEIGHT }}
      onRow={(_, r) => ({ className: at?.row === r ? 'now' : '', 'aria-rowindex': (r ?? 0) + 2 })}
      expandable={{
        showExpandColumn: false,
        // With keys on the screen the one figure stands beside them.
        expandedRowKeys:
          here && opened?.is === 'asked' && !(isDocked && isOneFigure(opened.slots)) ? [here.part.id] : [],
        expandedRowRender: () =>
          at &&
          opened?.is === 'asked' && (
            <OpenRow
              evaluation={evaluation}
              one={opened.one}
              slots={opened.slots}
              title={columnName(columns[at.column]!)}
              at={at.slot}
              stood={schedule.stoodAt(opened.one)}
              canWrite={canWrite}
              isDocked={isDocked}
              onSlot={(slot) => onOpen({ ...at, slot })}
              onText={(slot, typed) => schedule.write(opened.one, slot, typed)}
              onNote={(slot, words) => schedule.note(opened.one, slot, words)}
            />
          ),
      }}
    />
  )
}

const isOneFigure = (slots: readonly Slot[]): boolean => slots.length === 1 && slots[0]!.kind === 'number'

const classOf = (is: Cell['is'], isFirst: boolean): string => `gc ${is} ${isFirst ? 'first' : ''}`

/** Why a test asks nothing of a row: in its own words, or by the kind of part that it is of. */
const whyNot = ({ id, appliesTo }: AnyReadStep): string =>
  [`why-not.${id}`, `why-not.${appliesTo}`].map((key) => (hasWords(key) ? say(key) : '')).find(Boolean) ??
  say('schedule.not-asked')

/** A test with its headings: what it is read in, and the gate where it waits. */
function Heading({ step, columns, rows }: { step: AnyReadStep; columns: readonly Column[]; rows: readonly Row[] }) {
  const all = rows.flatMap(({ byStep }) => byStep.get(step) ?? [])
  // What waits to be read still: a gate that shut behind what was done is no news.
  const open = all.filter((one) => !one.done)
  const shut = open.length > 0 && open.every((one) => one.shut?.hard) ? open[0]!.shut : null
  const units = new Set(step.slots.filter(isFigureOf(step, columns)).map((slot) => slot.kind === 'number' && slot.unit))
  const [unit] = units
  const written = units.size === 1 && unit ? unitSpellings[unit].written : ''
  const several = columns.length > 1
  return (
    <div className={`hcol ${several ? '' : 'alone'}`}>
      <b>
        {shut && (
          <Tooltip title={sayFinding(shut.finding)}>
            <span>
              <Mark verdict="held-back" size={16} />
            </span>
          </Tooltip>
        )}
        {testName(step)}
        {several && written ? `, ${written}` : ''}
      </b>
      <small>
        {columns.map(({ id, heading }, k) => (
          <span key={id}>
            {k === 0 && <u>{step.order}</u>}
            <i>{several ? sayCode('column', heading.id) : written}</i>
          </span>
        ))}
      </small>
    </div>
  )
}

const isFigureOf =
  (step: AnyReadStep, columns: readonly Column[]) =>
  (slot: Slot): boolean =>
    slot.kind === 'number' && !slot.optional && columns.some(({ heading }) => heading.id === columnOf(step, slot).id)
