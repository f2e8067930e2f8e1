'use client'
import { Button, Table } from 'antd'
import { useState } from 'react'
import type { ModuleType } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import { say } from '@/words/say'
import { ask } from '../device/api'
import { TypeForm } from '../plant/TypeForm'
import { Field, Said } from '../shell/Form'
import { ModuleSheet } from './ModuleSheet'
import { SheetImport } from './SheetImport'
import { quietly, useAsked } from './useAsked'

const MOST_SHOWN = 200

/** The module library: search it, add a type from its data plate, or take a table of data sheets in. */
export function ModulesPane({ mayAdd, mayChange }: { mayAdd: boolean; mayChange: boolean }) {
  const [asked, again] = useAsked<{ moduleTypes: ModuleType[] }>('/api/module-types')
  const [words, setWords] = useState('')
  const [adding, setAdding] = useState(false)
  const [refused, setRefused] = useState<string | null>(null)
  const [opened, setOpened] = useState<ModuleType | null>(null)
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
          <SheetImport library={all} onDone={again} />
        </div>
      )}
      {adding && (
        <TypeForm
          onClose={() => setAdding(false)}
          onAdd={(type) => {
            setAdding(false)
            void ask('/api/module-types', type).then(again, (error: Error) => setRefused(error.message))
          }}
        />
      )}
      <Said message={refused} />
      {opened && (
        <ModuleSheet
          type={opened}
          mayChange={mayChange}
          onClose={() => setOpened(null)}
          onDone={() => {
            setOpened(null)
            again()
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
          {
            title: say('plant.type'),
            fixed: 'start',
            render: (_, type) => (
              <Button
                type="link"
                size="small"
                style={{ padding: 0 }}
                onClick={() => setOpened(type)}
                data-testid="module-open"
              >
                {nameOf(type)}
              </Button>
            ),
          },
          ...figures().map(([title, of]) => ({
            title,
            align: 'right' as const,
            render: (_: unknown, type: ModuleType) => shortFigure(of(type.data)),
          })),
        ]}
      />
    </>
  )
}

const shortFigure = (value: number | undefined): string =>
  value === undefined ? '–' : String(Number(value.toPrecision(4))).replace('-', '−')

const figures = (): [title: string, of: (data: ModuleType['data']) => number | undefined][] => [
  [say('modules.pmax'), (data) => data.pmax_W],
  [say('modules.voc'), (data) => data.voc_V],
  [say('modules.isc'), (data) => data.isc_A],
  [say('modules.vmp'), (data) => data.vmp_V],
  [say('modules.imp'), (data) => data.imp_A],
  [say('modules.beta'), (data) => data.beta_pctPerK],
  [say('modules.alpha'), (data) => data.alpha_pctPerK],
  [say('modules.cells'), (data) => data.cellsInSeries],
  [say('modules.system-voltage'), (data) => data.maxSystemVoltage_V],
  [say('modules.fuse'), (data) => data.maxSeriesFuse_A],
]

const nameOf = (type: ModuleType): string => `${type.make} ${type.name}`
