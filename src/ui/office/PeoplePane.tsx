'use client'
import '@/words/people'
import { Button, Dropdown, Form, Input, Modal, Select, Table } from 'antd'
import { useState } from 'react'
import { say, type WordKey } from '@/words/say'
import { ask } from '../device/api'
import { Said } from '../shell/Form'
import { clockTime, fullDay, yearDay } from '../shell/time'
import { quietly, useAsked, whyNot } from './useAsked'

const roles = ['viewer', 'tester', 'supervisor'] as const
type Role = (typeof roles)[number]
type Person = {
  id: string
  name: string
  email: string
  role: Role
  active: boolean
  jobs: number
  seenAt: string | null
}
type Pending = { id: string; name: string; email: string; role: Role; isReset: boolean; expiresAt: string }
type Given = { code: string; expiresAt: string }
type Everybody = { people: Person[]; pending: Pending[]; given?: Given }
type Invited = { name: string; email: string; role: Role }
type Shown = Given & { name: string }

const roleWord = (role: Role): string => say(`role.${role}` as WordKey)
const zone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone
const moment = (at: string): string => `${yearDay(at, zone())}, ${clockTime(at, zone())}`

/** Everybody of the company: who they are here, what they may do, and the codes by which they come in. */
export function PeoplePane() {
  const [asked, again] = useAsked<Everybody>('/api/office/people')
  const [inviting, setInviting] = useState(false)
  const [shown, setShown] = useState<Shown | null>(null)
  const [message, setMessage] = useState<string | null>(null)
  const [modal, holder] = Modal.useModal()

  const change = async (wanted: object, name = ''): Promise<boolean> => {
    setMessage(null)
    try {
      const { given } = await ask<Everybody>('/api/office/people', wanted)
      if (given) setShown({ ...given, name })
      again()
      return true
    } catch (error) {
      setMessage(whyNot(error))
      again()
      return false
    }
  }
  const askToDisable = (person: Person): void => {
    modal.confirm({
      title: person.name,
      content: say('people.disable-ask', { name: person.name }),
      okText: say('people.disable-yes'),
      cancelText: say('people.no'),
      icon: null,
      onOk: async () => void (await change({ do: 'active', person: person.id, active: false })),
    })
  }
  if (asked.state !== 'here') return <p style={{ padding: '20px 0' }}>{quietly(asked)}</p>
  const { people, pending } = asked.value
  return (
    <>
      {holder}
      <p className="src" style={{ padding: '10px 0' }}>
        {say('people.about')}
      </p>
      <div className="acts-row" style={{ paddingBottom: 8 }}>
        <Button type="primary" onClick={() => setInviting(true)} data-testid="invite">
          {say('people.invite')}
        </Button>
      </div>
      <Said message={inviting ? null : message} />
      <PeopleTable
        people={people}
        onRole={(person, role) => void change({ do: 'role', person: person.id, role })}
        onReset={(person) => void change({ do: 'reset', person: person.id }, person.name)}
        onDisable={askToDisable}
        onEnable={(person) => void change({ do: 'active', person: person.id, active: true })}
      />
      {pending.length > 0 && (
        <PendingTable pending={pending} onWithdraw={(one) => void change({ do: 'withdraw', invitation: one.id })} />
      )}
      {inviting && (
        <InviteDialog
          message={message}
          onInvite={async (wanted) => {
            if (await change({ do: 'invite', ...wanted }, wanted.name)) setInviting(false)
          }}
          onClose={() => {
            setInviting(false)
            setMessage(null)
          }}
        />
      )}
      {shown && <CodeDialog shown={shown} onClose={() => setShown(null)} />}
    </>
  )
}

type TableProps = {
  people: Person[]
  onRole(person: Person, role: Role): void
  onReset(person: Person): void
  onDisable(person: Person): void
  onEnable(person: Person): void
}

function PeopleTable({ people, onRole, onReset, onDisable, onEnable }: TableProps) {
  const menu = (person: Person) =>
    person.active
      ? [
          { key: 'reset', label: say('people.reset'), onClick: () => onReset(person) },
          { key: 'disable', label: say('people.disable'), onClick: () => onDisable(person) },
        ]
      : [{ key: 'enable', label: say('people.enable'), onClick: () => onEnable(person) }]
  return (
    <Table<Person>
      size="small"
      rowKey="id"
      dataSource={people}
      pagination={false}
      data-testid="people"
      scroll={{ x: 'max-content' }}
      columns={[
        {
          title: say('people.name'),
          render: (_, one) => (
            <>
              <b>{one.name}</b>
              <br />
              <span className="small quiet">{one.email}</span>
            </>
          ),
        },
        {
          title: say('people.role'),
          align: 'left',
          render: (_, one) =>
            one.active ? (
              <Select<Role>
                aria-label={`${say('people.role')}, ${one.name}`}
                value={one.role}
                onChange={(role) => onRole(one, role)}
                options={roles.map((value) => ({ value, label: roleWord(value) }))}
                popupMatchSelectWidth={false}
                style={{ width: '100%', minWidth: 130, maxWidth: 260 }}
              />
            ) : (
              say('people.gone')
            ),
        },
        {
          title: say('people.jobs'),
          responsive: ['md'],
          align: 'right',
          render: (_, one) => (one.role === 'supervisor' ? say('people.all-jobs') : one.jobs),
        },
        {
          title: say('people.seen'),
          responsive: ['md'],
          align: 'right',
          render: (_, one) => (one.seenAt ? fullDay(one.seenAt, zone()) : say('people.never')),
        },
        {
          title: '',
          align: 'right',
          render: (_, one) => (
            <Dropdown menu={{ items: menu(one) }} trigger={['click']} placement="bottomRight">
              <Button aria-label={say('people.more-about', { name: one.name })}>{say('people.more')}</Button>
            </Dropdown>
          ),
        },
      ]}
    />
  )
}

function PendingTable({ pending, onWithdraw }: { pending: Pending[]; onWithdraw(one: Pending): void }) {
  return (
    <>
      <h3 style={{ padding: '18px 0 6px' }}>{say('people.waiting')}</h3>
      <Table<Pending>
        size="small"
        rowKey="id"
        dataSource={pending}
        pagination={false}
        showHeader={false}
        scroll={{ x: 'max-content' }}
        columns={[
          {
            render: (_, one) => (
              <>
                <b>{one.name}</b> <span className="small quiet">{one.email}</span>
              </>
            ),
          },
          {
            align: 'left',
            render: (_, one) =>
              one.isReset ? say('people.waiting-reset') : say('people.waiting-join', { role: roleWord(one.role) }),
          },
          { align: 'right', render: (_, one) => say('people.until', { until: moment(one.expiresAt) }) },
          {
            align: 'right',
            render: (_, one) => <Button onClick={() => onWithdraw(one)}>{say('people.withdraw')}</Button>,
          },
        ]}
      />
    </>
  )
}

type InviteProps = { message: string | null; onInvite(wanted: Invited): Promise<void>; onClose(): void }

function InviteDialog({ message, onInvite, onClose }: InviteProps) {
  return (
    <Modal open title={say('people.invite')} onCancel={onClose} footer={null} destroyOnHidden>
      <Form<Invited>
        layout="vertical"
        requiredMark={false}
        initialValues={{ role: 'tester' }}
        onFinish={(values) => void onInvite(values)}
      >
        <Form.Item
          name="name"
          label={say('people.name')}
          rules={[{ required: true, min: 2, whitespace: true, message: say('people.name-needed') }]}
        >
          <Input autoFocus maxLength={80} data-testid="invite-name" />
        </Form.Item>
        <Form.Item
          name="email"
          label={say('people.email')}
          rules={[{ required: true, type: 'email', message: say('people.email-needed') }]}
        >
          <Input type="email" maxLength={200} autoComplete="off" data-testid="invite-email" />
        </Form.Item>
        <Form.Item name="role" label={say('people.role')}>
          <Select options={roles.map((value) => ({ value, label: roleWord(value) }))} />
        </Form.Item>
        <Said message={message} />
        <div className="acts">
          <Button type="primary" htmlType="submit" data-testid="make-code">
            {say('people.make-code')}
          </Button>
          <Button onClick={onClose}>{say('action.close')}</Button>
        </div>
      </Form>
    </Modal>
  )
}

/** The only time that a code is seen. It stands behind the stroke of the link, so that no server on the way writes it down. */
function CodeDialog({ shown, onClose }: { shown: Shown; onClose(): void }) {
  const [copied, setCopied] = useState(false)
  const link = `${window.location.origin}/sign-in#code=${shown.code}`
  return (
    <Modal
      open
      title={say('people.code-for', { name: shown.name })}
      onCancel={onClose}
      footer={null}
      maskClosable={false}
    >
      <p style={{ marginBottom: 12 }}>{say('people.code-about', { until: moment(shown.expiresAt) })}</p>
      <p className="code-big" data-testid="code">
        {shown.code}
      </p>
      <p className="small" style={{ overflowWrap: 'anywhere', margin: '12px 0' }}>
        {link}
      </p>
      <div className="acts">
        <Button
          type="primary"
          onClick={() =>
            void navigator.clipboard?.writeText(link).then(
              () => setCopied(true),
              () => undefined,
            )
          }
        >
          {say(copied ? 'people.copied' : 'people.copy')}
        </Button>
        <Button onClick={onClose}>{say('action.close')}</Button>
      </div>
    </Modal>
  )
}
