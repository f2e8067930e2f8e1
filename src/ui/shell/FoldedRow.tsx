'use client'
import { Tabs } from 'antd'
import { BackArrow } from './BackArrow'
import type { ReactNode } from 'react'
import { say } from '@/words/say'
import type { JobRoute } from './route'

type View = 'run' | 'plant' | 'schedule' | 'record'
type Props = {
  route: JobRoute
  hasSchedule: boolean
  go(route: JobRoute): void
  /** What the screen offers by itself. */
  children?: ReactNode
}

/** The line folded to one row where the screen is tall: the way back, what the screen offers, and the other screens. */
export function FoldedRow({ route, hasSchedule, go, children }: Props) {
  const views: readonly View[] = hasSchedule ? ['run', 'plant', 'schedule', 'record'] : ['run', 'plant', 'record']
  const names = {
    run: say('line.run'),
    plant: say('line.plant'),
    schedule: say('line.schedule'),
    record: say('line.record'),
  }
  return (
    <div className="folded">
      <a className="back" href="/">
        <BackArrow />
        <b>{say('line.today')}</b>
      </a>
      <div className="tools">{children}</div>
      <Tabs
        className="folded-views"
        tabBarGutter={0}
        activeKey={route.view}
        items={views.map((key) => ({ key, label: names[key] }))}
        onChange={(view) => go({ ...route, view: view as View, step: null, partId: null })}
      />
    </div>
  )
}
