'use client'
import '@/words/charts'
import { Collapse, Table } from 'antd'
import { say } from '@/words/say'

/** Longer tables draw what is in sight. */
const LONG = 60

export type ChartFigures = { columns: readonly string[]; rows: readonly (readonly string[])[] }

/** The same figures for those who cannot see the chart, folded away until somebody asks. */
export function FiguresTable({ figures }: { figures: ChartFigures }) {
  const { columns, rows } = figures
  return (
    <Collapse
      ghost
      size="small"
      className="chart-figures"
      items={[
        {
          key: 'figures',
          label: say('chart.figures'),
          children: (
            <Table
              size="small"
              pagination={false}
              virtual={rows.length > LONG}
              {...(rows.length > LONG ? { scroll: { y: 300 } } : {})}
              rowKey="key"
              columns={columns.map((title, k) => ({
                key: title,
                title,
                align: k === 0 ? ('left' as const) : ('right' as const),
                render: (_: unknown, { cells }: { cells: readonly string[] }) => cells[k],
              }))}
              dataSource={rows.map((cells, key) => ({ key, cells }))}
            />
          ),
        },
      ]}
    />
  )
}
