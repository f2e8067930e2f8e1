'use client'
import { memo, useEffect, useRef, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Part } from '@/core/plant/part'
import type { Facts } from '@/core/record/facts'
import { type Verdict, worst } from '@/core/verdict/verdict'
import { partName, say, sayCode } from '@/words/say'
import type { Draft } from '../bench/draft'
import { Mark } from '../mark/Mark'
import { cellText } from './cell'
import { cellsOf, type Column, type Row, type SetUp } from './model'

type RowProps = {
  row: Row
  index: number
  columns: readonly Column[]
  facts: Facts
  evaluation: Evaluation
  setUp: SetUp
  canWrite: boolean
  /** The column that is open in this row, null where none is. */
  onColumn: number | null
  drafts: readonly (Draft | undefined)[]
  onOpen(row: number, column: number): void
  onWrite(one: StepEvaluation, slot: Column['slot'], text: string): void
  judgedVerdict(one: StepEvaluation, draft: Draft): Verdict
}

const isShut = (one: StepEvaluation): boolean => one.shut?.hard === true

/** Whether a row shows the same as before: what did not change is the same object, though the job was evaluated anew. */
const showsTheSame = (before: Row, after: Row): boolean =>
  [...after.byStep].every(([step, one]) => before.byStep.get(step) === one)

/** A row is drawn anew only where something of its own has changed; what waits in it is judged by the newest facts. */
export const GridRow = memo(DrawnRow, (before, after) => {
  const waits = after.drafts.some((draft) => draft !== undefined)
  return (
    before.columns === after.columns &&
    before.setUp === after.setUp &&
    before.canWrite === after.canWrite &&
    before.onColumn === after.onColumn &&
    before.drafts.every((draft, k) => draft === after.drafts[k]) &&
    (waits ? before.evaluation === after.evaluation : showsTheSame(before.row, after.row))
  )
})

function DrawnRow(props: RowProps) {
  const { row, index, columns, facts, setUp, canWrite, onColumn, drafts, onOpen, onWrite, judgedVerdict } = props
  const own = [...row.byStep.values()]
  const askedAt = (column: Column): StepEvaluation | null => {
    const one = row.byStep.get(column.step)
    return one && cellsOf(column.step, row.part, facts.regime, setUp).includes(column.slot) ? one : null
  }
  // The grid is entered by its first cell; from there arrows lead everywhere.
  const entry = index === 0 ? columns.findIndex((column) => askedAt(column) !== null) : -1
  const draftOf = (one: StepEvaluation): Draft | undefined => drafts[[...row.byStep.values()].indexOf(one)]
  return (
    <tr>
      <th scope="row">
        <Mark verdict={worst(own.map((one) => one.verdict))} size={16} />
        <span>
          {row.part.data.tag}
          <small>{about(row.part)}</small>
        </span>
      </th>
      {columns.map((column, c) => {
        const one = askedAt(column)
        if (!one) return <td key={column.id} className="none" aria-label={say('schedule.not-asked')} />
        const draft = draftOf(one)
        const { text, from } = cellText(one, column.slot, draft)
        const shut = isShut(one)
        const verdict = draft && from === 'draft' ? judgedVerdict(one, draft) : text ? one.verdict : null
        const isOpen = onColumn === c
        const name = `${partName(row.part)}, ${sayCode('slot', column.slot.id)}`
        return (
          <td
            key={column.id}
            className={`${isOpen ? 'on' : ''} ${from === 'draft' ? 'pen' : ''} ${shut ? 'shut' : ''} ${verdict ? `c-${verdict}` : ''}`}
            data-cell={`${row.part.data.tag}.${column.slot.id}`}
            data-verdict={verdict ?? ''}
            onMouseDown={(event) => {
              if (isOpen) return
              event.preventDefault()
              onOpen(index, c)
            }}
          >
            {isOpen ? (
              <CellInput
                name={name}
                text={text}
                mode={column.slot.kind === 'number' ? 'decimal' : 'text'}
                readOnly={!canWrite || shut}
                onText={(typed) => onWrite(one, column.slot, typed)}
              />
            ) : (
              <button
                type="button"
                tabIndex={c === entry ? 0 : -1}
                aria-label={`${name}: ${text}`}
                onFocus={() => onOpen(index, c)}
              >
                {verdict && verdict !== 'within' && <Mark verdict={verdict} size={16} named={false} />}
                {text}
              </button>
            )}
          </td>
        )
      })}
    </tr>
  )
}

type InputProps = {
  name: string
  text: string
  mode: 'decimal' | 'text'
  readOnly: boolean
  onText(typed: string): void
}

/** The cell that is open. What is typed stays as it is until it means something; what an instrument shows replaces it. */
function CellInput({ name, text, mode, readOnly, onText }: InputProps) {
  const [typed, setTyped] = useState(text)
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => {
    setTyped(text)
    // An answer stands there in words: the next key begins anew.
    if (mode === 'text') requestAnimationFrame(() => input.current?.select())
  }, [text, mode])
  return (
    <input
      ref={input}
      aria-label={name}
      value={typed}
      readOnly={readOnly}
      inputMode={mode}
      autoComplete="off"
      onChange={(event) => {
        setTyped(event.target.value)
        onText(event.target.value)
      }}
    />
  )
}

/** What a row is about, in a few words: what it feeds and its device. */
function about({ data }: Part): string {
  if (data.kind === 'circuit')
    return [data.feeds, data.device && `${data.device}${data.rating_A ?? ''}`].filter(Boolean).join(', ')
  return data.kind === 'rcd' ? `${data.type}, ${data.rated_mA} mA` : ''
}
