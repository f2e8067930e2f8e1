'use client'
import { Button, Popover, Radio } from 'antd'
import type { Evaluation } from '@/core/evaluation/types'
import type { Instrument } from '@/core/record/instrument'
import type { AnyReadStep } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import { type AnsweredSlot, optionsOf } from '../bench/draft'
import { ChevronDown } from '../shell/ChevronDown'
import { type Row, type SetUp, setUpSlots, underOf } from './model'
import { testName } from './useSchedule'

type Question = { slot: AnsweredSlot; steps: readonly AnyReadStep[] }
type ChipOf = { id: string; name: string; questions: readonly Question[] }

/** A chip a test; leads that several are read with are said once. */
function chipsOf(steps: readonly AnyReadStep[], rows: readonly Row[], evaluation: Evaluation): ChipOf[] {
  const leads: AnyReadStep[] = []
  const own: ChipOf[] = []
  for (const step of steps) {
    const questions = setUpSlots(step, rows, underOf(evaluation))
    if (questions.some(({ kind }) => kind === 'lead-set')) leads.push(step)
    const rest = questions.filter(({ kind }) => kind !== 'lead-set').map((slot) => ({ slot, steps: [step] }))
    if (rest.length > 0) own.push({ id: step.id, name: testName(step), questions: rest })
  }
  const slot = leads[0]?.slots.find((one): one is AnsweredSlot => one.kind === 'lead-set')
  return slot ? [{ id: 'leads', name: say('schedule.leads'), questions: [{ slot, steps: leads }] }, ...own] : own
}

type Props = {
  evaluation: Evaluation
  steps: readonly AnyReadStep[]
  rows: readonly Row[]
  setUp: SetUp
  canWrite: boolean
  onChoose(step: AnyReadStep, slot: string, choice: string): void
  /** The testers that can read what the grid asks, and the one that does. */
  kit: readonly Instrument[]
  tool: Instrument | null
  onTool(id: string): void
}

/** How the tests are made, said once for all rows: it holds for readings from then on. */
export function SetUpChips({ evaluation, steps, rows, setUp, canWrite, onChoose, kit, tool, onTool }: Props) {
  return (
    <div className="chips">
      {chipsOf(steps, rows, evaluation).map(({ id, name, questions }) => {
        const chosen = questions.map(({ slot, steps: [first] }) => setUp[first!.id]?.[slot.id])
        const unsaid = questions.some(({ slot }, k) => !chosen[k] && !slot.optional)
        return (
          <Chip
            key={id}
            id={id}
            name={name}
            text={unsaid ? say('schedule.not-said') : chipText(questions, chosen, evaluation)}
            isOpen={unsaid}
            canWrite={canWrite}
          >
            {questions.map(({ slot, steps }) => (
              <Ask
                key={slot.id}
                name={`setup-${id}-${slot.id}`}
                title={sayCode('slot', slot.id)}
                value={setUp[steps[0]!.id]?.[slot.id] ?? null}
                options={optionsOf(slot, evaluation.facts)}
                onChoose={(choice) => {
                  for (const step of steps) onChoose(step, slot.id, choice)
                }}
              />
            ))}
          </Chip>
        )
      })}
      {kit.length > 0 && (
        <Chip
          id="tester"
          name={say('schedule.tester')}
          text={tool?.tag ?? say('schedule.not-said')}
          isOpen={!tool}
          canWrite={canWrite}
        >
          <Ask
            name="setup-tester"
            title={say('slot.with')}
            value={tool?.id ?? null}
            options={kit.map((one) => ({
              id: one.id,
              name: [one.tag, one.name, one.standIn ? say('slot.simulated') : ''].filter(Boolean).join(' '),
            }))}
            onChoose={onTool}
          />
        </Chip>
      )}
    </div>
  )
}

/** What was chosen, in short, the first and the last of it: what is as usual goes without saying. */
function chipText(
  questions: readonly Question[],
  chosen: readonly (string | undefined)[],
  { facts }: Evaluation,
): string {
  const words = questions.flatMap(({ slot }, k) => {
    const options = optionsOf(slot, facts)
    const choice = options.find(({ id }) => id === chosen[k])
    if (!choice) return []
    // Two sound answers tell something; the one sound answer is what everybody expects.
    const isUsual = options.filter((one) => one.sound).length === 1 && choice.sound && options.length > 1
    return isUsual ? [] : [choice.name]
  })
  const shown = words.filter((_, k) => k === 0 || k === words.length - 1)
  return shown.length > 0 ? shown.join(', ') : say('schedule.as-usual')
}

type ChipProps = {
  id: string
  name: string
  text: string
  isOpen: boolean
  canWrite: boolean
  children: React.ReactNode
}

function Chip({ id, name, text, isOpen, canWrite, children }: ChipProps) {
  const shown = (
    <Button className={isOpen ? 'chip open' : 'chip'} disabled={!canWrite} data-testid={`chip-${id}`}>
      <i>{name}</i>
      <span>{text}</span>
      <ChevronDown />
    </Button>
  )
  if (!canWrite) return shown
  return (
    <Popover trigger="click" placement="bottomLeft" arrow={false} classNames={{ root: 'chip-list' }} content={children}>
      {shown}
    </Popover>
  )
}

type AskProps = {
  name: string
  title: string
  value: string | null
  options: readonly { id: string; name: string }[]
  onChoose(id: string): void
}

function Ask({ name, title, value, options, onChoose }: AskProps) {
  return (
    <fieldset data-testid={name}>
      <legend>{title}</legend>
      <Radio.Group value={value} onChange={(event) => onChoose(event.target.value as string)}>
        {options.map((one) => (
          <Radio key={one.id} value={one.id}>
            {one.name}
          </Radio>
        ))}
      </Radio.Group>
    </fieldset>
  )
}
