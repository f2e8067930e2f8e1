'use client'
import { Dropdown } from 'antd'
import { useMemo } from 'react'
import { boardIdOf, type BoardState, boardsOf } from '@/core/evaluation/boards'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { worstFirst } from '@/core/verdict/verdict'
import { say } from '@/words/say'
import { Mark } from '../mark/Mark'

/** The height of the line, and of a board in it. */
const HIGH = 104
const GAP = 22
/** So many boards of one depth stand in the line; of more, the worst one and a list. */
const MOST = 2

type Column = { shown: readonly BoardState[]; all: readonly BoardState[] }

/** Boards by depth, as many as can be seen. */
function columnsOf(boards: readonly BoardState[]): Column[] {
  const depths = [...new Set(boards.map((one) => one.depth))]
  return depths.map((depth) => {
    const all = boards.filter((one) => one.depth === depth)
    const shown = all.length <= MOST ? all : [...all].sort((a, b) => worstFirst(a.verdict, b.verdict)).slice(0, 1)
    return { shown, all }
  })
}

const rowsIn = ({ shown, all }: Column): number => shown.length + (all.length > shown.length ? 1 : 0)
const middle = (column: Column, row: number): number => (HIGH / rowsIn(column)) * (row + 0.5)

/** Wires from each board to those that it feeds. */
function Wires({ from, to }: { from: Column; to: Column }) {
  const paths = to.shown.map((child, k) => {
    const parent = from.shown.findIndex((one) => one.part.id === child.parentId)
    const start = parent < 0 ? HIGH / 2 : middle(from, parent)
    const end = middle(to, k)
    return `M0 ${start}H${GAP / 2}V${end}H${GAP}`
  })
  return (
    <svg width={GAP} height={HIGH} viewBox={`0 0 ${GAP} ${HIGH}`} aria-hidden="true">
      <path d={paths.join('')} fill="none" stroke="var(--pencil)" strokeWidth="2" />
    </svg>
  )
}

type Props = {
  evaluation: Evaluation
  /** The part that is open now. */
  partId: string | null
  onOpen(next: StepEvaluation | null): void
}

/** Several boards as a tree, each with the worst of its circuits and devices. */
export function BoardTree({ evaluation, partId, onOpen: open }: Props) {
  const boards = useMemo(() => boardsOf(evaluation), [evaluation])
  const part = partId ? evaluation.parts.get(partId) : undefined
  const nowId = part ? boardIdOf(part, evaluation.plant) : null
  const onOpen = (board: BoardState): void => open(board.next)
  const columns = columnsOf(boards)
  return (
    <div className="boards">
      {columns.map((column, k) => (
        <div key={column.all[0]!.part.id} className="level">
          {k > 0 && <Wires from={columns[k - 1]!} to={column} />}
          <div className="of">
            {column.shown.map((board) => (
              <BoardButton key={board.part.id} board={board} isNow={board.part.id === nowId} onOpen={onOpen} />
            ))}
            {column.all.length > column.shown.length && <Others column={column} onOpen={onOpen} />}
          </div>
        </div>
      ))}
    </div>
  )
}

function BoardButton({ board, isNow, onOpen }: { board: BoardState; isNow: boolean; onOpen(board: BoardState): void }) {
  const { tag, name } = board.part.data
  return (
    <button
      type="button"
      className={isNow ? 'now' : ''}
      aria-current={isNow ? 'true' : undefined}
      data-board={tag}
      onClick={() => onOpen(board)}
    >
      {board.verdict && <Mark verdict={board.verdict} size={16} />}
      <span>
        <b>{tag}</b>
        {name && <small>{name}</small>}
      </span>
    </button>
  )
}

function Others({ column, onOpen }: { column: Column; onOpen(board: BoardState): void }) {
  const items = column.all.map((board) => ({
    key: board.part.id,
    label: (
      <span className="board-item">
        {board.verdict && <Mark verdict={board.verdict} size={16} />} {board.part.data.tag} {board.part.data.name}
      </span>
    ),
    onClick: () => onOpen(board),
  }))
  return (
    <Dropdown menu={{ items }} trigger={['click']}>
      <button type="button" data-testid="all-boards">
        <span>
          <b>{say('line.boards', { count: column.all.length })}</b>
        </span>
      </button>
    </Dropdown>
  )
}
