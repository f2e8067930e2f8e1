'use client'
import { Button } from 'antd'
import { say, sayCode } from '@/words/say'
import type { JobStore, Snapshot } from '../device/jobStore'
import type { Queued } from '../device/store'
import { saveFile } from './saveFile'

function save(queued: readonly Queued[]): void {
  const list = queued.map(({ entry, reason, state }) => ({ state, reason, entry }))
  saveFile('upstand-not-taken.json', JSON.stringify(list, null, 2), 'application/json')
}

/** Where one signs in, and comes back from to this very place. */
const signInHref = (): string => `/sign-in?then=${encodeURIComponent(window.location.pathname + window.location.hash)}`

/**
 * What the office did not take stays on the device, each with its reason, and so does what cannot go for a reason that
 * holds for all of it; both can be taken away as a file.
 */
export function Rejected({ store, snapshot }: { store: JobStore; snapshot: Snapshot }) {
  const { rejected, held } = snapshot
  return (
    <div>
      {held && (
        <section className="banner v-close" style={{ margin: 0 }} role="status" data-testid="held">
          <b>{held.queued.length > 0 ? say('held.title', { count: held.queued.length }) : held.reason}</b>
          {held.queued.length > 0 && <p>{held.reason}</p>}
          <div style={{ display: 'flex', gap: 12, flexWrap: 'wrap', paddingTop: 8 }}>
            {held.code === 'door.another-person' && (
              <Button className="small" href={signInHref()}>
                {say('held.sign-in', { name: store.me.name })}
              </Button>
            )}
            {held.queued.length > 0 && (
              <Button className="small" onClick={() => save(held.queued)}>
                {say('rejected.save')}
              </Button>
            )}
          </div>
        </section>
      )}
      {rejected.length > 0 && (
        <section className="banner v-close" style={{ margin: 0 }} aria-label={say('rejected.title')}>
          <b>{say('rejected.title')}</b>
          <ul>
            {rejected.map((one) => (
              <li
                key={one.id}
                style={{ display: 'flex', gap: 12, alignItems: 'center', flexWrap: 'wrap', paddingTop: 4 }}
              >
                <span style={{ flex: '1 1 300px' }}>
                  {one.entry.step ? `${sayCode('step', `${one.entry.step}.short`)}: ` : ''}
                  {one.reason}
                </span>
                <Button className="small" onClick={() => void store.drop(one.id)}>
                  {say('rejected.drop')}
                </Button>
              </li>
            ))}
          </ul>
          <Button className="small" onClick={() => save(rejected)}>
            {say('rejected.save')}
          </Button>
        </section>
      )}
    </div>
  )
}
