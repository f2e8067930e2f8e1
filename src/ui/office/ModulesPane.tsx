'use client'
import { Button } from 'antd'
import { useState } from 'react'
import type { ModuleType } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import { say } from '@/words/say'
import { ask } from '../device/api'
import { MOST_BYTES, readDataSheets, type SheetRead } from '../plant/dataSheetCsv'
import { TypeForm } from '../plant/TypeForm'
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
      <table className="rows-table">
        <thead>
          <tr>
            <th>{say('plant.type')}</th>
            {['Pmax, W', 'Voc, V', 'Isc, A', 'Vmp, V', 'Imp, A', 'Voc, %/K', 'Isc, %/K'].map((head) => (
              <th key={head} className="right">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {found.slice(0, MOST_SHOWN).map((type) => {
            const { pmax_W, voc_V, isc_A, vmp_V, imp_A, beta_pctPerK, alpha_pctPerK } = type.data
            return (
              <tr key={type.id}>
                <td>{nameOf(type)}</td>
                {[pmax_W, voc_V, isc_A, vmp_V, imp_A, beta_pctPerK, alpha_pctPerK].map((value, k) => (
                  <td key={k} className="right">
                    {Number(value.toPrecision(4))}
                  </td>
                ))}
              </tr>
            )
          })}
        </tbody>
      </table>
    </>
  )
}

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
      <label className="field">
        <span>{say('sheet.choose')}</span>
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          className="box"
          data-testid="sheet"
          onChange={(event) => void open(event.target.files?.[0])}
        />
      </label>
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
