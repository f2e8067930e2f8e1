/** What a cell takes: a figure as typed, or an answer by its number, its first letters or its words. */
import type { StepEvaluation } from '@/core/evaluation/types'
import type { Facts } from '@/core/record/facts'
import type { Slot } from '@/core/steps/slot'
import { parseReading } from '@/core/quantity/parseReading'
import { sayCode } from '@/words/say'
import { type Draft, optionsOf } from '../bench/draft'

export type CellText = { text: string; from: 'draft' | 'kept' | null }

/** The option that was meant, null where it could be several or none. */
export function optionMeant(slot: Slot, typed: string, facts: Facts): string | null {
  if (slot.kind === 'number' || slot.kind === 'curve') return null
  const wanted = typed.trim().toLowerCase()
  if (wanted === '') return null
  const options = optionsOf(slot, facts)
  const byNumber = options[Number(wanted) - 1]
  if (byNumber) return byNumber.id
  const begins = options.filter((one) => one.name.toLowerCase().startsWith(wanted) || one.id === wanted)
  return begins.length === 1 ? begins[0]!.id : null
}

/** What stands in a cell now: what was typed and waits, else what was kept. */
export function cellText(one: StepEvaluation, slot: Slot, draft: Draft | undefined): CellText {
  const typed = slot.kind === 'number' ? draft?.texts[slot.id] : draft?.choices[slot.id]
  if (typed) return { text: slot.kind === 'number' ? typed : sayCode('choice', typed), from: 'draft' }
  const kept = one.counting?.entry.body.slots[slot.id]
  if (!kept) return { text: '', from: null }
  if ('curve' in kept) return { text: '', from: 'kept' }
  return { text: 'choice' in kept ? sayCode('choice', kept.choice) : kept.text, from: 'kept' }
}

/** Why a text cannot go into a cell, as a code of refusal; null where it can. */
export function cellRefuses(slot: Slot, typed: string, facts: Facts): string | null {
  if (typed.trim() === '') return null
  if (slot.kind !== 'number') return optionMeant(slot, typed, facts) ? null : 'choice-unclear'
  const parsed = parseReading(typed, slot.unit)
  if (parsed.state === 'refused') return parsed.code
  return parsed.state === 'ask' ? 'thousand-unclear' : null
}
