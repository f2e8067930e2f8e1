'use client'
import { Button, Segmented, Select } from 'antd'
import { type RefObject, useMemo } from 'react'
import { type BoardState, boardsOf } from '@/core/evaluation/boards'
import type { Evaluation } from '@/core/evaluation/types'
import type { AnyReadStep } from '@/core/steps/step'
import { worst } from '@/core/verdict/verdict'
import { say } from '@/words/say'
import { Mark } from '../mark/Mark'
import type { Row } from './model'
import { SetUpChips } from './SetUpChips'
import { type Schedule, testName } from './useSchedule'

const boardName = ({ part }: BoardState): string => [part.data.tag, part.data.name].filter(Boolean).join(' ')
const rowName = (data: { tag: string; feeds?: string }): string => [data.tag, data.feeds].filter(Boolean).join(' ')

type Props = {
  evaluation: Evaluation
  schedule: Schedule
  rows: readonly Row[]
  steps: readonly AnyReadStep[]
  boardId: string | null
  mayWrite: boolean
  /** Where a circuit is found by its number. */
  find: RefObject<HTMLDivElement | null>
  onBoard(id: string): void
  onRow(partId: string): void
  onCopy(): void
}

/** Which board, where in it, and how its tests are made. */
export function ScheduleBar(props: Props) {
  const { evaluation, schedule, rows, steps, boardId, mayWrite, find, onBoard, onRow, onCopy } = props
  const boards = useMemo(() => boardsOf(evaluation), [evaluation])
  const kit = evaluation.facts.instruments.filter((tool) =>
    steps.some(({ slots }) =>
      slots.some(({ measures }) => measures && tool.ranges.some((range) => range.measures === measures)),
    ),
  )
  const measured = rows.flatMap(({ byStep }) => steps.flatMap((step) => byStep.get(step) ?? []))
  const reader = measured.map((one) => schedule.toolFor(one)).find((tool) => tool !== null) ?? null
  return (
    <div className="schedbar">
      {boards.length > 1 ? (
        <Select<string>
          className="board"
          variant="borderless"
          size="small"
          aria-label={say('schedule.board')}
          value={boardId}
          popupMatchSelectWidth={false}
          onChange={onBoard}
          options={boards.map((board) => ({ value: board.part.id, label: boardName(board) }))}
          data-testid="schedule-board"
        />
      ) : (
        <b className="board">{boards[0] ? boardName(boards[0]) : ''}</b>
      )}
      <span className="quiet count">
        {say('schedule.count', { count: rows.filter(({ part }) => part.data.kind === 'circuit').length })}
      </span>
      <div ref={find}>
        <Select<string>
          className="find"
          size="small"
          showSearch={{ optionFilterProp: 'label' }}
          value={null}
          placeholder={say('schedule.find')}
          aria-label={say('schedule.find-name')}
          popupMatchSelectWidth={false}
          onChange={onRow}
          options={rows.map(({ part }) => ({ value: part.id, label: rowName(part.data) }))}
          data-testid="schedule-find"
        />
      </div>
      <SetUpChips
        evaluation={evaluation}
        steps={steps}
        rows={rows}
        setUp={schedule.setUp}
        canWrite={mayWrite}
        onChoose={schedule.choose}
        kit={kit}
        tool={reader}
        onTool={schedule.chooseTool}
      />
      <Button className="chip" onClick={onCopy} data-testid="schedule-copy">
        {say('schedule.copy')}
      </Button>
    </div>
  )
}

type GroupsProps = {
  groups: readonly (readonly AnyReadStep[])[]
  now: number
  rows: readonly Row[]
  onGroup(k: number): void
}

/** On a narrow screen some tests at a time, each group with its worst mark. */
export function Groups({ groups, now, rows, onGroup }: GroupsProps) {
  return (
    <Segmented<number>
      aria-label={say('schedule.groups')}
      block
      className="schedgroups"
      value={now}
      onChange={onGroup}
      options={groups.map((steps, k) => ({
        value: k,
        label: (
          <span>
            <Mark
              verdict={worst(rows.flatMap(({ byStep }) => steps.flatMap((step) => byStep.get(step)?.verdict ?? [])))}
              size={16}
            />{' '}
            {steps.map(testName).join(', ')}
          </span>
        ),
      }))}
    />
  )
}
