'use client'
import '@/words/account'
import { Button, Modal, Table } from 'antd'
import { useEffect, useState } from 'react'
import { say } from '@/words/say'
import { Answered, ask } from '../device/api'
import { Said } from './Form'
import { deviceName } from './deviceName'
import { clockTime, shortDay } from './time'

type OwnSession = { id: string; since: string; renewedAt: string; device: string; isOwn: boolean }
type Sessions = { sessions: OwnSession[] }

/** Where one is signed in; each other place can be signed out from here. */
export function SessionsDialog({ onClose }: { onClose(): void }) {
  const [sessions, setSessions] = useState<OwnSession[] | null>(null)
  const [message, setMessage] = useState<string | null>(null)
  const load = (end?: string): void => {
    void ask<Sessions>('/api/me/sessions', end === undefined ? undefined : { end }).then(
      (answer) => setSessions(answer.sessions),
      (error) => setMessage(error instanceof Answered ? error.message : say('account.needs-reception')),
    )
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it is opened.
  useEffect(() => load(), [])
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  const moment = (at: string): string => `${shortDay(at, zone)}, ${clockTime(at, zone)}`
  const others = (sessions ?? []).filter((one) => !one.isOwn)
  return (
    <Modal open title={say('account.sessions')} onCancel={onClose} footer={null} width={720} destroyOnHidden>
      <Said message={message} />
      <Table<OwnSession>
        size="small"
        rowKey="id"
        loading={sessions === null && message === null}
        dataSource={sessions ?? []}
        pagination={false}
        scroll={{ y: 320 }}
        columns={[
          { title: say('account.device'), render: (_, one) => deviceName(one.device) },
          { title: say('account.since'), align: 'right', render: (_, one) => moment(one.since) },
          { title: say('account.used'), align: 'right', render: (_, one) => moment(one.renewedAt) },
          {
            title: '',
            align: 'right',
            render: (_, one) =>
              one.isOwn ? (
                <b>{say('account.this-one')}</b>
              ) : (
                <Button onClick={() => load(one.id)}>{say('account.end')}</Button>
              ),
          },
        ]}
      />
      {others.length > 1 && (
        <div className="acts" style={{ paddingTop: 12 }}>
          <Button onClick={() => load('others')}>{say('account.end-others')}</Button>
        </div>
      )}
    </Modal>
  )
}
