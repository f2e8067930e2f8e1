'use client'
import '@/words/everyTest'
import '@/words/regime'
import { Button, Input, Modal, Radio, Table } from 'antd'
import { useMemo, useState } from 'react'
import { type Comparison, type Source, type SourceId, sources } from '@/core/regime/sources'
import { takenBySource } from '@/core/regime/taken'
import { quantity, say, sayCode, type WordKey } from '@/words/say'
import { sourceName } from '@/words/sourceName'
import { ask } from '../device/api'
import { Mark } from '../mark/Mark'
import { Field, Form, Said, Words } from '../shell/Form'
import { DialogActions } from '../shell/ReasonDialog'
import { fullDay } from '../shell/time'
import { useAsked, whyNot } from './useAsked'

type Row = { id: SourceId; source: Source; name: string; taken: string; held: Comparison | null }

/** Every published source: house rules and common practice have no document to be held against. */
function rowsOf(compared: readonly Comparison[]): Row[] {
  const taken = takenBySource()
  return (Object.keys(sources) as SourceId[])
    .filter((id) => sources[id].standing === 'published')
    .map((id) => {
      const { limits = [], steps = [] } = taken.get(id) ?? {}
      const words = [
        ...limits.map(({ id, value, unit }) => `${sayCode('limit', id)}: ${quantity(value, unit, decimals(value))}`),
        ...steps.map((step) => sayCode('step', `${step}.short`)),
      ]
      return {
        id,
        source: sources[id],
        name: sourceName(id),
        taken: words.join('; ') || say('sources.sums-only'),
        held: compared.find(({ source }) => source === id) ?? null,
      }
    })
}

const decimals = (value: number): number => (Number.isInteger(value) ? 0 : 2)
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** Documents, editions and clauses with what was taken from each, how sure that is, and who held it against the document. */
export function SourcesPane({ mayChange }: { mayChange: boolean }) {
  const [asked, reload] = useAsked<{ compared: Comparison[] }>('/api/sources')
  const [wanted, setWanted] = useState('')
  const [open, setOpen] = useState<Row | null>(null)
  const rows = useMemo(() => rowsOf(asked.state === 'here' ? asked.value.compared : []), [asked])
  const found = rows.filter(({ name, taken }) =>
    `${name} ${taken}`.toLocaleLowerCase().includes(wanted.trim().toLocaleLowerCase()),
  )
  const held = rows.filter((one) => one.held).length
  return (
    <>
      <p className="src" style={{ padding: '10px 0' }}>
        {say('sources.about', { held, count: rows.length })}
      </p>
      <Said message={asked.state === 'none' ? asked.why : null} />
      <Input
        allowClear
        value={wanted}
        aria-label={say('sources.find')}
        placeholder={say('sources.find')}
        onChange={(event) => setWanted(event.target.value)}
        style={{ maxWidth: 420, marginBottom: 12 }}
        data-testid="find-source"
      />
      <Table<Row>
        size="small"
        rowKey="id"
        loading={asked.state === 'loading'}
        dataSource={found}
        pagination={false}
        data-testid="sources"
        scroll={{ x: 900 }}
        columns={[
          { title: say('sources.document'), align: 'left', width: 260, render: (_, { name }) => <b>{name}</b> },
          {
            title: say('sources.taken'),
            align: 'left',
            render: (_, { taken }) => <span className="small">{taken}</span>,
          },
          {
            title: say('sources.sure'),
            align: 'left',
            width: 130,
            render: (_, { source }) => say(`sources.sure.${source.sure}` as WordKey),
          },
          {
            title: say('sources.held'),
            align: 'left',
            width: 300,
            render: (_, row) => <Held row={row} mayChange={mayChange} onCompare={() => setOpen(row)} />,
          },
        ]}
      />
      {open && (
        <CompareDialog
          row={open}
          onClose={() => setOpen(null)}
          onKept={() => {
            setOpen(null)
            reload()
          }}
        />
      )}
    </>
  )
}

function Held({ row, mayChange, onCompare }: { row: Row; mayChange: boolean; onCompare(): void }) {
  const { held } = row
  return (
    <>
      {held ? (
        <p className="small">
          <Mark verdict={held.agrees ? 'within' : 'outside'} size={16} named={false} />{' '}
          {say(held.agrees ? 'sources.agrees' : 'sources.differs', { edition: held.edition })}
          {held.note && ` ${held.note}`}
          <br />
          <span className="quiet">
            {held.by}, {fullDay(held.at, zone)}
          </span>
        </p>
      ) : (
        <p className="small quiet">{say('sources.from-memory')}</p>
      )}
      {mayChange && (
        <Button className="small" onClick={onCompare} data-testid={`compare-${row.id}`}>
          {say('sources.compare')}
        </Button>
      )}
    </>
  )
}

function CompareDialog({ row, onClose, onKept }: { row: Row; onClose(): void; onKept(): void }) {
  const [edition, setEdition] = useState('')
  const [agrees, setAgrees] = useState<boolean | null>(null)
  const [note, setNote] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const keep = async (): Promise<void> => {
    if (edition.trim().length < 2) return setMessage(say('sources.edition-wanted'))
    if (agrees === null) return setMessage(say('sources.say-whether'))
    if (!agrees && note.trim().length < 3) return setMessage(say('sources.say-what'))
    try {
      await ask('/api/sources', { source: row.id, edition: edition.trim(), agrees, note: note.trim() })
      onKept()
    } catch (error) {
      setMessage(whyNot(error))
    }
  }
  return (
    <Modal open title={row.name} onCancel={onClose} footer={null} destroyOnHidden>
      <Form focused onSubmit={() => void keep()}>
        <p>{say('sources.taken-is', { what: row.taken })}</p>
        <Field label={say('sources.edition')} value={edition} onValue={setEdition} most={60} testId="held-edition" />
        <Radio.Group
          value={agrees}
          onChange={({ target }) => setAgrees(target.value as boolean)}
          options={[
            { value: true, label: <span data-testid="agrees">{say('sources.it-agrees')}</span> },
            { value: false, label: <span data-testid="differs">{say('sources.it-differs')}</span> },
          ]}
        />
        <Words label={say('sources.note')} value={note} onValue={setNote} most={300} />
        <Said message={message} />
        <DialogActions action={say('sources.keep')} onClose={onClose} />
      </Form>
    </Modal>
  )
}
