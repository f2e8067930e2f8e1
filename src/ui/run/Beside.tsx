'use client'
import '@/words/print'
import { Table } from 'antd'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { besideOf } from '@/report/partSheet'
import type { Cell } from '@/report/stepTable'
import { say } from '@/words/say'
import { Mark } from '../mark/Mark'

type Props = { evaluation: Evaluation; one: StepEvaluation }

/** This test at all alike parts of the site, a column a part: twins ought to be alike. */
export function Beside({ evaluation, one }: Props) {
  const { columns, rows } = besideOf(evaluation, one)
  const shown = (cell: Cell) =>
    cell.verdict ? (
      <>
        <Mark verdict={cell.verdict} size={16} named={false} /> {cell.text}
      </>
    ) : (
      cell.text.trim()
    )
  return (
    <section className="note beside" aria-labelledby="side-beside" data-testid="beside">
      <h2 id="side-beside">{say('side.beside')}</h2>
      <Table
        size="small"
        pagination={false}
        rowKey="key"
        dataSource={rows.map((cells, key) => ({ key, cells }))}
        columns={columns.map(({ label }, k) => ({
          key: label,
          align: k > 0 ? 'right' : 'left',
          title: k > 0 && label === one.part.data.tag ? say('side.beside-this', { tag: label }) : label,
          onHeaderCell: () => ({ scope: 'col' }),
          render: (_: unknown, { cells }: { cells: Cell[] }) => shown(cells[k]!),
        }))}
      />
    </section>
  )
}
