'use client'
import '@/words/help'
import { Tour } from 'antd'
import { useState } from 'react'
import { say, type WordKey } from '@/words/say'

/** What is pointed at: the first of these that is there. Where none is, that sentence is left out. */
const stops = [
  { id: 'line', at: ['.linerow nav'] },
  { id: 'sheet', at: ['.rail .sheet-groups', '.pstep .all'] },
  { id: 'slots', at: ['.bench .slots', '.bench .rows', '.bench .checks'] },
  { id: 'verdict', at: ['.bench .verdict'] },
  { id: 'saved', at: ['[data-testid=saved]'] },
] as const

const placeOf = (selectors: readonly string[]): HTMLElement | null =>
  selectors.map((one) => document.querySelector<HTMLElement>(one)).find((one) => one?.offsetParent) ?? null

/** Five sentences for whoever opens a job for the first time. Nothing is covered: the work may begin under it. */
export function FirstTour({ onClose }: { onClose(): void }) {
  const [there] = useState(() => stops.filter(({ at }) => placeOf(at) !== null))
  const last = there.length - 1
  return (
    <Tour
      open
      mask={false}
      onClose={onClose}
      onFinish={onClose}
      closable={{ 'aria-label': say('tour.leave') }}
      indicatorsRender={(at, all) => <span className="quiet">{say('tour.at', { at: at + 1, all })}</span>}
      steps={there.map(({ id, at }, k) => ({
        title: say(`tour.${id}` as WordKey),
        target: () => placeOf(at)!,
        nextButtonProps: { children: say(k === last ? 'tour.end' : 'tour.next') },
        prevButtonProps: { style: { display: 'none' } },
      }))}
    />
  )
}
