'use client'
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
        <label key={`${step.id}.${slot.id}`}>
          <span>
            {sayCode('step', `${step.id}.short`)}: {sayCode('slot', slot.id)}
          </span>
          <select
            className="slim"
            value={setUp[step.id]?.[slot.id] ?? ''}
            disabled={!canWrite}
            data-testid={`setup-${step.id}-${slot.id}`}
            onChange={(event) => onChoose(step, slot.id, event.target.value)}
          >
            {!setUp[step.id]?.[slot.id] && (
              <option value="" disabled>
                {say('schedule.not-said')}
              </option>
            )}
            {optionsOf(slot, facts).map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      ))}
    </div>
  )
}
