/** A reading that is being taken: what was typed or came through the feed, before it is kept. */
import type { StepEvaluation } from '@/core/evaluation/types'
import { type ParsedReading, parseReading } from '@/core/quantity/parseReading'
import { checkReading, type ReadingCheck } from '@/core/record/doubts'
import type { Body, Conditions, How, SlotValue } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { LiveSample } from '@/core/record/feed'
import { copyForReading, type Instrument, type Measurable } from '@/core/record/instrument'
import { acKinds, type PartKind } from '@/core/plant/part'
import { CHECK_OPTIONS } from '@/core/steps/checks'
import { type AnyStep, type ChoiceSlot, type Slot, slotsShown } from '@/core/steps/step'
import type { Flag } from '@/core/verdict/verdict'
import { say, sayCode } from '@/words/say'

export type Draft = {
  texts: Record<string, string>
  choices: Record<string, string>
  /** The few words beside an answer that is not as it should be. */
  notes: Record<string, string>
  how: How
  /** Light and warmth of the moment at which the value was taken. */
  conditions: Conditions | null
  confirmed: string[]
  instrumentId: string | null
  /** False while only what was carried over from earlier readings stands in it. */
  started: boolean
}

type Carried = Pick<Draft, 'choices' | 'notes'> & { texts?: Draft['texts'] }

export const emptyDraft = (instrumentId: string | null, carried: Carried = { choices: {}, notes: {} }): Draft => ({
  texts: {},
  ...carried,
  how: 'typed',
  conditions: null,
  confirmed: [],
  instrumentId,
  started: false,
})

export const isStarted = (draft: Draft): boolean => draft.started

/** A line of a list of checks. */
export const isCheck = (slot: Slot): slot is ChoiceSlot => slot.kind === 'choice' && slot.options === CHECK_OPTIONS

/**
 * What need not be answered anew: a list of checks goes on from its last answers, and set-up such as method or lead set
 * is taken from the last reading of this test in this visit; places that a trend wants the same from the part's own.
 */
export function carriedInto(one: StepEvaluation, all: readonly StepEvaluation[], visitId: string | undefined): Carried {
  const carried: Carried = { choices: {}, notes: {} }
  const take = (body: Body<'reading'> | undefined, may: (slot: Slot) => boolean): void => {
    for (const slot of one.step.slots as readonly Slot[]) {
      const value = body?.slots[slot.id]
      if (!value || !('choice' in value) || !may(slot)) continue
      carried.choices[slot.id] = value.choice
      if (value.note) carried.notes[slot.id] = value.note
    }
  }
  const before = one.readings.at(-1)?.entry.body
  take(before, isCheck)
  const again = textsAgain(one.step, before)
  if (Object.keys(again).length > 0) carried.texts = again
  let last: StepEvaluation['readings'][number] | null = null
  for (const other of all) {
    if (other.step !== one.step) continue
    const reading = other.readings.at(-1)
    if (reading && reading.entry.visitId === visitId && (!last || reading.at > last.at)) last = reading
  }
  take(last?.entry.body, (slot) => slot.kind === 'choice' && slot.sticky === true)
  return carried
}

/** Figures of the set-up that are best as they were: the places of spikes, which a trend wants the same. */
function textsAgain(step: AnyStep, before: Body<'reading'> | undefined): Draft['texts'] {
  const texts: Draft['texts'] = {}
  for (const slot of step.slots as readonly Slot[]) {
    const value = before?.slots[slot.id]
    if (slot.kind === 'number' && slot.again && value && 'text' in value) texts[slot.id] = value.text
  }
  return texts
}

/** A sample from the feed as the value of a slot. */
export function withSample(draft: Draft, slot: Slot, sample: LiveSample, standIn: boolean): Draft {
  const how = standIn ? 'stand-in' : 'feed'
  const base: Draft = { ...draft, how, confirmed: [], instrumentId: sample.instrumentId, started: true }
  if (slot.kind === 'choice') {
    return { ...base, choices: { ...draft.choices, [slot.id]: sample.read.value < 0 ? 'reversed' : 'correct' } }
  }
  return { ...base, texts: { ...draft.texts, [slot.id]: sample.read.text } }
}

export type DraftState = {
  parsed: Record<string, ParsedReading>
  /** The slots that still want an answer, in order; optional ones are not among them. */
  open: readonly Slot[]
  /** Null until every slot that was begun can be read. */
  body: Body<'reading'> | null
  check: ReadingCheck | null
}

const LEAST_WORDS = 3

/** Whether a line that is not as it should be still wants its few words. */
export function wantsWords(slot: Slot, draft: Pick<Draft, 'choices' | 'notes'>): boolean {
  const choice = draft.choices[slot.id]
  if (!isCheck(slot) || !choice || slot.sound.includes(choice)) return false
  return (draft.notes[slot.id] ?? '').trim().length < LEAST_WORDS
}

/** What the draft comes to: parsed slots, the body it would be kept as, and what must be asked or refused first. */
export function readDraft(draft: Draft, one: StepEvaluation, facts: Facts, conditions: Conditions | null): DraftState {
  const parsed: DraftState['parsed'] = {}
  const slots: Record<string, SlotValue> = {}
  const open: Slot[] = []
  let whole = true
  for (const slot of slotsShown(one.step, draft.choices, { part: one.part, regime: facts.regime })) {
    if (slot.kind === 'choice') {
      const choice = draft.choices[slot.id]
      const note = draft.notes[slot.id]?.trim()
      if (choice) slots[slot.id] = note ? { choice, note } : { choice }
      if (!slot.optional && (!choice || wantsWords(slot, draft))) open.push(slot)
      continue
    }
    const text = draft.texts[slot.id] ?? ''
    if (text.trim() === '') {
      if (!slot.optional) open.push(slot)
      continue
    }
    const found = parseReading(text, slot.unit)
    parsed[slot.id] = found
    if (found.state === 'read') slots[slot.id] = found.reading
    else whole = false
  }
  if (!whole || Object.keys(slots).length === 0) return { parsed, open, body: null, check: null }
  const instrument = facts.instruments.find((tool) => tool.id === draft.instrumentId)
  const measures = measuredIn(one.step, slots)
  const body: Body<'reading'> = {
    kind: 'reading',
    v: 1,
    slots,
    conditions: one.step.needsConditions ? conditions : null,
    how: draft.how,
    instrument: instrument && measures ? copyForReading(instrument, measures) : null,
    place: one.part.data.kind === 'string' ? 'plugs' : null,
    plantRevision: one.part.revision,
    confirmed: draft.confirmed,
    note: null,
  }
  return { parsed, open, body, check: checkReading(one.step, one.part, facts.regime, body) }
}

/** What an instrument of the kit is needed for, null where a person looks. */
export function measuredBy(step: AnyStep): Measurable | null {
  const measured = (step.slots as readonly Slot[]).filter((slot) => slot.measures !== null)
  return (measured.find((slot) => !slot.optional) ?? measured[0])?.measures ?? null
}

/** What the instrument of a reading measured: by the method that was chosen, where a step has several. */
function measuredIn(step: AnyStep, slots: Readonly<Record<string, SlotValue>>): Measurable | null {
  const answered = (step.slots as readonly Slot[]).find(
    (slot) => slot.measures !== null && !slot.optional && slots[slot.id],
  )
  return answered?.measures ?? measuredBy(step)
}

/** What is said of a reading before it is kept: the mark of a simulated instrument stands from the first moment. */
export function draftFlags(draft: Draft, judged: readonly Flag[]): readonly Flag[] {
  return draft.how === 'stand-in' ? ['stand-in', ...judged] : judged
}

/** The sentence of what stands in the way of a slot, null where nothing does. */
export function obstacle(state: DraftState, slot: Slot): string | null {
  const parsed = state.parsed[slot.id]
  if (parsed?.state === 'refused' && parsed.code !== 'empty') {
    return sayCode('refused', parsed.code, { text: parsed.text, unit: slot.kind === 'number' ? slot.unit : 'one' })
  }
  const { check } = state
  if (check?.state === 'refused' && (check.slot === slot.id || check.slot === null)) {
    return sayCode('refused', check.code, check.figures)
  }
  return null
}

/** Instruments of the kit that measure what a step needs, those in date first. */
export function instrumentsFor(facts: Facts, measures: Measurable | null, kind: PartKind, now: number): Instrument[] {
  if (!measures) return []
  const isDue = (one: Instrument): boolean =>
    one.calibrationDue !== null && Date.parse(`${one.calibrationDue}T23:59:59Z`) < now
  // On the AC side the instrument which knows loops comes first, on the DC side any other.
  const strange = (one: Instrument): number =>
    Number(one.ranges.some((range) => range.measures === 'loop-impedance') !== acKinds.has(kind))
  return facts.instruments
    .filter((one) => one.ranges.some((range) => range.measures === measures))
    .sort((a, b) => Number(isDue(a)) - Number(isDue(b)) || strange(a) - strange(b) || a.tag.localeCompare(b.tag))
}

export type Option = { id: string; name: string; sound: boolean }

/** The answers that a slot offers: its own, or the lead sets of the kit. */
export function optionsOf(slot: ChoiceSlot, facts: Facts): Option[] {
  if (slot.from !== 'lead-sets')
    return slot.options.map((id) => ({ id, name: sayCode('choice', id), sound: slot.sound.includes(id) }))
  const sets = new Map<string, string>()
  for (const tool of facts.instruments) for (const set of tool.leadSets ?? []) sets.set(set.id, set.name)
  if (sets.size === 0) sets.set('leads', say('slot.only-leads'))
  return [...sets].map(([id, name]) => ({ id, name, sound: true }))
}
