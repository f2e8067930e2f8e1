'use client'
import '@/words/everyTest'
import type { ReactNode } from 'react'
import type { PlugColumn, PlugPanel as PlugData } from '@/core/steps/panel'
import { figure, say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'
import { PlugTrack, TRACK } from './PlugTrack'

type Props = {
  panel: PlugData
  /** The state that is being answered; null where none is. */
  now: string | null
  onGroup: ((group: string) => void) | null
}

const answer = (choice: string | null): string => (choice === null ? '' : sayCode('choice', choice))
const mustOf = ({ id, must, mustHold }: PlugColumn): string => {
  if (id === 'a-again') return say('plug.again', { must: answer(must) })
  return mustHold ? `${answer(must)}, ${say('plug.held')}` : answer(must)
}

/** Everything that is known of a plug, a column a state: the pilot drawn, what must happen, and its two witnesses. */
export function PlugPanel({ panel, now, onGroup }: Props) {
  const columns = panel.columns
  const row = (label: ReactNode, cell: (column: PlugColumn) => ReactNode): ReactNode => (
    <tr>
      <th scope="row">{label}</th>
      {columns.map((column) => (
        <td key={column.id} className={column.id === now ? 'now' : ''}>
          {cell(column)}
        </td>
      ))}
    </tr>
  )
  return (
    <div className="plug-panel" data-testid="plug-panel">
      <div className="plug-scale" aria-hidden="true" style={{ height: TRACK.high }}>
        {TRACK.lines.map((volts) => (
          <span key={volts} style={{ top: TRACK.yOf(volts) }}>
            {figure(volts, 0, volts > 0)}
          </span>
        ))}
      </div>
      <PlugTrack columns={columns} now={now} />
      <table className="plug-table own-table">
        <caption className="hidden">{say('plug.caption')}</caption>
        <thead>
          <tr>
            <th scope="col">{say('plug.pilot')}</th>
            {columns.map((column) => (
              <th key={column.id} scope="col" className={column.id === now ? 'now' : ''}>
                <Head column={column} onGroup={onGroup} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {row(say('plug.must'), (column) => (column.isAsked ? mustOf(column) : ''))}
          {row(say('plug.adapter'), ({ adapter, level_V }) => (
            <>
              <b>{answer(adapter)}</b>
              {level_V === null ? '' : ` ${figure(level_V, 1)}`}
            </>
          ))}
          {row(say('plug.point'), ({ shown }) => (
            <b>{answer(shown)}</b>
          ))}
          {row(say('plug.pad'), ({ pad, pad_V }) => (pad_V === null ? answer(pad) : `${pad_V} V`))}
        </tbody>
      </table>
    </div>
  )
}

/** The letter of a state with its mark; where the step asks state by state, a press goes there. */
function Head({ column, onGroup }: { column: PlugColumn; onGroup: Props['onGroup'] }) {
  const { group, verdict, isAsked } = column
  const name = (
    <>
      <span className="letter">{column.state}</span>
      {(isAsked || column.adapter !== null) && <Mark verdict={verdict} size={16} />}
    </>
  )
  if (group === null || onGroup === null) return <span className="plug-head">{name}</span>
  return (
    <button type="button" className="plug-head" onClick={() => onGroup(group)} data-testid={`state-${group}`}>
      {name}
    </button>
  )
}
