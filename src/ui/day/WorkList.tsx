'use client'
import type { Stretch } from '@/core/evaluation/dayPlan'
import { minutesOf, type Piece } from '@/core/evaluation/dayWork'
import { say } from '@/words/say'
import { addressOf, type JobRoute } from '../shell/route'
import { partsText, workName } from './dayWords'

/** What is done, with the way to the first test of it. */
export function WorkLink({ piece, units, route }: { piece: Piece; units: Stretch['units']; route: JobRoute }) {
  const { step, part } = units[0]!.one
  return (
    <a className="daygo" href={addressOf({ ...route, view: 'run', step: step.id, partId: part.id })}>
      {workName(piece)}
    </a>
  )
}

/** So many lines tell what it is about. */
const MOST_LINES = 12

type Listed = { piece: Piece; units: Stretch['units']; says: string | null }

/** What waits or wants no light, each with the way to its first test. */
export function WorkList({ list, route }: { list: readonly Listed[]; route: JobRoute }) {
  const more = list.length - MOST_LINES
  return (
    <ul className="daylist">
      {list.slice(0, MOST_LINES).map(({ piece, units, says }) => (
        <li key={piece.id}>
          <WorkLink piece={piece} units={units} route={route} />
          <p className="small work-about">
            {partsText(piece, units)}{' '}
            <span className="quiet">
              {say('day.minutes', { minutes: minutesOf(units) })}
              {says && `, ${says}`}
            </span>
          </p>
        </li>
      ))}
      {more > 0 && <li className="quiet">{say('day.more', { count: more })}</li>}
    </ul>
  )
}
