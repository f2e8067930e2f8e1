'use client'
import { Button, Input } from 'antd'
import { scaleOfSlot } from '@/core/evaluation/cells'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Slot } from '@/core/steps/slot'
import { hasWords, partName, say, sayCode } from '@/words/say'
import { optionsOf, wantsWords } from '../bench/draft'
import { Mark } from '../mark/Mark'
import { ThinRule } from '../rule/ThinRule'
import { CellInput } from './CellInput'
import { shownAt, type Stood } from './cell'
import { expectedText, limitText, ownScale } from './figures'

type Props = {
  evaluation: Evaluation
  one: StepEvaluation
  slots: readonly Slot[]
  title: string
  /** Which of its figures somebody is in. */
  at: number
  stood: Stood
  canWrite: boolean
  isDocked: boolean
  onSlot(slot: number): void
  onText(slot: Slot, typed: string): void
  onNote(slot: Slot, words: string): void
}

/** Below the row that somebody is in: what the test is held against, and a pen with its rule for each figure. */
export function OpenRow(props: Props) {
  const { evaluation, one, slots, title, at, stood, canWrite, onSlot } = props
  const judgement = stood.judged?.judgement ?? one.counting?.judgement ?? null
  const slot = slots[at] ?? slots[0]!
  const scale = ownScale(scaleOfSlot(evaluation, one, judgement, slot), shownAt(one, slot, stood).text)
  const several = slots.length > 1
  return (
    <div className="opened" data-testid="opened">
      <div className="about">
        <b>{title}</b>
        <small>
          {scale
            ? [limitText(scale), expectedText(scale)].filter(Boolean).join(', ')
            : several
              ? say('schedule.worst-stands')
              : ''}
        </small>
      </div>
      <div className={several ? 'pens' : 'pens alone'}>
        {slots.map((one, k) => (
          <Pen
            key={one.id}
            {...props}
            slot={one}
            here={k === at}
            several={several}
            onHere={() => onSlot(k)}
            canWrite={canWrite}
          />
        ))}
      </div>
    </div>
  )
}

type PenProps = Props & { slot: Slot; here: boolean; several: boolean; onHere(): void }

function Pen(props: PenProps) {
  const { evaluation, one, slot, here, several, stood, canWrite, isDocked, onText, onNote, onHere } = props
  const shown = shownAt(one, slot, stood)
  const judgement = stood.judged?.judgement ?? one.counting?.judgement ?? null
  const scale = ownScale(scaleOfSlot(evaluation, one, judgement, slot), shown.text)
  const shut = one.shut?.hard === true
  const options = slot.kind === 'number' || slot.kind === 'curve' ? [] : optionsOf(slot, evaluation.facts)
  const own = several ? { 'data-slot': `${one.part.data.tag}.${slot.id}`, 'data-verdict': shown.verdict ?? '' } : {}
  const wanting = stood.draft ? wantsWords(slot, stood.draft) || (stood.draft.notes[slot.id] ?? '') !== '' : false
  return (
    <div className={`pen ${here && several ? 'on' : ''} ${shown.from === 'draft' ? 'draft' : ''}`} {...own}>
      {several && (
        // biome-ignore lint/a11y/noStaticElementInteractions: a wider place for the finger
        <div className="top" onMouseDown={onHere}>
          {shown.verdict && <Mark verdict={shown.verdict} size={16} named={false} />}
          <span>{hasWords(`pen.${slot.id}`) ? sayCode('pen', slot.id) : sayCode('slot', slot.id)}</span>
          <CellInput
            name={`${partName(one.part)}, ${sayCode('slot', slot.id)}`}
            text={shown.text}
            mode={slot.kind === 'number' ? (isDocked ? 'none' : 'decimal') : 'text'}
            readOnly={!canWrite || shut}
            here={here}
            onText={(typed) => onText(slot, typed)}
            onFocus={onHere}
          />
        </div>
      )}
      {options.length > 0 && (
        <div className="options">
          {options.map((option, k) => (
            <Button
              key={option.id}
              size="small"
              tabIndex={-1}
              disabled={!canWrite || shut}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => onText(slot, String(k + 1))}
            >
              <kbd>{k + 1}</kbd> {option.name}
            </Button>
          ))}
          {wanting && (
            <Input
              size="small"
              aria-label={say('slot.words', { what: sayCode('slot', slot.id) })}
              placeholder={say('slot.what-is-wrong')}
              value={stood.draft?.notes[slot.id] ?? ''}
              onChange={(event) => onNote(slot, event.target.value)}
              data-testid={`note-${slot.id}`}
            />
          )}
        </div>
      )}
      {scale && <ThinRule rule={scale} verdict={shown.verdict ?? 'not-yet'} wide={several ? 150 : 640} low={several} />}
    </div>
  )
}
