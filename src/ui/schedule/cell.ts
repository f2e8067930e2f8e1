/** What a cell takes and shows: a figure as typed, or an answer by its number, its first letters or its words. */
import { type Judged, verdictsOf, worstOf } from '@/core/evaluation/cells'
import type { StepEvaluation } from '@/core/evaluation/types'
import { parseReading } from '@/core/quantity/parseReading'
import type { SlotValue } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { Slot } from '@/core/steps/slot'
import type { Verdict } from '@/core/verdict/verdict'
import { say, sayCode } from '@/words/say'
import { type Draft, type DraftState, optionsOf } from '../bench/draft'

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

export type Shown = { text: string; from: 'draft' | 'kept' | null; verdict: Verdict | null }
const NOTHING: Shown = { text: '', from: null, verdict: null }

const typedIn = (slot: Slot, draft: Draft | undefined): string =>
  (slot.kind === 'number' ? draft?.texts[slot.id] : draft?.choices[slot.id]) ?? ''

/** A value as words: a figure as it was read, an answer by its name. */
export function valueText(value: SlotValue | undefined): string {
  if (!value || 'curve' in value) return ''
  return 'choice' in value ? sayCode('choice', value.choice) : value.text
}

/** A test as far as it is typed, with what that comes to; else as it was kept. */
export type Stood = { draft: Draft | undefined; state: DraftState | null; judged: Judged | null }

const keptJudged = ({ verdict, judgement, counting }: StepEvaluation): Judged | null =>
  counting && { verdict, judgement, isWhole: true }

/** What one figure shows now: what was typed and waits, else what was kept. */
export function shownAt(one: StepEvaluation, slot: Slot, { draft, judged }: Stood): Shown {
  const typed = typedIn(slot, draft)
  if (typed) {
    const verdict = judged ? (verdictsOf(judged, [...typedSlots(one, draft)]).get(slot.id) ?? null) : null
    return { text: slot.kind === 'number' ? typed : sayCode('choice', typed), from: 'draft', verdict }
  }
  const kept = one.counting?.entry.body.slots ?? {}
  const own = keptJudged(one)
  if (!own || !kept[slot.id]) return one.leftOut ? { ...NOTHING, verdict: 'left-out' } : NOTHING
  return { text: valueText(kept[slot.id]), from: 'kept', verdict: verdictsOf(own, Object.keys(kept)).get(slot.id)! }
}

function* typedSlots({ step }: StepEvaluation, draft: Draft | undefined): Iterable<string> {
  if ('slots' in step) for (const slot of step.slots) if (typedIn(slot, draft)) yield slot.id
}

/** What a cell of several figures shows: the worst of them. */
export function shownIn(one: StepEvaluation, slots: readonly Slot[], stood: Stood): Shown {
  if (slots.length === 1) return shownAt(one, slots[0]!, stood)
  const all = slots.map((slot) => ({ slot, shown: shownAt(one, slot, stood) }))
  const typed = all.filter(({ shown }) => shown.from === 'draft')
  const of = typed.length > 0 ? typed : all.filter(({ shown }) => shown.from === 'kept')
  if (of.length === 0) return all[0]?.shown ?? NOTHING
  const read = typed.length > 0 ? (stood.state?.read ?? {}) : (one.counting?.entry.body.slots ?? {})
  const verdicts = new Map(of.flatMap(({ slot, shown }) => (shown.verdict ? [[slot.id, shown.verdict] as const] : [])))
  const worst = worstOf(
    one,
    of.map(({ slot }) => slot),
    read,
    verdicts,
  )
  return of.find(({ slot }) => slot === worst)?.shown ?? of[0]!.shown
}

export const NOTHING_TYPED: Stood = { draft: undefined, state: null, judged: null }

/** What stands in a cell that nobody is in: what it asks for, else what was kept of it under another set-up. */
export function standsIn(
  one: StepEvaluation,
  { slots, apart }: { slots: readonly Slot[]; apart?: readonly Slot[] | undefined },
  stood: Stood,
): Shown & { isApart: boolean } {
  const own = shownIn(one, slots, stood)
  const isApart = own.from === null && own.verdict === null && apart !== undefined
  return { ...(isApart ? shownIn(one, apart, NOTHING_TYPED) : own), isApart }
}

/** That figures were read another way than is set up; one that is not what its heading says is named. */
export const otherwise = (slots: readonly Slot[]): string => {
  const named = slots.find((slot) => slot.kind === 'number' && slot.apart)
  const said = say('schedule.read-otherwise')
  return named ? `${sayCode('slot', named.id)}, ${said}` : said
}

/** Why a text cannot go into a cell, as a code of refusal; null where it can, and where it is asked about. */
export function cellRefuses(slot: Slot, typed: string, facts: Facts): string | null {
  if (typed.trim() === '') return null
  if (slot.kind !== 'number') return optionMeant(slot, typed, facts) ? null : 'choice-unclear'
  const parsed = parseReading(typed, slot.unit)
  return parsed.state === 'refused' ? parsed.code : null
}
