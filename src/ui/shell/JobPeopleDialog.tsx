'use client'
import '@/words/people'
import { Button, Modal, Popconfirm, Select, Table } from 'antd'
import { useEffect, useState } from 'react'
import { say, type WordKey } from '@/words/say'
import { Answered, ask } from '../device/api'
import { Said } from './Form'
import { fullDay } from './time'

type Worker = { id: string; name: string; role: string; active: boolean; since: string | null }
type Known = { id: string; name: string; role: string }
const roleWord = (role: string): string => say(`role.${role}` as WordKey)

type Props = { jobId: string; number: string; timeZone: string; mayChange: boolean; onClose(): void }

/** Who works on a job, and since when; a supervisor adds and takes off. */
export function JobPeopleDialog({ jobId, number, timeZone, mayChange, onClose }: Props) {
  const [workers, setWorkers] = useState<Worker[] | null>(null)
  const [all, setAll] = useState<Known[]>([])
  const [message, setMessage] = useState<string | null>(null)
  const path = `/api/jobs/${jobId}/people`
  const load = (change?: { person: string; works: boolean }): void => {
    setMessage(null)
    ask<{ people: Worker[] }>(path, change).then(
      (answer) => setWorkers(answer.people),
      (error) => setMessage(error instanceof Answered ? error.message : say('people.needs-reception')),
    )
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it is opened.
  useEffect(() => {
    load()
    if (mayChange)
      ask<{ people: Known[] }>('/api/people').then(
        (answer) => setAll(answer.people),
        () => undefined,
      )
  }, [])
  const here = new Set(workers?.map((one) => one.id))
  const others = all.filter((one) => !here.has(one.id) && one.role !== 'supervisor')
  return (
    <Modal open title={say('people.works-on', { number })} onCancel={onClose} footer={null} width={640} destroyOnHidden>
      <p style={{ marginBottom: 12 }}>{say('people.works-about')}</p>
      <Said message={message} />
      <Table<Worker>
        size="small"
        rowKey="id"
        loading={workers === null && message === null}
        dataSource={workers ?? []}
        pagination={false}
        showHeader={false}
        locale={{ emptyText: say('people.works-none') }}
        data-testid="works-on"
        columns={[
          {
            render: (_, one) => (
              <>
                <b>{one.name}</b>{' '}
                <span className="small quiet">{one.active ? roleWord(one.role) : say('people.gone')}</span>
              </>
            ),
          },
          {
            align: 'right',
            render: (_, one) => (one.since ? say('people.works-since', { date: fullDay(one.since, timeZone) }) : ''),
          },
          ...(mayChange
            ? [
                {
                  align: 'right' as const,
                  render: (_: unknown, one: Worker) => (
                    <Popconfirm
                      title={say('people.take-off-about', { name: one.name })}
                      okText={say('people.take-off')}
                      cancelText={say('people.no')}
                      icon={null}
                      overlayStyle={{ maxWidth: 360 }}
                      onConfirm={() => load({ person: one.id, works: false })}
                    >
                      <Button>{say('people.take-off')}</Button>
                    </Popconfirm>
                  ),
                },
              ]
            : []),
        ]}
      />
      {mayChange && others.length > 0 && (
        <Select
          value={null}
          placeholder={say('people.add-to-job')}
          aria-label={say('people.add-to-job')}
          showSearch={{ optionFilterProp: 'label' }}
          style={{ width: '100%', marginTop: 12 }}
          options={others.map((one) => ({ value: one.id, label: `${one.name}, ${roleWord(one.role)}` }))}
          onChange={(person: string | null) => person && load({ person, works: true })}
          data-testid="add-to-job"
        />
      )}
    </Modal>
  )
}
