'use client'
import { Button, Radio, Select, Table } from 'antd'
import type { CurveColumns, CurveTable } from '@/core/curve/curveFile'
import { say } from '@/words/say'

type MappingProps = {
  table: CurveTable
  columns: CurveColumns
  onColumns(columns: CurveColumns): void
  asksComma: boolean
  onComma(): void
}

/** Which column is which, over the file's first lines. */
export function Mapping({ table, columns, onColumns, asksComma, onComma }: MappingProps) {
  const heads = table.heads.map((head, value) => ({ value, label: head }))
  const change = (next: Partial<CurveColumns>): void => onColumns({ ...columns, ...next })
  const choose = (id: 'voltage' | 'current' | 'name') => (
    <div className="map-field">
      <span id={`map-${id}`}>{say(`curve.map-${id}`)}</span>
      <Select
        aria-labelledby={`map-${id}`}
        value={columns[id] ?? -1}
        onChange={(value: number) => change({ [id]: value < 0 ? null : value })}
        options={id === 'name' ? [{ value: -1, label: say('curve.map-none') }, ...heads] : heads}
        data-testid={`map-${id}`}
      />
    </div>
  )
  return (
    <>
      <div className="map">
        {choose('voltage')}
        <Radio.Group
          optionType="button"
          value={columns.voltageUnit}
          onChange={(event) => change({ voltageUnit: event.target.value as CurveColumns['voltageUnit'] })}
          options={['V', 'mV', 'kV']}
        />
        {choose('current')}
        <Radio.Group
          optionType="button"
          value={columns.currentUnit}
          onChange={(event) => change({ currentUnit: event.target.value as CurveColumns['currentUnit'] })}
          options={['A', 'mA']}
        />
        {choose('name')}
      </div>
      {table.isGuessed && <p className="said">{say('curve.guessed')}</p>}
      {asksComma && (
        <div className="ask" role="alert">
          <p>{say('curve.asks-comma')}</p>
          {(['decimal', 'thousands'] as const).map((comma) => (
            <Button
              key={comma}
              onClick={() => {
                change({ comma })
                onComma()
              }}
            >
              {say(`curve.comma-${comma}`)}
            </Button>
          ))}
        </div>
      )}
      <Table
        size="small"
        pagination={false}
        rowKey={(line) => line.join('|')}
        dataSource={table.sample.slice(0, 3)}
        columns={table.heads.map((title, k) => ({
          title,
          key: title + String(k),
          align: 'right' as const,
          className: k === columns.voltage || k === columns.current ? 'picked' : '',
          render: (_: unknown, line: string[]) => line[k] ?? '',
        }))}
      />
    </>
  )
}
