'use client'
import { scaleOfSlot } from '@/core/evaluation/cells'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { unitSpellings } from '@/core/quantity/unit'
import type { NumberSlot } from '@/core/steps/slot'
import { sayCode, stepShort } from '@/words/say'
import { Keypad } from '../bench/Keypad'
import { ThinRule } from '../rule/ThinRule'
import { shownAt, type Stood } from './cell'
import { expectedText, limitText, ownScale } from './figures'

type Props = {
  evaluation: Evaluation
  one: StepEvaluation
  slot: NumberSlot
  /** One of several figures of its cell. */
  isOneOf: boolean
  stood: Stood
  onText(text: string): void
}

/** On a narrow screen keys for gloves, with the figure large and on its rule. */
export function ScheduleDock({ evaluation, one, slot, isOneOf, stood, onText }: Props) {
  const shown = shownAt(one, slot, stood)
  const judgement = stood.judged?.judgement ?? one.counting?.judgement ?? null
  const scale = ownScale(scaleOfSlot(evaluation, one, judgement, slot), shown.text)
  return (
    <div className="scheddock" data-testid="schedule-dock">
      <Keypad text={shown.from === 'draft' ? shown.text : ''} onText={onText} />
      <div className="figure">
        <h3>{stepShort(one)}</h3>
        <small>
          {[isOneOf ? sayCode('slot', slot.id) : '', scale ? limitText(scale) : '', scale ? expectedText(scale) : '']
            .filter(Boolean)
            .join(', ')}
        </small>
        <p className="big">
          {shown.text || '–'} <span>{unitSpellings[slot.unit].written}</span>
        </p>
        {scale && <ThinRule rule={scale} verdict={shown.verdict ?? 'not-yet'} />}
      </div>
    </div>
  )
}
