'use client'
import '@/words/print'
import '@/words/regime'
import { Table } from 'antd'
import { type LimitId, limitIds, type Regime, type SchoolId, schoolIds } from '@/core/regime/regime'
import { differenceOf } from '@/core/regime/difference'
import { unitSpellings } from '@/core/quantity/unit'
import { say, sayCode } from '@/words/say'
import { sourceName } from '@/words/sourceName'

export const nameOf = ({ name, version }: Regime): string => say('office.regime-version', { name, version })

/** A school has no source of its own, and its words take that column too. */
type LimitRow = { id: string; name: string; value: string; beside: string; source: string | null }

const DIGITS = 4
const limitText = ({ limits }: Regime, id: LimitId): string => {
  const limit = limits[id]
  return limit ? `${Number(limit.value.toPrecision(DIGITS))} ${unitSpellings[limit.unit].written}` : '–'
}
const schoolText = ({ schools }: Regime, id: SchoolId): string => sayCode('school', `${id}.${schools[id]}`)

/** @param beside what it is compared with; then only what differs is told. */
export function rowsOf(regime: Regime, beside: Regime | null): LimitRow[] {
  const differs = beside && differenceOf(regime, beside)
  const limits = limitIds.map((id) => {
    const source = regime.limits[id]?.source
    const texts = { value: limitText(regime, id), beside: beside ? limitText(beside, id) : '' }
    return { id, name: sayCode('limit', id), ...texts, source: source ? sourceName(source) : '' }
  })
  const schools = schoolIds.map((id) => {
    const texts = { value: schoolText(regime, id), beside: beside ? schoolText(beside, id) : '' }
    return { id, name: sayCode('school', id), ...texts, source: null }
  })
  return [...limits, ...schools].filter(({ id }) => !differs || differs.has(id))
}

type TableProps = { regime: Regime; beside: Regime | null; rows: LimitRow[] }

/** Limits and schools of a regime, beside those of another where one is given. */
export function LimitTable({ regime, beside, rows }: TableProps) {
  return (
    <Table<LimitRow>
      size="small"
      rowKey="id"
      pagination={false}
      dataSource={rows}
      columns={[
        { title: say('certificate.limit'), dataIndex: 'name' },
        ...(beside ? [{ title: nameOf(beside), align: 'left' as const, dataIndex: 'beside' }] : []),
        {
          title: beside ? nameOf(regime) : say('certificate.value'),
          align: 'left',
          dataIndex: 'value',
          onCell: ({ source }) => ({ colSpan: source === null ? 2 : 1 }),
        },
        {
          title: say('certificate.source'),
          align: 'left',
          dataIndex: 'source',
          onCell: ({ source }) => ({ colSpan: source === null ? 0 : 1 }),
        },
      ]}
    />
  )
}
