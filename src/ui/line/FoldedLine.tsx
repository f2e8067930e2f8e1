'use client'
import { Fragment, useMemo } from 'react'
import { boardsOf } from '@/core/evaluation/boards'
import type { Evaluation } from '@/core/evaluation/types'
import { isOpen, type Verdict, worst } from '@/core/verdict/verdict'
import { say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'

/** So many boards stand on the wire by themselves. */
const MOST_BOARDS = 3

type Stop = { id: string; name: string; verdict: Verdict | null; now: boolean; open(): void }

type Props = {
  evaluation: Evaluation
  /** The board that is looked at. */
  boardId: string | null
  onBoard(id: string): void
  onStation(station: string): void
}

/** The line in one row: marks and names on the wire. */
export function FoldedLine({ evaluation, boardId, onBoard, onStation }: Props) {
  const boards = useMemo(() => boardsOf(evaluation), [evaluation])
  const stops = evaluation.stations.flatMap(({ station, verdict }): Stop[] => {
    if (station !== 'board' || boards.length === 0)
      return [{ id: station, name: sayCode('station', station), verdict, now: false, open: () => onStation(station) }]
    if (boards.length > MOST_BOARDS) {
      const now = boards.find(({ part }) => part.id === boardId)
      const name = now ? now.part.data.tag : say('line.boards', { count: boards.length })
      const all = boards.flatMap((one) => one.verdict ?? [])
      return [{ id: station, name, verdict: worst(all), now: true, open: () => onBoard(boardId ?? boards[0]!.part.id) }]
    }
    return boards.map(({ part, verdict }) => ({
      id: part.id,
      name: [part.data.tag, part.data.name].filter(Boolean).join(' '),
      verdict,
      now: part.id === boardId,
      open: () => onBoard(part.id),
    }))
  })
  return (
    <nav className="folded-line" aria-label={say('line.name')}>
      {stops.map(({ id, name, verdict, now, open }, k) => (
        <Fragment key={id}>
          {k > 0 && <i className={isOpen(stops[k - 1]!.verdict) ? 'hop pen' : 'hop'} />}
          <button type="button" className={now ? 'now' : ''} aria-current={now ? 'true' : undefined} onClick={open}>
            {verdict && <Mark verdict={verdict} size={16} />}
            <span>{name}</span>
          </button>
        </Fragment>
      ))}
    </nav>
  )
}
