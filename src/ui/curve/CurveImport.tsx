'use client'
import { Button, Input, Modal, Progress, Select, Table, Upload } from 'antd'
import { useEffect, useMemo, useState } from 'react'
import {
  type CurveColumns,
  type CurveTable,
  curvesOf,
  curvesOfJson,
  type FileCurve,
  readCurveTable,
} from '@/core/curve/curveFile'
import { type CurveValue, curveOf } from '@/core/curve/curveValue'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Body, Conditions, How } from '@/core/record/entry'
import { figure, say, sayCode } from '@/words/say'
import { cutText } from '../shell/cutText'
import { Said } from '../shell/Form'
import { Mapping } from './Mapping'
import { bodyFor, type CurveRow, conditionsOf, refusalOn, rowsOf, stringsFor } from './importCurves'

const MOST_BYTES = 60_000_000

type Props = {
  evaluation: Evaluation
  one: StepEvaluation
  instrumentId: string | null
  /** Light and warmth of now: for curves whose file has none. */
  conditions: Conditions | null
  begin: 'file' | 'paste'
  onClose(): void
  /** One curve of this string goes to the bench, to be looked at before it is kept. */
  onCurve(curve: CurveValue, how: How, conditions: Conditions | null): void
  /** Several are kept at once, each on its string. */
  onCurves(bodies: { partId: string; body: Body<'reading'> }[]): Promise<boolean>
}

/** What an instrument's columns were, and which string its memories went to, kept on this device. */
type Remembered = { heads: string[]; columns: CurveColumns; strings: Record<string, string> }
const keyOf = (instrumentId: string | null): string => `upstand.curve-columns.${instrumentId ?? 'none'}`

function remembered(instrumentId: string | null): Remembered | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(instrumentId)) ?? 'null') as Remembered | null
  } catch {
    return null
  }
}

/** Curves from a file or a spreadsheet: which column is which is looked at first, then which string each belongs to. */
export function CurveImport(props: Props) {
  const { evaluation, one, instrumentId } = props
  const [text, setText] = useState('')
  const [table, setTable] = useState<CurveTable | null>(null)
  const [columns, setColumns] = useState<CurveColumns | null>(null)
  const [json, setJson] = useState<FileCurve[] | null>(null)
  const [message, setMessage] = useState<string | null>(null)
  const [known] = useState(() => remembered(instrumentId))
  const [commaTold, setCommaTold] = useState(false)
  const tool = evaluation.facts.instruments.find(({ id }) => id === instrumentId) ?? null
  const steps = useMemo(() => evaluation.steps.filter((other) => other.step === one.step), [evaluation.steps, one.step])

  const take = (given: string): void => {
    setText(given)
    setTable(null)
    setColumns(null)
    setMessage(null)
    const asJson = curvesOfJson(given)
    setJson(asJson)
    if (asJson || given.trim() === '') return
    const read = readCurveTable(given)
    if (typeof read === 'string') return setMessage(sayCode('curve', read))
    setTable(read)
    const isAsBefore = known !== null && JSON.stringify(known.heads) === JSON.stringify(read.heads)
    setColumns(
      isAsBefore
        ? { ...known.columns, comma: read.asksComma ? known.columns.comma : read.columns.comma }
        : read.columns,
    )
    setCommaTold(isAsBefore)
  }
  const open = async (file: File): Promise<void> => {
    if (file.size > MOST_BYTES) return setMessage(say('sheet.too-large', { most: MOST_BYTES / 1e6 }))
    take(await file.text())
  }
  const asksComma = table?.asksComma === true && !commaTold
  const curves = useMemo(() => {
    if (json) return json
    return table && columns && !asksComma ? curvesOf(text, columns) : []
  }, [json, table, columns, text, asksComma])
  const rows = useRows(curves)
  const [given, setGiven] = useState<Record<number, string | null>>({})
  const guessed = useMemo(() => stringsFor(rows, steps, known?.strings ?? {}), [rows, steps, known])
  const partOf = (row: CurveRow): string | null =>
    given[row.key] !== undefined ? given[row.key]! : rows.length === 1 ? one.part.id : (guessed[row.key] ?? null)
  const counted = new Map<string, number>()
  for (const row of rows) {
    const id = partOf(row)
    if (id) counted.set(id, (counted.get(id) ?? 0) + 1)
  }
  const stateOf = (row: CurveRow): { step: StepEvaluation | null; refused: string | null } => {
    const step = steps.find(({ part }) => part.id === partOf(row)) ?? null
    if (!step) return { step, refused: row.refused }
    if (counted.get(step.part.id)! > 1) return { step, refused: say('curve.two-of-one', { tag: step.part.data.tag }) }
    return { step, refused: refusalOn(evaluation, step, row, bodyFor(step, row, tool, props.conditions)) }
  }
  const ready = rows.flatMap((row) => {
    const { step, refused } = stateOf(row)
    return step && !refused ? [{ row, step }] : []
  })
  const keep = async (): Promise<void> => {
    const strings = Object.fromEntries(ready.map(({ row, step }) => [row.curve.name, step.part.data.tag]))
    if (table && columns) {
      const held: Remembered = { heads: table.heads, columns, strings: { ...known?.strings, ...strings } }
      localStorage.setItem(keyOf(instrumentId), JSON.stringify(held))
    }
    const [first, second] = ready
    if (!first) return setMessage(say('curve.none-to-take'))
    if (!second && first.step === one) {
      const memory = cutText(first.row.curve.name.trim(), 40)
      const conditions = conditionsOf(first.row.curve, props.conditions)
      return props.onCurve(curveOf(first.row.curve.points, memory ? { memory } : {}), 'file', conditions)
    }
    const bodies = ready.map(({ row, step }) => ({
      partId: step.part.id,
      body: bodyFor(step, row, tool, props.conditions),
    }))
    if (await props.onCurves(bodies)) props.onClose()
  }
  return (
    <Modal open title={say('curve.import-title')} onCancel={props.onClose} footer={null} width={860} destroyOnHidden>
      {props.begin === 'file' ? (
        <Upload.Dragger
          accept=".csv,.tsv,.txt,.json,text/csv,application/json"
          beforeUpload={(file) => {
            void open(file)
            return false
          }}
          maxCount={1}
          showUploadList={{ showRemoveIcon: false }}
          data-testid="curve-upload"
        >
          <p>{say('curve.drop')}</p>
        </Upload.Dragger>
      ) : (
        <Input.TextArea
          rows={5}
          placeholder={say('curve.paste-here')}
          aria-label={say('curve.paste-here')}
          value={text}
          onChange={(event) => take(event.target.value)}
          data-testid="curve-pasted"
        />
      )}
      {table && columns && (
        <Mapping
          table={table}
          columns={columns}
          onColumns={setColumns}
          asksComma={asksComma}
          onComma={() => setCommaTold(true)}
        />
      )}
      {rows.length > 0 && (
        <Table
          size="small"
          pagination={false}
          scroll={{ y: 260 }}
          virtual={rows.length > 60}
          data-testid="curve-rows"
          rowKey="key"
          dataSource={rows}
          columns={[
            { title: say('curve.in-file'), render: (_, row: CurveRow) => row.curve.name || say('curve.no-name') },
            {
              title: say('curve.column-points'),
              align: 'right',
              render: (_, row: CurveRow) => row.curve.points.length,
            },
            {
              title: 'Voc',
              align: 'right',
              render: (_, { features }: CurveRow) => (features ? `${figure(features.voc_V, 1)} V` : '–'),
            },
            {
              title: 'Isc',
              align: 'right',
              render: (_, { features }: CurveRow) => (features ? `${figure(features.isc_A, 2)} A` : '–'),
            },
            {
              title: say('curve.goes-to'),
              render: (_, row: CurveRow) => (
                <Select
                  style={{ width: 150 }}
                  showSearch={{ optionFilterProp: 'label' }}
                  aria-label={say('curve.goes-to')}
                  value={partOf(row) ?? ''}
                  onChange={(id: string) => setGiven({ ...given, [row.key]: id || null })}
                  options={[
                    { value: '', label: say('curve.not-taken') },
                    ...steps.map(({ part }) => ({ value: part.id, label: say('part.string', { tag: part.data.tag }) })),
                  ]}
                />
              ),
            },
            {
              title: '',
              render: (_, row: CurveRow) => <span className="t-outside">{stateOf(row).refused ?? ''}</span>,
            },
          ]}
        />
      )}
      {rows.length < curves.length && (
        <Progress
          aria-label={say('curve.importing')}
          percent={Math.round((100 * rows.length) / curves.length)}
          data-testid="curve-progress"
        />
      )}
      <Said message={message} />
      <div className="acts">
        <Button
          type="primary"
          disabled={ready.length === 0 || rows.length < curves.length}
          onClick={() => void keep()}
          data-testid="curve-take"
        >
          {ready.length > 1 || (ready[0] && ready[0].step !== one)
            ? say('curve.keep-several', { count: ready.length })
            : say('curve.to-the-bench')}
        </Button>
        <Button onClick={props.onClose}>{say('action.close')}</Button>
      </div>
    </Modal>
  )
}

/** So many curves are looked at before the screen is drawn again. */
const AT_ONCE = 12

/** What each curve of a file shows, a few at a time: a thousand of them leave the page alive. */
function useRows(curves: readonly FileCurve[]): readonly CurveRow[] {
  const [rows, setRows] = useState<readonly CurveRow[]>([])
  useEffect(() => {
    setRows([])
    let found: readonly CurveRow[] = []
    let timer: ReturnType<typeof setTimeout> | null = null
    const more = (): void => {
      found = [...found, ...rowsOf(curves.slice(found.length, found.length + AT_ONCE), found.length)]
      setRows(found)
      if (found.length < curves.length) timer = setTimeout(more, 0)
    }
    if (curves.length > 0) more()
    return () => {
      if (timer) clearTimeout(timer)
    }
  }, [curves])
  return rows
}
