'use client'
import { Button } from 'antd'
import { useState } from 'react'
import type { ModuleType } from '@/core/plant/part'
import { say } from '@/words/say'
import { ask } from '../device/api'
import {
  type Column,
  type Columns,
  columnLabel,
  columnNames,
  isNeeded,
  MOST_BYTES,
  newTo,
  readDataSheets,
  type SheetRead,
  sheetTemplate,
} from '../plant/dataSheetCsv'
import { ChooseFile } from '../shell/ChooseFile'
import { Choice, Form } from '../shell/Form'
import { saveFile } from '../shell/saveFile'
import { whyNot } from './useAsked'

/** What columns of tables hold, as somebody said once, by the heads of the table. */
const KEPT = 'upstand.sheet-columns'
const keyOf = (heads: readonly string[]): string => heads.join('|').toLowerCase()
function kept(heads: readonly string[]): Columns | null {
  const all = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, Columns>
  return all[keyOf(heads)] ?? null
}
function keep(heads: readonly string[], columns: Columns): void {
  const all = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, Columns>
  localStorage.setItem(KEPT, JSON.stringify({ ...all, [keyOf(heads)]: columns }))
}

const nameOf = (type: ModuleType): string => `${type.make} ${type.name}`

/** A table of data sheets: what its columns hold, what is new in it, what is doubtful, and what cannot be read. */
export function SheetImport({ library, onDone }: { library: readonly ModuleType[]; onDone(): void }) {
  const [text, setText] = useState('')
  const [read, setRead] = useState<SheetRead | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const open = async (file: File | undefined): Promise<void> => {
    setSaid(null)
    if (!file) return setRead(null)
    if (file.size > MOST_BYTES) return setRead({ refused: say('sheet.too-large', { most: MOST_BYTES / 1e6 }) })
    const table = await file.text()
    setText(table)
    const first = readDataSheets(table)
    const known = 'heads' in first ? kept(first.heads) : null
    setRead(known ? readDataSheets(table, known) : first)
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
      <Button
        className="small"
        onClick={() => saveFile('module-types.csv', sheetTemplate(), 'text/csv')}
        data-testid="sheet-template"
      >
        {say('sheet.template')}
      </Button>
      {read && 'refused' in read && (
        <p className="said bad" role="alert">
          {read.refused}
        </p>
      )}
      {read && 'heads' in read && (
        <ColumnsAsked
          read={read}
          onSaid={(columns) => {
            keep(read.heads, columns)
            setRead(readDataSheets(text, columns))
          }}
        />
      )}
      {read && 'types' in read && <Offered read={read} library={library} onAdd={(types) => void add(types)} />}
      {said && (
        <p className="said" role="status">
          {said}
        </p>
      )}
    </div>
  )
}

type AskedProps = { read: Extract<SheetRead, { heads: string[] }>; onSaid(columns: Columns): void }

/** Which column of the table holds what. */
function ColumnsAsked({ read, onSaid }: AskedProps) {
  const [columns, setColumns] = useState<Columns>(read.columns)
  const options = [
    { value: '', text: say('sheet.not-there') },
    ...read.heads.map((head, k) => ({ value: String(k), text: head.trim() || `${k + 1}` })),
  ]
  const set = (column: Column, value: string): void =>
    setColumns((before) => {
      const { [column]: _, ...rest } = before
      return value === '' ? rest : { ...rest, [column]: Number(value) }
    })
  // What is to be said stands first.
  const inOrder = [...read.missing, ...columnNames.filter((column) => !read.missing.includes(column))]
  const isWhole = columnNames.every((column) => !isNeeded(column) || columns[column] !== undefined)
  return (
    <Form onSubmit={() => isWhole && onSaid(columns)}>
      <p>{say('sheet.ask')}</p>
      <div className="two wide">
        {inOrder.map((column) => (
          <Choice
            key={column}
            label={`${columnLabel(column)} ${isNeeded(column) ? '' : say('plate.optional')}`}
            value={columns[column] === undefined ? '' : String(columns[column])}
            options={options}
            onValue={(value) => set(column, value)}
          />
        ))}
      </div>
      <div>
        <Button type="primary" htmlType="submit" disabled={!isWhole} data-testid="sheet-read-so">
          {say('sheet.read-so')}
        </Button>
      </div>
    </Form>
  )
}

const MOST_NAMED = 20

type OfferedProps = {
  read: Extract<SheetRead, { types: ModuleType[] }>
  library: readonly ModuleType[]
  onAdd(types: readonly ModuleType[]): void
}

/** What is new, what is there already, what is doubtful and what cannot be read. */
function Offered({ read, library, onAdd }: OfferedProps) {
  const { fresh, same, other } = newTo(library, read.types)
  const doubtful = read.doubtful.filter(({ type }) => newTo([...library, ...fresh], [type]).fresh.length > 0)
  return (
    <div data-testid="sheet-read">
      <p>{say('sheet.found', { count: fresh.length, bad: read.problems.length })}</p>
      {same.length > 0 && <p className="src">{say('sheet.same', { count: same.length })}</p>}
      <ul className="src">
        {other.slice(0, MOST_NAMED).map((type) => (
          <li key={type.id}>{say('sheet.other', { name: nameOf(type) })}</li>
        ))}
        {doubtful.slice(0, MOST_NAMED).map(({ row, type, doubts }) => (
          <li key={row}>
            {say('sheet.doubt', {
              row,
              name: nameOf(type),
              why: doubts.map((doubt) => say(`plate.doubt.${doubt.code}`, doubt)).join(' '),
            })}
          </li>
        ))}
        {read.problems.slice(0, MOST_NAMED).map((one) => (
          <li key={one.row}>{say('sheet.problem', one)}</li>
        ))}
      </ul>
      <div className="acts-row">
        {fresh.length > 0 && (
          <Button type="primary" onClick={() => onAdd(fresh)} data-testid="sheet-add">
            {say('sheet.add', { count: fresh.length })}
          </Button>
        )}
        {doubtful.length > 0 && (
          <Button onClick={() => onAdd([...fresh, ...doubtful.map(({ type }) => type)])} data-testid="sheet-doubtful">
            {say('sheet.add-doubtful', { count: doubtful.length })}
          </Button>
        )}
      </div>
      {fresh.length + doubtful.length === 0 && <p className="src">{say('sheet.nothing-new')}</p>}
    </div>
  )
}
