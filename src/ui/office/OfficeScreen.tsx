'use client'
import '@/words/plant'
import '@/words/office'
import '@/words/people'
import '@/words/print'
import { Tabs } from 'antd'
import { type ReactNode, useEffect, useState } from 'react'
import { say } from '@/words/say'
import type { Me } from '../device/store'
import { useMe } from '../device/me'
import { ZonePatterns } from '../mark/Mark'
import { Strip } from '../shell/Strip'
import { WhoCell } from '../shell/WhoCell'
import { AuditPane } from './AuditPane'
import { ChargePointsPane } from './ChargePointsPane'
import { CompanyPane } from './CompanyPane'
import { KitPane } from './KitPane'
import { ModulesPane } from './ModulesPane'
import { PeoplePane } from './PeoplePane'
import { RegimesPane } from './RegimesPane'
import { SourcesPane } from './SourcesPane'

const panes = ['regimes', 'sources', 'kit', 'modules', 'charge-points', 'company', 'people', 'log'] as const
/** What only a supervisor sees. */
const kept = new Set<string>(['people', 'log'])
type Pane = (typeof panes)[number]

function usePane(): [Pane, (pane: Pane) => void] {
  const [pane, setPane] = useState<Pane>('regimes')
  useEffect(() => {
    const read = (): void => setPane(panes.find((one) => `#${one}` === window.location.hash) ?? 'regimes')
    read()
    window.addEventListener('hashchange', read)
    return () => window.removeEventListener('hashchange', read)
  }, [])
  return [pane, (next) => window.location.assign(`#${next}`)]
}

function paneOf(pane: Pane, role: Me['role']): ReactNode {
  const mayChange = role === 'supervisor'
  const mayAdd = role !== 'viewer'
  switch (pane) {
    case 'regimes':
      return <RegimesPane mayChange={mayChange} />
    case 'sources':
      return <SourcesPane mayChange={mayChange} />
    case 'kit':
      return <KitPane mayChange={mayChange} now={Date.now()} />
    case 'modules':
      return <ModulesPane mayAdd={mayAdd} mayChange={mayChange} />
    case 'charge-points':
      return <ChargePointsPane mayAdd={mayAdd} />
    case 'company':
      return <CompanyPane mayChange={mayChange} />
    case 'people':
      return <PeoplePane />
    case 'log':
      return <AuditPane />
  }
}

/** What the company judges by, measures with and mounts: regimes, kit, modules and models of charge point. */
export function OfficeScreen() {
  const who = useMe()
  const [pane, setPane] = usePane()
  if (who.state !== 'in') return <div className="center-page quiet">{say('loading.day')}</div>
  const mayChange = who.me.role === 'supervisor'
  return (
    <div className="app flat">
      <ZonePatterns />
      <Strip title={say('office.title')} about={say('office.about')} who={<WhoCell me={who.me} />}>
        <a className="pair" href="/">
          <b>{say('strip.to-today')}</b>
        </a>
      </Strip>
      <main className="pane">
        <Tabs
          activeKey={pane}
          onChange={(key) => setPane(key as Pane)}
          destroyOnHidden
          items={panes
            .filter((one) => mayChange || !kept.has(one))
            .map((one) => ({
              key: one,
              label: <span data-testid={`pane-${one}`}>{say(`office.${one}`)}</span>,
              children: paneOf(one, who.me.role),
            }))}
        />
      </main>
    </div>
  )
}
