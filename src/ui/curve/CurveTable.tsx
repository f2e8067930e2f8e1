'use client'
import { Table } from 'antd'
import { useMemo } from 'react'
import type { CurvePicture } from '@/core/steps/picture'
import { figure, say } from '@/words/say'
import { currentOf, type CurveView, drawnIn } from './curveOption'

/** The same figures for those who cannot see the curve. */
export function CurveTable({ picture, at }: { picture: CurvePicture; at: CurveView['at'] }) {
  const rows = useMemo(() => {
    const { measured, expected } = drawnIn(picture, at)
    return measured.map(([voltage, current], key) => ({
      key,
      voltage: figure(voltage, 2),
      current: figure(current, 3),
      power: figure(voltage * current, 1),
      expected: expectedText(currentOf(expected, voltage)),
    }))
  }, [picture, at])
  const column = (dataIndex: 'voltage' | 'current' | 'power' | 'expected', title: string) => ({
    dataIndex,
    title,
    align: 'right' as const,
  })
  return (
    <Table
      size="small"
      virtual
      scroll={{ y: 300 }}
      pagination={false}
      data-testid="curve-table"
      columns={[
        column('voltage', say('curve.column-voltage')),
        column('current', say('curve.column-current')),
        column('power', say('curve.column-power')),
        column('expected', say('curve.column-expected')),
      ]}
      dataSource={rows}
    />
  )
}

const expectedText = (current: number | null): string => (current === null ? '–' : figure(current, 3))
