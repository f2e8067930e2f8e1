'use client'
import { Button, Table } from 'antd'
import { useState } from 'react'
import type { ModuleType } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import { say } from '@/words/say'
import { ask } from '../device/api'
import { MOST_BYTES, readDataSheets, type SheetRead } from '../plant/dataSheetCsv'
import { TypeForm } from '../plant/TypeForm'
import { ChooseFile } from '../shell/ChooseFile'
import { Field } from '../shell/Form'
import { quietly, useAsked, whyNot } from './useAsked'

const MOST_SHOWN = 200

/** The module library: search it, add a type from its data plate, or take a table of data sheets in. */
export function ModulesPane({ mayAdd }: { mayAdd: boolean }) {
  const [asked, again] = useAsked<{ moduleTypes: ModuleType[] }>('/api/module-types')
  const [words, setWords] = useState('')
  const [adding, setAdding] = useState(false)
  if (asked.state !== 'here') return <p style={{ padding: '20px 0' }}>{quietly(asked)}</p>
  const wanted = words.trim().toLowerCase().split(/\s+/)
  const all = [...asked.value.moduleTypes].sort((a, b) => compareTags(nameOf(a), nameOf(b)))
  const found = all.filter((type) => wanted.every((word) => nameOf(type).toLowerCase().includes(word)))
  return (
    <>
      <div className="two" style={{ maxWidth: 720, paddingTop: 10 }}>
        <Field label={say('modules.search')} value={words} onValue={setWords} testId="module-search" />
      </div>
      {mayAdd && (
        <div className="acts-row" style={{ paddingTop: 10 }}>
          <Button className="small" onClick={() => setAdding(!adding)}>
            {say('plant.add-type')}
          </Button>
          <SheetImport onDone={again} />
        </div>
      )}
      {adding && (
        <TypeForm
          onClose={() => setAdding(false)}
          onAdd={(type) => {
            setAdding(false)
            void ask('/api/module-types', type).then(again, () => undefined)
          }}
        />
      )}
      <p className="src">{say('modules.count', { found: found.length, all: all.length })}</p>
      <Table<ModuleType>
        size="small"
        rowKey="id"
        dataSource={found}
        pagination={{ pageSize: MOST_SHOWN, hideOnSinglePage: true, showSizeChanger: false }}
        scroll={{ x: 'max-content' }}
        columns={[
          { title: say('plant.type'), render: (_, type) => nameOf(type), fixed: 'start' },
          ...figures.map(([title, of]) => ({
            title,
            align: 'right' as const,
            render: (_: unknown, type: ModuleType) => String(Number(of(type.data).toPrecision(4))).replace('-', '−'),
          })),
        ]}
      />
    </>
  )
}

const figures: [title: string, of: (data: ModuleType['data']) => number][] = [
  ['Pmax, W', (data) => data.pmax_W],
  ['Voc, V', (data) => data.voc_V],
  ['Isc, A', (data) => data.isc_A],
  ['Vmp, V', (data) => data.vmp_V],
  ['Imp, A', (data) => data.imp_A],
  ['Voc, %/K', (data) => data.beta_pctPerK],
  ['Isc, %/K', (data) => data.alpha_pctPerK],
]

const nameOf = (type: ModuleType): string => `${type.make} ${type.name}`

function SheetImport({ onDone }: { onDone(): void }) {
  const [read, setRead] = useState<SheetRead | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const open = async (file: File | undefined): Promise<void> => {
    setSaid(null)
    if (!file) return setRead(null)
    if (file.size > MOST_BYTES) return setRead({ refused: say('sheet.too-large', { most: MOST_BYTES / 1e6 }) })
    setRead(readDataSheets(await file.text()))
  }
  const add = async (types: readonly ModuleType[]): Promise<void> => {
    let added = 0
    try {
      for (const type of types) {
        await ask('/api/module-types', type)
        added++
      }
      setSaid(say('sheet.added', { count: added }))
      setRead(null)
    } catch (error) {
      setSaid(say('sheet.added-some', { count: added, all: types.length, why: whyNot(error) }))
    }
    onDone()
  }
  return (
    <div className="sheet-import">
      <ChooseFile label={say('sheet.choose')} small testId="sheet" onFile={(file) => void open(file)} />
      {read && 'refused' in read && (
        <p className="said bad" role="alert">
          {read.refused}
        </p>
      )}
      {read && !('refused' in read) && (
        <div data-testid="sheet-read">
          <p>{say('sheet.found', { count: read.types.length, bad: read.problems.length })}</p>
          <ul className="src">
            {read.problems.slice(0, 20).map((one) => (
              <li key={one.row}>{say('sheet.problem', one)}</li>
            ))}
          </ul>
          {read.types.length > 0 && (
            <Button type="primary" onClick={() => void add(read.types)} data-testid="sheet-add">
              {say('sheet.add', { count: read.types.length })}
            </Button>
          )}
        </div>
      )}
      {said && (
        <p className="said" role="status">
          {said}
        </p>
      )}
    </div>
  )
}
