'use client'
import { Button, Table } from 'antd'
import { useMemo } from 'react'
import { curvesAsCsv, curvesAsJson, type OutCurve } from '@/core/curve/curveFile'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { CurvePicture } from '@/core/steps/picture'
import { figure, say } from '@/words/say'
import { saveFile } from '../shell/saveFile'
import { curvesOut } from './curvesOut'
import { currentOf, type CurveView, drawnIn } from './curveShape'

/** The same figures for those who cannot see the curve, and all strings' curves as a file. */
type Props = { picture: CurvePicture; at: CurveView['at']; evaluation: Evaluation; one: StepEvaluation }

export function CurveTable({ picture, at, evaluation, one }: Props) {
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
  const all = (): OutCurve[] => curvesOut(evaluation, one)
  return (
    <>
      <div className="curve-tools">
        <Button
          className="small"
          onClick={() => saveFile('curves.csv', curvesAsCsv(all()), 'text/csv')}
          data-testid="curves-csv"
        >
          {say('curve.as-csv')}
        </Button>
        <Button className="small" onClick={() => saveFile('curves.json', curvesAsJson(all()), 'application/json')}>
          {say('curve.as-json')}
        </Button>
      </div>
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
    </>
  )
}

const expectedText = (current: number | null): string => (current === null ? '–' : figure(current, 3))
