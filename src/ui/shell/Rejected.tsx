'use client'
import { Button } from 'antd'
import { say, sayCode } from '@/words/say'
import type { JobStore, Snapshot } from '../device/jobStore'
import { saveFile } from './saveFile'

/** Entries that the office refused stay on the device, each with its reason; they can be taken away as a file. */
export function Rejected({ store, snapshot }: { store: JobStore; snapshot: Snapshot }) {
  const { rejected } = snapshot
  if (rejected.length === 0) return <span />
  const save = (): void => {
    const list = rejected.map(({ entry, reason, state }) => ({ state, reason, entry }))
    saveFile('upstand-not-taken.json', JSON.stringify(list, null, 2), 'application/json')
  }
  return (
    <section className="banner v-close" style={{ margin: 0 }} aria-label={say('rejected.title')}>
      <b>{say('rejected.title')}</b>
      <ul>
        {rejected.map((one) => (
          <li key={one.id} style={{ display: 'flex', gap: 12, alignItems: 'center', flexWrap: 'wrap', paddingTop: 4 }}>
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
      <Button className="small" onClick={save}>
        {say('rejected.save')}
      </Button>
    </section>
  )
}
