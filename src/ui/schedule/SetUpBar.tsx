'use client'
import { Select } from 'antd'
import type { Facts } from '@/core/record/facts'
import type { AnyReadStep } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import { optionsOf } from '../bench/draft'
import { type Row, type SetUp, setUpSlots } from './model'

type BarProps = {
  steps: readonly AnyReadStep[]
  rows: readonly Row[]
  facts: Facts
  setUp: SetUp
  canWrite: boolean
  onChoose(step: AnyReadStep, slot: string, choice: string): void
}

/** How the tests are made, said once for all rows. */
export function SetUpBar({ steps, rows, facts, setUp, canWrite, onChoose }: BarProps) {
  const all = steps.flatMap((step) => setUpSlots(step, rows, facts.regime).map((slot) => ({ step, slot })))
  if (all.length === 0) return null
  return (
    <div className="setup">
      {all.map(({ step, slot }) => (
        <div key={`${step.id}.${slot.id}`} className="one">
          <label htmlFor={`setup-${step.id}-${slot.id}`}>
            {sayCode('step', `${step.id}.short`)}: {sayCode('slot', slot.id)}
          </label>
          <Select<string>
            id={`setup-${step.id}-${slot.id}`}
            size="small"
            value={setUp[step.id]?.[slot.id] ?? null}
            placeholder={say('schedule.not-said')}
            disabled={!canWrite}
            popupMatchSelectWidth={false}
            onChange={(id) => onChoose(step, slot.id, id)}
            options={optionsOf(slot, facts).map((one) => ({ value: one.id, label: one.name }))}
            data-testid={`setup-${step.id}-${slot.id}`}
          />
        </div>
      ))}
    </div>
  )
}
