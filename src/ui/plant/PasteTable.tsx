'use client'
import { Button, Select, Space, Table } from 'antd'
import { useEffect, useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { type NewPart, partsAt } from '@/core/plant/additions'
import type { PartData } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { say } from '@/words/say'
import { ChooseFile } from '../shell/ChooseFile'
import { Labelled, Said, Words } from '../shell/Form'
import { useKeys } from '../shell/keys'
import type { Libraries } from './partForm'
import {
  columnName,
  columnsOf,
  NOT_USED,
  partsOfTable,
  readAs,
  readTable,
  type Table as Read,
  type TableKind,
} from './tableRead'
import { typeFigures } from './typeFigures'

type Props = {
  plant: PlantIndex
  libraries: Libraries
  /** What was pasted already. */
  text: string
  /** What stands in pencil now. */
  onDrafts(parts: readonly NewPart[]): void
  onTake(parts: readonly NewPart[]): void
  onLeave(): void
}

const MOST_BYTES = 2_000_000
const NEW_PLACE = 'new'

/** A table out of a spreadsheet: how it is read, what is doubtful, and what comes of it in pencil. */
export function PasteTable({ plant, libraries, text: given, onDrafts, onTake, onLeave }: Props) {
  const [text, setText] = useState(given)
  const [table, setTable] = useState<Read | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const read = (pasted: string): void => {
    setText(pasted)
    const found = pasted.trim() === '' ? { refused: '' } : readTable(pasted)
    setTable('refused' in found ? null : found)
    setSaid('refused' in found ? found.refused || null : null)
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was pasted on the page is read once it comes
  useEffect(() => {
    if (given) read(given)
  }, [given])
  const open = async (file: File | undefined): Promise<void> => {
    if (!file) return
    if (file.size > MOST_BYTES) return setSaid(say('table.too-large', { most: MOST_BYTES / 1e6 }))
    read(await file.text())
  }
  return (
    <section className="paste" aria-label={say('table.title')}>
      <header>
        <h2>{say('table.title')}</h2>
        {table && <small>{say('table.size', { rows: table.rows.length, columns: table.heads.length })}</small>}
      </header>
      {table ? (
        <TableRead
          table={table}
          setTable={setTable}
          plant={plant}
          libraries={libraries}
          onDrafts={onDrafts}
          onTake={onTake}
        />
      ) : (
        <>
          <p className="src">{say('table.about')}</p>
          <Words label={say('table.here')} value={text} onValue={read} />
          <ChooseFile label={say('table.open')} small testId="table-file" onFile={(file) => void open(file)} />
        </>
      )}
      <Said message={said} />
      <Button block onClick={onLeave} data-testid="table-leave">
        {say('table.leave')} <kbd>Esc</kbd>
      </Button>
    </section>
  )
}

type ReadProps = Pick<Props, 'plant' | 'libraries' | 'onDrafts' | 'onTake'> & {
  table: Read
  setTable(table: Read): void
}

function TableRead({ table, setTable, plant, libraries, onDrafts, onTake }: ReadProps) {
  const { kind } = table
  const places = kind === 'circuit' ? plant.ofKind('board') : plant.ofKind('array')
  const [placeId, setPlaceId] = useState(places[0]?.id ?? NEW_PLACE)
  const [typeId, setTypeId] = useState(
    plant.ofKind('string').at(-1)?.data.moduleType.id ?? libraries.module[0]?.id ?? '',
  )
  const [answers, setAnswers] = useState<Record<string, string>>({})
  // A place that is not there yet keeps its id from the first look to the last.
  const [newId] = useState(() => uuid())
  const [ids] = useState(() => table.rows.map(() => uuid()))
  const owner = placeId === NEW_PLACE ? newId : placeId
  const moduleType = libraries.module.find((one) => one.id === typeId) ?? null
  const found = useMemo(
    () =>
      partsOfTable(
        table,
        plant,
        libraries,
        { boardId: kind === 'circuit' ? owner : null, arrayId: kind === 'string' ? owner : null, moduleType },
        answers,
      ),
    [table, plant, libraries, kind, owner, moduleType, answers],
  )
  const parts = useMemo(
    () => found.rows.flatMap(({ data }, k): NewPart[] => (data ? [{ id: ids[k]!, data }] : [])),
    [found, ids],
  )
  const all = useMemo(
    () => (placeId === NEW_PLACE && parts.length > 0 ? [{ id: newId, data: newPlace(kind, plant) }, ...parts] : parts),
    [placeId, parts, newId, kind, plant],
  )
  useEffect(() => onDrafts(all), [all, onDrafts])
  const setColumn = (n: number, column: string): void =>
    setTable({ ...table, columns: table.columns.map((one, k) => (k === n ? column : one === column ? NOT_USED : one)) })
  const options = [
    ...places.map((one) => ({ value: one.id, label: one.data.tag })),
    { value: NEW_PLACE, label: say(kind === 'circuit' ? 'table.new-board' : 'table.new-array') },
  ]
  const bad = found.rows.flatMap(({ why }, k) => (why ? [{ row: k + 1, why }] : []))
  const mayTake = parts.length > 0 && found.doubts.length === 0
  const take = (): void => {
    if (mayTake) onTake(all)
  }
  useKeys({ Enter: take })
  const needsType = kind === 'string' && !table.columns.includes('moduleType')
  return (
    <>
      <div className="reads-as">
        <Labelled label={say('table.reads-as')}>
          {(id) => (
            <Space.Compact block>
              <Select<TableKind>
                id={id}
                value={kind}
                data-testid="table-kind"
                options={[
                  { value: 'circuit', label: say('table.circuits-of') },
                  { value: 'string', label: say('table.strings-of') },
                ]}
                onChange={(next) => setTable(readAs(table, next))}
              />
              <Select value={placeId} options={options} onChange={setPlaceId} data-testid="table-place" />
            </Space.Compact>
          )}
        </Labelled>
        {needsType && (
          <Labelled label={say('plant.type')}>
            {(id) => (
              <Select
                id={id}
                value={typeId}
                showSearch={{ optionFilterProp: 'label' }}
                options={libraries.module.map((one) => ({ value: one.id, label: typeFigures(one) }))}
                onChange={setTypeId}
              />
            )}
          </Labelled>
        )}
      </div>
      <Table
        size="small"
        className="pasted"
        pagination={false}
        scroll={{ x: 'max-content', y: 300 }}
        rowKey="key"
        dataSource={table.rows.map((cells, k) => ({ key: k, cells }))}
        columns={table.heads.map((head, n) => ({
          key: n,
          title: (
            <Select
              size="small"
              variant="borderless"
              aria-label={say('table.column', { head })}
              value={table.columns[n] ?? NOT_USED}
              popupMatchSelectWidth={false}
              options={[NOT_USED, ...columnsOf(kind)].map((value) => ({
                value,
                label: value === NOT_USED ? say('table.not-used-head', { head }) : columnName(kind, value),
              }))}
              onChange={(column) => setColumn(n, column)}
            />
          ),
          render: (_: unknown, { cells, key }: { cells: readonly string[]; key: number }) => {
            const isAsked = found.doubts.some((one) => one.key.startsWith(`${key}.`) && one.typed === cells[n])
            return <span className={isAsked ? 'asked' : undefined}>{cells[n]}</span>
          },
        }))}
      />
      <Doubts doubts={found.doubts} onAnswer={(key, value) => setAnswers((before) => ({ ...before, [key]: value }))} />
      <ul className="src">
        {bad.map((one) => (
          <li key={one.row}>{say('table.row', one)}</li>
        ))}
        {found.rows.map(({ open, data }, k) =>
          open.length > 0 && data ? (
            <li key={data.tag + String(k)}>{say('table.left-open', { tag: data.tag, what: open.join(', ') })}</li>
          ) : null,
        )}
      </ul>
      <Button type="primary" block disabled={!mayTake} onClick={take} data-testid="table-take">
        {say(kind === 'circuit' ? 'table.take-circuits' : 'table.take-strings', { count: parts.length })} <kbd>↵</kbd>
      </Button>
    </>
  )
}

type DoubtsProps = { doubts: ReturnType<typeof partsOfTable>['doubts']; onAnswer(key: string, value: string): void }

/** Figures that can be read in two ways: somebody says which. */
function Doubts({ doubts, onAnswer }: DoubtsProps) {
  if (doubts.length === 0) return null
  return (
    <section className="doubts" aria-live="polite">
      <h3>{say('table.look', { count: doubts.length })}</h3>
      {doubts.map((one) => (
        <div key={one.key} className="doubt">
          <span>{say('table.doubt', { tag: one.tag, what: one.what, typed: one.typed })}</span>
          <Space.Compact>
            {one.choices.map((choice) => (
              <Button key={choice} className="small" onClick={() => onAnswer(one.key, choice)}>
                {choice}
              </Button>
            ))}
            <Button className="small" onClick={() => onAnswer(one.key, '')}>
              {say('table.leave-open')}
            </Button>
          </Space.Compact>
        </div>
      ))}
    </section>
  )
}

/** The board or array that comes with them where there is none. */
const newPlace = (kind: TableKind, plant: PlantIndex): PartData =>
  partsAt(kind === 'circuit' ? 'board' : 'array', null, plant, () => '')[0]!.data
