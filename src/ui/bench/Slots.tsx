'use client'
import { type ReactNode, useEffect, useRef } from 'react'
import type { Known } from '@/core/evaluate'
import type { NumberSlot as NumberSlotData } from '@/core/steps/slot'
import { unitSpellings } from '@/core/quantity/unit'
import { figure, say, sayCode, sayFinding } from '@/words/say'
import { Mark } from '../mark/Mark'
import { useNarrow } from '../shell/narrow'
import type { AnsweredSlot, Option } from './draft'

type NumberProps = {
  slot: NumberSlotData
  text: string
  whisker: number | null
  /** What the plant has for it, as it is written; null where it has nothing. */
  entered: string | null
  decimals: number
  open: boolean
  readOnly: boolean
  message: string | null
  tools: ReactNode
  onFocus(): void
  onBlur(): void
  onText(text: string): void
}

/** A reading as big as the display it comes from. */
export function NumberSlot({
  slot,
  text,
  whisker,
  entered,
  decimals,
  open,
  readOnly,
  message,
  tools,
  onFocus,
  onBlur,
  onText,
}: NumberProps) {
  // Beside keys of our own no other keyboard is wanted: it would lie over the verdict.
  const narrow = useNarrow()
  const id = `slot-${slot.id}`
  return (
    <div className={`slot ${open ? '' : 'pen'}`}>
      <label className="nm" htmlFor={id}>
        <span className="bal" aria-hidden="true">
          {slot.balloon}
        </span>
        {sayCode('slot', slot.id)}
        <u>{whisker === null ? '' : `±${figure(whisker, decimals)}`}</u>
      </label>
      <div className="fig">
        <input
          id={id}
          value={text}
          readOnly={readOnly}
          inputMode={narrow ? 'none' : 'decimal'}
          autoComplete="off"
          className={slot.optional || entered ? 'may' : undefined}
          placeholder={entered ? say('slot.entered', { value: entered }) : slot.optional ? say('slot.optional') : '–'}
          data-main-key="yes"
          onFocus={({ currentTarget }) => {
            onFocus()
            requestAnimationFrame(() => currentTarget.closest('.slot')?.scrollIntoView({ block: 'nearest' }))
          }}
          onBlur={onBlur}
          aria-invalid={message !== null}
          aria-describedby={message ? `${id}-said` : undefined}
          onChange={(event) => onText(event.target.value)}
        />
        <span>{unitSpellings[slot.unit].written}</span>
        {tools}
      </div>
      {message && (
        <p className="said bad" id={`${id}-said`} role="alert">
          {message}
        </p>
      )}
    </div>
  )
}

type ChoiceProps = {
  slot: AnsweredSlot
  options: readonly Option[]
  value: string | null
  open: boolean
  readOnly: boolean
  onChoose(choice: string): void
}

/** A reading that is one of a few answers. */
export function ChoiceSlot({ slot, options, value, open, readOnly, onChoose }: ChoiceProps) {
  return (
    <fieldset className={`slot ${open ? '' : 'pen'}`} style={{ margin: 0, minInlineSize: 0 }}>
      <legend className="hidden">{sayCode('slot', slot.id)}</legend>
      <div className="nm" aria-hidden="true">
        <span className="bal">{slot.balloon}</span>
        {sayCode('slot', slot.id)}
      </div>
      <div className="choices">
        {options.map((option) => (
          <button
            type="button"
            key={option.id}
            className="choice"
            aria-pressed={value === option.id}
            disabled={readOnly}
            onClick={() => onChoose(option.id)}
          >
            {value === option.id && <Mark verdict={option.sound ? 'within' : 'outside'} size={24} named={false} />}
            {option.name}
          </button>
        ))}
      </div>
      <p className="hidden">{say('slot.choose')}</p>
    </fieldset>
  )
}

type RowProps = Omit<ChoiceProps, 'open'> & { isNext: boolean }

/** The row that waits is brought into view, so that figure keys never answer a line that nobody sees. */
function useShown(isNext: boolean) {
  const row = useRef<HTMLFieldSetElement>(null)
  useEffect(() => {
    if (isNext) void row.current?.scrollIntoView({ block: 'nearest' })
  }, [isNext])
  return row
}

/** One of several answers in a step: its name, and its answers beside it. */
export function ChoiceRow({
  slot,
  options,
  value,
  readOnly,
  isNext,
  onChoose,
  asked,
}: RowProps & { asked: string | undefined }) {
  const row = useShown(isNext)
  return (
    <fieldset ref={row} className={`row ${isNext ? 'next' : ''}`} data-slot={slot.id}>
      <legend className="hidden">{sayCode('slot', slot.id)}</legend>
      <span className="nm" aria-hidden="true">
        <span className="bal">{slot.balloon}</span>
        {sayCode('slot', slot.id)}
      </span>
      <span className="opts">
        {options.map((option) => (
          <button
            type="button"
            key={option.id}
            className="opt"
            data-option={option.id}
            aria-pressed={value === option.id}
            disabled={readOnly}
            onClick={() => onChoose(option.id)}
          >
            {option.name}
            {option.id === asked && <small>{say('slot.asked')}</small>}
          </button>
        ))}
      </span>
    </fieldset>
  )
}

type CheckProps = RowProps & {
  note: string
  wantsWords: boolean
  /** What the tool knows of it, for whoever looks. */
  says: Known | null
  onNote(note: string): void
}

const SYMBOLS = ['M-6 .5-2 4.5 6-4.5', 'M-5-5 5 5M5-5-5 5', 'M-6 0H6']
const MARKS = ['within', 'outside', 'left-out'] as const

/** A line of a list of checks: three marks, and a few words where it is not as it should be. */
export function CheckRow({
  slot,
  options,
  value,
  readOnly,
  isNext,
  onChoose,
  note,
  wantsWords,
  says,
  onNote,
}: CheckProps) {
  const asks = wantsWords || note !== '' || (value !== null && value !== options[0]?.id)
  const row = useShown(isNext)
  return (
    <fieldset ref={row} className={`row ${isNext ? 'next' : ''}`} data-slot={slot.id}>
      <legend className="hidden">{sayCode('slot', slot.id)}</legend>
      <span className="nm" aria-hidden="true">
        <span className="bal">{slot.balloon}</span>
        <span>{sayCode('slot', slot.id)}</span>
      </span>
      <span className="opts">
        {options.map((option, k) => (
          <button
            type="button"
            key={option.id}
            className="opt mark"
            data-option={option.id}
            aria-label={option.name}
            title={option.name}
            aria-pressed={value === option.id}
            disabled={readOnly}
            onClick={() => onChoose(option.id)}
          >
            {value === option.id ? (
              <Mark verdict={MARKS[k]!} size={24} named={false} />
            ) : (
              <svg width="18" height="18" viewBox="-9 -9 18 18" aria-hidden="true">
                <path d={SYMBOLS[k]} fill="none" stroke="var(--ink2)" strokeWidth="2.2" />
              </svg>
            )}
          </button>
        ))}
      </span>
      {says && <p className="src">{sayFinding(says.finding)}</p>}
      {asks && (
        <input
          id={`slot-${slot.id}-note`}
          className="words"
          value={note}
          readOnly={readOnly}
          maxLength={2000}
          aria-label={say('slot.words', { what: sayCode('slot', slot.id) })}
          placeholder={say(value === options[2]?.id ? 'slot.why-left-out' : 'slot.what-is-wrong')}
          data-main-key="yes"
          onChange={(event) => onNote(event.target.value)}
        />
      )}
    </fieldset>
  )
}
