'use client'
import { Collapse, Input } from 'antd'
import type { ReadingEvaluation } from '@/core/evaluation/types'
import { unitSpellings } from '@/core/quantity/unit'
import type { NumberSlot } from '@/core/steps/slot'
import { say, sayCode } from '@/words/say'
import { obstacle } from './draft'
import type { Taking } from './useTaking'

type Props = {
  slots: readonly NumberSlot[]
  taking: Taking
  /** The kept reading which is shown, null while one is taken. */
  shown: ReadingEvaluation | null
  canWrite: boolean
}

/** What the same press gave besides: one line as long as nobody wants to see or type it. */
export function Besides({ slots, taking, shown, canWrite }: Props) {
  const { draft, state } = taking
  const readOnly = !canWrite || !taking.taking
  const textOf = ({ id }: NumberSlot): string => {
    const kept = shown?.entry.body.slots[id]
    return shown ? (kept && 'text' in kept ? kept.text : '') : (draft.texts[id] ?? '')
  }
  const there = slots.filter((slot) => textOf(slot) !== '')
  if (shown && there.length === 0) return null
  const figures = there.map((slot) =>
    say('besides.one', { name: sayCode('slot', slot.id), value: textOf(slot), unit: slot.unit }),
  )
  const said = (slot: NumberSlot): string | null => (taking.taking ? obstacle(state, slot) : null)
  const hasObstacle = slots.some((slot) => textOf(slot) !== '' && said(slot) !== null)
  return (
    <Collapse
      size="small"
      className="besides"
      {...(hasObstacle ? { activeKey: 'besides' } : {})}
      items={[
        {
          key: 'besides',
          label: (
            <span data-testid="besides">
              {say('besides.title')}
              {figures.length > 0 && <span className="besides-said">{figures.join(' · ')}</span>}
            </span>
          ),
          children: (
            <div className="besides-fields">
              {slots.map((slot) => (
                <label key={slot.id} htmlFor={`slot-${slot.id}`}>
                  {sayCode('slot', slot.id)}
                  <Input
                    id={`slot-${slot.id}`}
                    value={textOf(slot)}
                    readOnly={readOnly}
                    inputMode="decimal"
                    autoComplete="off"
                    suffix={unitSpellings[slot.unit].written}
                    status={said(slot) && textOf(slot) !== '' ? 'error' : ''}
                    onChange={({ target }) => taking.change({ texts: { ...draft.texts, [slot.id]: target.value } })}
                  />
                  {textOf(slot) !== '' && said(slot) && (
                    <span className="said bad" role="alert">
                      {said(slot)}
                    </span>
                  )}
                </label>
              ))}
            </div>
          ),
        },
      ]}
    />
  )
}
