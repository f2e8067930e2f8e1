'use client'
import { memo } from 'react'
import type { StepEvaluation } from '@/core/evaluation/types'
import type { Slot } from '@/core/steps/slot'
import { partName, say } from '@/words/say'
import type { Draft } from '../bench/draft'
import { Mark } from '../mark/Mark'
import { CellInput } from './CellInput'
import { otherwise, type Stood, standsIn } from './cell'

type Props = {
  one: StepEvaluation
  slots: readonly Slot[]
  /** Figures that were kept under another set-up. */
  apart: readonly Slot[] | undefined
  /** Its heading, as it is read aloud. */
  heading: string
  draft: Draft | undefined
  /** What else a draft is judged by: it changes with every entry. */
  judgedIn: unknown
  stoodAt(one: StepEvaluation): Stood
  here: boolean
  /** The grid is entered here by Tab. */
  isEntry: boolean
  canWrite: boolean
  isDocked: boolean
  onOpen(): void
  onText(typed: string): void
}

const isSame = (before: Props, after: Props): boolean =>
  before.one === after.one &&
  before.draft === after.draft &&
  (after.draft === undefined || before.judgedIn === after.judgedIn) &&
  before.here === after.here &&
  before.isEntry === after.isEntry &&
  before.canWrite === after.canWrite &&
  before.isDocked === after.isDocked &&
  isSameList(before.slots, after.slots) &&
  isSameList(before.apart ?? [], after.apart ?? [])

const isSameList = (a: readonly Slot[], b: readonly Slot[]): boolean =>
  a.length === b.length && a.every((slot, k) => slot === b[k])

/** One cell: its worst figure with its mark; the pen where it asks for one only. */
export const GridCell = memo(function GridCell(props: Props) {
  const { one, slots, apart, heading, stoodAt, here, isEntry, canWrite, isDocked, onOpen, onText } = props
  const shown = standsIn(one, { slots, apart: here ? undefined : apart }, stoodAt(one))
  const said = shown.isApart ? otherwise(apart ?? []) : undefined
  const [slot] = slots
  const shut = one.shut?.hard === true
  const name = `${partName(one.part)}, ${heading}`
  const own = slots.length === 1 && slot ? { 'data-slot': `${one.part.data.tag}.${slot.id}` } : {}
  const isFigure = slot?.kind === 'number'
  return (
    <div
      className={`gcell ${here ? 'on' : ''} ${shown.from === 'draft' ? 'pen' : ''} ${shut && shown.text === '' ? 'shut' : ''} ${isFigure ? '' : 'mid'} ${shown.isApart ? 'apart' : ''}`}
      data-verdict={shown.verdict ?? ''}
      {...own}
    >
      {shown.verdict && <Mark verdict={shown.verdict} size={16} named={false} />}
      {here && slots.length === 1 && slot ? (
        <CellInput
          name={name}
          text={shown.text}
          mode={isFigure ? (isDocked ? 'none' : 'decimal') : 'text'}
          readOnly={!canWrite || shut}
          here
          onText={onText}
        />
      ) : (
        <button
          type="button"
          tabIndex={isEntry ? 0 : -1}
          aria-label={`${name}: ${shown.text || say('verdict.not-yet')}${shown.verdict ? `, ${say(`verdict.${shown.verdict}`)}` : ''}${said ? `, ${said}` : ''}`}
          title={said}
          onMouseDown={(event) => {
            event.preventDefault()
            onOpen()
          }}
          onFocus={onOpen}
        >
          {shown.text === '' ? <i className="line" /> : isFigure ? shown.text : ''}
        </button>
      )}
    </div>
  )
}, isSame)
