'use client'
import { Button } from 'antd'
import { type ReactNode, useState } from 'react'
import type { ReadingEvaluation } from '@/core/evaluation/types'
import type { Facts } from '@/core/record/facts'
import type { Slot } from '@/core/steps/slot'
import { quantity, say, sayCode } from '@/words/say'
import { useNarrow } from '../shell/narrow'
import { answered, isSetUp, obstacle, optionsOf, wantsWords } from './draft'
import { PadShape } from './pieces'
import { decimalsOf } from './sentences'
import { CheckRow, ChoiceRow, ChoiceSlot, NumberSlot } from './Slots'
import type { Taking } from './useTaking'

type Props = {
  slots: readonly Slot[]
  facts: Facts
  taking: Taking
  /** The kept reading which is shown, null while one is taken. */
  shown: ReadingEvaluation | null
  ready: boolean
  canWrite: boolean
  padOpen: boolean
  onPad(): void
  /** Instrument and conditions: they stand beside the first figures. */
  children: ReactNode
}

/** More figures than these are set closer, so that the verdict stays in sight. */
const FEW = 3

/** Slots that follow one another and look alike, drawn as one block. */
function blocksOf(slots: readonly Slot[]): Slot[][] {
  const kindOf = (slot: Slot): string => (slot.kind === 'lead-set' ? 'choice' : slot.kind)
  const blocks: Slot[][] = []
  for (const slot of slots) {
    const last = blocks.at(-1)
    if (last && kindOf(last[0]!) === kindOf(slot)) last.push(slot)
    else blocks.push([slot])
  }
  return blocks
}

/** A lone answer is as big as a lone figure; answers among others are rows. */
export function SlotBlocks(props: Props) {
  const { slots, children } = props
  const blocks = blocksOf(slots)
  const first = blocks.findIndex(([slot]) => slot!.kind === 'number')
  const lone = slots.length === 1
  return (
    <>
      {blocks.map((block, k) => {
        const [slot] = block
        if (slot!.kind === 'number' || lone) {
          const dense = block.length > FEW ? ' dense' : ''
          const many = block.length > 1 ? ' many' : ''
          return (
            <div key={slot!.id} className={`slots${many}${dense}`}>
              {block.map((one) => (
                <BigSlot key={one.id} {...props} slot={one} />
              ))}
              {(k === first || lone) && children}
            </div>
          )
        }
        return <RowBlock key={slot!.id} {...props} block={block} />
      })}
      {first < 0 && !lone && <div className="slots after">{children}</div>}
    </>
  )
}

function BigSlot({ slot, facts, taking, shown, ready, canWrite, padOpen, onPad }: Props & { slot: Slot }) {
  const { draft } = taking
  const narrow = useNarrow()
  const readOnly = !canWrite || !taking.taking
  const open = ready || !taking.taking
  const kept = shown?.entry.body.slots[slot.id]
  if (slot.kind === 'curve') return null
  if (slot.kind !== 'number') {
    return (
      <ChoiceSlot
        slot={slot}
        options={optionsOf(slot, facts)}
        value={shown ? (kept && 'choice' in kept ? kept.choice : null) : (draft.choices[slot.id] ?? null)}
        open={open}
        readOnly={readOnly}
        onChoose={(choice) => taking.change(answered(draft, slot.id, choice))}
      />
    )
  }
  const rule = taking.taking ? taking.live?.judgement.rule : shown?.judgement.rule
  const text = shown ? (kept && 'text' in kept ? kept.text : '') : (draft.texts[slot.id] ?? '')
  const whisker =
    text !== '' && rule?.measured && rule.unit === slot.unit && rule.measured.whisker > 0 ? rule.measured.whisker : null
  const entered = slot.entered?.(taking.part) ?? null
  return (
    <NumberSlot
      slot={slot}
      text={text}
      whisker={whisker}
      entered={entered === null ? null : quantity(entered, slot.unit, 0)}
      decimals={decimalsOf(slot.unit)}
      open={open}
      readOnly={readOnly}
      message={taking.taking ? obstacle(taking.state, slot) : null}
      onFocus={() => taking.setActive(slot.id)}
      onBlur={() => taking.setActive(null)}
      tools={
        // Held in a hand the keys come with the figure.
        canWrite &&
        !narrow && (
          <button
            type="button"
            className="pad"
            aria-label={say('keypad.open')}
            aria-expanded={padOpen}
            onClick={() => {
              taking.setActive(slot.id)
              onPad()
            }}
          >
            <PadShape />
          </button>
        )
      }
      onText={(text) => taking.change({ texts: { ...draft.texts, [slot.id]: text } })}
    />
  )
}

/** Fewer answers than these are worth no line of their own. */
const WORTH_A_LINE = 3

/** Set-up as it was before, said in one line until somebody wants another; lists of checks and open answers in rows. */
function RowBlock({ block, ...props }: Props & { block: readonly Slot[] }) {
  const { taking, shown, facts } = props
  const [isOpen, setOpen] = useState(false)
  const answers = block.flatMap((slot) => answerOf(slot, taking, shown, facts) ?? [])
  const wanting = block.some((slot) => !slot.optional && !answerOf(slot, taking, shown, facts))
  // What was answered for the part before, or in a kept reading; not what is being answered now.
  const [wasWhole] = useState(!wanting)
  const isOneLine = block.every(isSetUp) && answers.length >= WORTH_A_LINE
  if (isOneLine && wasWhole && !wanting && !isOpen)
    return (
      <p className="setup-line" data-testid="setup-line">
        <span>{answers.join(' · ')}</span>
        <Button className="small" onClick={() => setOpen(true)}>
          {say('bench.set-up')}
        </Button>
      </p>
    )
  return (
    <div className={block[0]!.kind === 'check' ? 'checks' : 'rows'}>
      {block.map((one) => (
        <RowSlot key={one.id} {...props} slot={one} />
      ))}
    </div>
  )
}

/** The answer to a question in words, with the question; null where there is none yet. */
function answerOf(slot: Slot, taking: Taking, shown: ReadingEvaluation | null, facts: Facts): string | null {
  if (slot.kind === 'number' || slot.kind === 'curve') return null
  const kept = shown?.entry.body.slots[slot.id]
  const value = shown ? (kept && 'choice' in kept ? kept.choice : null) : taking.draft.choices[slot.id]
  const option = value ? optionsOf(slot, facts).find((one) => one.id === value) : null
  return option ? `${sayCode('slot', slot.id)}: ${option.name}` : null
}

function RowSlot({ slot, facts, taking, shown, canWrite }: Props & { slot: Slot }) {
  if (slot.kind === 'number' || slot.kind === 'curve') return null
  const { draft } = taking
  const kept = shown?.entry.body.slots[slot.id]
  const value = shown ? (kept && 'choice' in kept ? kept.choice : null) : (draft.choices[slot.id] ?? null)
  const row = {
    slot,
    value,
    options: optionsOf(slot, facts),
    readOnly: !canWrite || !taking.taking,
    isNext: taking.taking && taking.next?.id === slot.id,
    onChoose: (choice: string) => taking.change(answered(draft, slot.id, choice)),
  }
  if (slot.kind !== 'check') return <ChoiceRow {...row} asked={taking.asked[slot.id]} />
  return (
    <CheckRow
      {...row}
      note={shown ? (kept && 'choice' in kept ? (kept.note ?? '') : '') : (draft.notes[slot.id] ?? '')}
      wantsWords={taking.taking && wantsWords(slot, draft)}
      says={taking.taking && value === null ? taking.known(slot) : null}
      onNote={(note) => taking.change({ notes: { ...draft.notes, [slot.id]: note } })}
    />
  )
}
