'use client'
import '@/words/plant'
import '@/words/office'
import '@/words/people'
import '@/words/print'
import { useEffect, useState } from 'react'
import { say } from '@/words/say'
import { useMe } from '../device/me'
import { ZonePatterns } from '../mark/Mark'
import { Strip } from '../shell/Strip'
import { WhoCell } from '../shell/WhoCell'
import { AuditPane } from './AuditPane'
import { ChargePointsPane } from './ChargePointsPane'
import { KitPane } from './KitPane'
import { ModulesPane } from './ModulesPane'
import { PeoplePane } from './PeoplePane'
import { RegimesPane } from './RegimesPane'

const panes = ['regimes', 'kit', 'modules', 'charge-points', 'people', 'log'] as const
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
        <div className="views full" role="tablist">
          {panes
            .filter((one) => mayChange || !kept.has(one))
            .map((one) => (
              <button
                type="button"
                key={one}
                role="tab"
                aria-selected={pane === one}
                onClick={() => setPane(one)}
                data-testid={`pane-${one}`}
              >
                {say(`office.${one}`)}
              </button>
            ))}
        </div>
        {pane === 'regimes' && <RegimesPane mayChange={mayChange} />}
        {pane === 'kit' && <KitPane mayChange={mayChange} now={Date.now()} />}
        {pane === 'modules' && <ModulesPane mayAdd={who.me.role !== 'viewer'} mayChange={mayChange} />}
        {pane === 'people' && mayChange && <PeoplePane />}
        {pane === 'log' && mayChange && <AuditPane />}
        {pane === 'charge-points' && <ChargePointsPane mayAdd={who.me.role !== 'viewer'} />}
      </main>
    </div>
  )
}
