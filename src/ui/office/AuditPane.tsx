'use client'
import '@/words/account'
import '@/words/people'
import { Button, Table } from 'antd'
import { useEffect, useState } from 'react'
import { say, sayCode, type WordKey } from '@/words/say'
import { ask } from '../device/api'
import { deviceName } from '../shell/deviceName'
import { Said } from '../shell/Form'
import { clockTime, fullDay } from '../shell/time'
import { whyNot } from './useAsked'

type About = { person?: string; job?: string; role?: string; what?: string }
type Line = { id: number; at: string; by: string | null; action: string; about: About }

function told({ action, about }: Line): string {
  return sayCode('log', action, {
    person: about.person ?? '',
    job: about.job ?? '',
    what: about.what ?? '',
    role: about.role ? say(`role.${about.role}` as WordKey) : '',
    device: deviceName(about.what ?? ''),
  })
}

/** What was done in the company besides testing, read only. */
export function AuditPane() {
  const [lines, setLines] = useState<Line[] | null>(null)
  const [isAll, setAll] = useState(false)
  const [message, setMessage] = useState<string | null>(null)
  const load = (before: number | null): void => {
    ask<{ lines: Line[] }>(`/api/office/audit${before === null ? '' : `?before=${before}`}`).then(
      (answer) => {
        setLines((known) => [...(before === null ? [] : (known ?? [])), ...answer.lines])
        setAll(answer.lines.length === 0 || answer.lines.at(-1)?.id === 1)
      },
      (error) => setMessage(whyNot(error)),
    )
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it is opened.
  useEffect(() => load(null), [])
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  const last = lines?.at(-1)
  return (
    <>
      <p className="src" style={{ padding: '10px 0' }}>
        {say('log.about')}
      </p>
      <Said message={message} />
      <Table<Line>
        size="small"
        rowKey="id"
        loading={lines === null && message === null}
        dataSource={lines ?? []}
        pagination={false}
        data-testid="audit"
        scroll={{ x: 'max-content' }}
        columns={[
          {
            title: say('log.at'),
            width: 240,
            render: (_, one) => `${fullDay(one.at, zone)}, ${clockTime(one.at, zone)}`,
          },
          { title: say('log.by'), width: 220, align: 'left', render: (_, one) => one.by ?? say('log.terminal') },
          { title: say('log.what'), align: 'left', render: (_, one) => told(one) },
        ]}
      />
      {last && !isAll && (
        <div className="acts-row" style={{ padding: '12px 0' }}>
          <Button onClick={() => load(last.id)}>{say('log.older')}</Button>
        </div>
      )}
    </>
  )
}
