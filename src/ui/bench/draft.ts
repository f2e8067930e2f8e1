/** A reading that is being taken: what was typed or came through the feed, before it is kept. */
import { type CurveValue, curveOf } from '@/core/curve/curveValue'
import { type DraftEvaluation, evaluateDraft, knownOf } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { ReadValue } from '@/core/quantity/readValue'
import type { Watched } from '@/core/quantity/watched'
import { type ParsedReading, parseReading } from '@/core/quantity/parseReading'
import { type Body, type Conditions, type How, READING_VERSION, type SlotValue } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { LiveSample, SweepPart } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import { copyFor } from '@/core/record/kitCopies'
import { acKinds, type PartKind } from '@/core/plant/part'
import { CHECK_OPTIONS, CHECK_SOUND, isAnswered, type Slot, slotsShown } from '@/core/steps/slot'
import { type AnyStep, isRead, slotsOf, wantsConditions } from '@/core/steps/step'
import { say, sayCode, sayFinding } from '@/words/say'

export type Draft = {
  texts: Record<string, string>
  choices: Record<string, string>
  curves: Record<string, CurveValue>
  /** What an instrument showed on the way to a figure, as long as that figure stands. */
  watched: Record<string, { text: string; points: Watched }>
  /** The few words beside an answer that is not as it should be. */
  notes: Record<string, string>
  /** Words of answers that were changed since, by line and answer: they come back with their answer, and go nowhere else. */
  aside: Record<string, string>
  /** How each figure came; what is not named was typed. */
  hows: Record<string, How>
  /** Where a string was read. */
  place: Place
  /** Light and warmth of the moment at which the value was taken. */
  conditions: Conditions | null
  confirmed: string[]
  instrumentId: string | null
  /** False while only what was carried over from earlier readings stands in it. */
  started: boolean
}

export type Place = NonNullable<Body<'reading'>['place']>
export const places: readonly Place[] = ['plugs', 'switch', 'inverter']

type Carried = Pick<Draft, 'choices' | 'notes'> & { texts?: Draft['texts']; place?: Place }

export const emptyDraft = (instrumentId: string | null, carried: Carried = { choices: {}, notes: {} }): Draft => ({
  texts: {},
  curves: {},
  watched: {},
  aside: {},
  place: 'plugs',
  ...carried,
  hows: {},
  conditions: null,
  confirmed: [],
  instrumentId,
  started: false,
})

/** An answer, or another one than before: the words beside a line are of the answer beside which they were typed. */
export function answered(draft: Draft, slot: string, choice: string): Pick<Draft, 'choices' | 'notes' | 'aside'> {
  const { [slot]: words = '', ...notes } = draft.notes
  const before = draft.choices[slot]
  const aside = before ? { ...draft.aside, [`${slot}:${before}`]: words } : draft.aside
  const own = before === choice ? words : aside[`${slot}:${choice}`]
  return {
    choices: { ...draft.choices, [slot]: choice },
    notes: own ? { ...notes, [slot]: own } : notes,
    aside,
  }
}

/** Another instrument in hand: what was typed is its own from then on; what an instrument showed stays that one's. */
export const withTool = (draft: Draft, instrumentId: string): Draft =>
  Object.keys(draft.hows).length > 0 ? draft : { ...draft, instrumentId }

export const isStarted = (draft: Draft): boolean => draft.started

/**
 * What need not be answered anew: set-up such as method or lead set is taken from the last reading of this test in this
 * visit; places that a trend wants the same from the part's own. A list of checks is looked at anew, line by line.
 */
export function carriedInto(one: StepEvaluation, all: readonly StepEvaluation[], visitId: string | undefined): Carried {
  const carried: Carried = { choices: {}, notes: {} }
  const take = (body: Body<'reading'> | undefined, may: (slot: Slot) => boolean): void => {
    for (const slot of slotsOf(one.step)) {
      const value = body?.slots[slot.id]
      if (value && 'choice' in value && may(slot) && isOffered(slot, value.choice))
        carried.choices[slot.id] = value.choice
    }
  }
  const before = one.readings.at(-1)?.entry.body
  const again = textsAgain(one.step, before)
  if (Object.keys(again).length > 0) carried.texts = again
  let last: StepEvaluation['readings'][number] | null = null
  for (const other of all) {
    if (other.step !== one.step) continue
    const reading = other.readings.at(-1)
    if (reading && reading.entry.visitId === visitId && (!last || reading.at > last.at)) last = reading
  }
  take(last?.entry.body, isSetUp)
  if (last?.entry.body.place) carried.place = last.entry.body.place
  return carried
}

/** Lines that the tool answers by itself, with what it knows them by; nothing of those that speak against. */
export function withKnown(carried: Carried, { step }: StepEvaluation, evaluation: Evaluation): Carried {
  for (const slot of slotsOf(step)) {
    const known = knownOf(evaluation, slot)
    if (!known?.sound) continue
    carried.choices[slot.id] = CHECK_SOUND
    carried.notes[slot.id] = sayFinding(known.finding)
  }
  return carried
}

/** Set-up that stays the same from part to part. */
export const isSetUp = (slot: Slot): boolean =>
  (slot.kind === 'choice' || slot.kind === 'lead-set') && slot.sticky === true

const isOffered = (slot: Slot, choice: string): boolean => slot.kind !== 'choice' || !slot.retired?.includes(choice)

/** Figures of the set-up that are best as they were: the places of spikes, which a trend wants the same. */
function textsAgain(step: AnyStep, before: Body<'reading'> | undefined): Draft['texts'] {
  const texts: Draft['texts'] = {}
  for (const slot of slotsOf(step)) {
    const value = before?.slots[slot.id]
    if (slot.kind === 'number' && slot.again && value && 'text' in value) texts[slot.id] = value.text
  }
  return texts
}

/** A sample from the feed as the value of a slot. */
export function withSample(
  draft: Draft,
  slot: Slot,
  sample: LiveSample,
  standIn: boolean,
  points: Watched | null = null,
): Draft {
  const hows = { ...draft.hows, [slot.id]: standIn ? ('stand-in' as const) : ('feed' as const) }
  const base: Draft = { ...draft, hows, confirmed: [], instrumentId: sample.instrumentId, started: true }
  if (slot.kind === 'curve') return sample.sweep?.done ? withCurve(base, slot, curveFrom(sample.sweep)) : draft
  if (slot.kind === 'choice' && slot.told)
    return { ...base, choices: { ...draft.choices, [slot.id]: slot.told(sample.read.value) } }
  if (slot.kind !== 'number') return draft
  const { text } = sample.read
  const watched = points ? { ...draft.watched, [slot.id]: { text, points } } : draft.watched
  return { ...base, watched, texts: { ...draft.texts, [slot.id]: text } }
}

export const withCurve = (draft: Draft, slot: Slot, curve: CurveValue): Draft => ({
  ...draft,
  curves: { ...draft.curves, [slot.id]: curve },
})

/** A whole sweep with what its instrument knows of it. */
function curveFrom({ points, sweep_s, endIrradiance_Wm2 }: SweepPart): CurveValue {
  return curveOf(points, {
    ...(sweep_s === undefined ? {} : { sweep_s }),
    ...(endIrradiance_Wm2 === undefined ? {} : { endIrradiance_Wm2 }),
  })
}

export type DraftState = {
  parsed: Record<string, ParsedReading>
  /** What can be read of it so far. */
  read: Body<'reading'>['slots']
  /** The slots that still want an answer, in order; optional ones are not among them. */
  open: readonly Slot[]
  /** Null until every slot that was begun can be read. */
  body: Body<'reading'> | null
  /** What it comes to as far as it can be read, by the same judgement as everything that is kept; null where nobody reads. */
  judged: DraftEvaluation | null
  /** What must be refused or asked about; null while nothing whole can be read. */
  check: DraftEvaluation['check'] | null
}

const nothingToRead: DraftState = { parsed: {}, read: {}, open: [], body: null, judged: null, check: null }

/** Whether a line that is not as it should be still wants its few words. */
export function wantsWords(slot: Slot, draft: Pick<Draft, 'choices' | 'notes'>): boolean {
  const choice = draft.choices[slot.id]
  if (slot.kind !== 'check' || !choice || choice === CHECK_SOUND) return false
  return !isAnswered(slot, { slots: { [slot.id]: answer(choice, draft.notes[slot.id]) } })
}

const answer = (choice: string, typed: string | undefined): SlotValue => {
  const note = typed?.trim()
  return note ? { choice, note } : { choice }
}

/** A figure with how it came to it, as long as nobody typed over it. */
function watchedOf({ watched, texts }: Draft, { id }: Slot, read: ReadValue): SlotValue {
  const own = watched[id]
  return own && own.text === texts[id] ? { ...read, watched: own.points } : read
}

/** A figure says how it came where it was not typed. */
const withHow = (value: SlotValue, how: How | undefined): SlotValue =>
  how && how !== 'typed' ? { ...value, how } : value

/** What the draft comes to: parsed slots, the body it would be kept as, and what must be asked or refused first. */
export function readDraft(
  draft: Draft,
  one: StepEvaluation,
  evaluation: Evaluation,
  conditions: Conditions | null,
  /** The air beside the array, all that is known where nobody reads the light; and the time by which alike parts are found. */
  without?: { air: Body<'reading'>['air'] | null; now: number },
): DraftState {
  const { facts } = evaluation
  const { step, part } = one
  if (!isRead(step)) return nothingToRead
  const parsed: DraftState['parsed'] = {}
  const slots: Record<string, SlotValue> = {}
  const unread: Slot[] = []
  for (const slot of slotsShown(step, draft.choices, { part, regime: facts.regime, plant: evaluation.plant })) {
    if (slot.kind === 'curve') {
      const curve = draft.curves[slot.id]
      const how = draft.hows[slot.id]
      if (curve) slots[slot.id] = how && how !== 'typed' ? { curve, how } : { curve }
      continue
    }
    if (slot.kind !== 'number') {
      const choice = draft.choices[slot.id]
      if (choice) slots[slot.id] = withHow(answer(choice, draft.notes[slot.id]), draft.hows[slot.id])
      continue
    }
    const text = draft.texts[slot.id] ?? ''
    if (text.trim() === '') continue
    const found = parseReading(text, slot.unit)
    parsed[slot.id] = found
    if (found.state === 'read') slots[slot.id] = withHow(watchedOf(draft, slot, found.reading), draft.hows[slot.id])
    else unread.push(slot)
  }
  const instrument = facts.instruments.find((tool) => tool.id === draft.instrumentId)
  const body: Body<'reading'> = {
    kind: 'reading',
    v: READING_VERSION,
    slots,
    conditions: wantsConditions(step, part) ? conditions : null,
    ...(wantsConditions(step, part) && without?.air ? { air: without.air } : {}),
    how: howOf(draft, slots),
    instrument: instrument ? copyFor(step, slots, instrument) : null,
    place: part.data.kind === 'string' ? draft.place : null,
    plantRevision: part.revision,
    confirmed: draft.confirmed,
    note: null,
  }
  const judged = evaluateDraft(evaluation, one, body, without?.now)
  const isWhole = unread.length === 0 && Object.keys(slots).length > 0
  return {
    parsed,
    read: slots,
    open: judged.missing.filter((slot) => !unread.includes(slot)),
    body: isWhole ? body : null,
    judged,
    check: isWhole ? judged.check : null,
  }
}

/** How a reading as a whole came: as its figures did where they agree, else typed. */
function howOf({ hows }: Draft, slots: Readonly<Record<string, SlotValue>>): How {
  const ways = new Set(
    Object.entries(slots).flatMap(([id, value]) => (!('choice' in value) || hows[id] ? [hows[id] ?? 'typed'] : [])),
  )
  return ways.size === 1 ? [...ways][0]! : 'typed'
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

/** The kit for a step: what stands for the whole site is read with the tester of the side that the plant has. */
export function kitFor({ facts, plant }: Evaluation, one: StepEvaluation, measures: Measurable | null, now: number) {
  const { kind } = one.part.data
  const isAc = acKinds.has(kind) || (kind === 'site' && plant.hasAcSide && plant.ofKind('string').length === 0)
  return instrumentsFor(facts, measures, kind, now, isAc)
}

/** Instruments of the kit that measure what a step needs, those in date first. */
export function instrumentsFor(
  facts: Facts,
  measures: Measurable | null,
  kind: PartKind,
  now: number,
  isAc = acKinds.has(kind),
): Instrument[] {
  if (!measures) return []
  const isDue = (one: Instrument): boolean =>
    one.calibrationDue !== null && Date.parse(`${one.calibrationDue}T23:59:59Z`) < now
  // On the AC side the instrument which knows loops comes first, on the DC side any other.
  const strange = (one: Instrument): number =>
    // At a plug its adapter is in already.
    Number(kind === 'charge-point' && !one.can?.includes('ev-adapter')) +
    Number(one.ranges.some((range) => range.measures === 'loop-impedance') !== isAc) / 2
  return facts.instruments
    .filter((one) => one.ranges.some((range) => range.measures === measures))
    .sort((a, b) => Number(isDue(a)) - Number(isDue(b)) || strange(a) - strange(b) || a.tag.localeCompare(b.tag))
}

/** A slot that is answered and not read. */
export type AnsweredSlot = Exclude<Slot, { kind: 'number' | 'curve' }>
export type Option = { id: string; name: string; sound: boolean }

/** The answers that a slot offers: its own, or the lead sets of the kit. */
export function optionsOf(slot: AnsweredSlot, facts: Facts): Option[] {
  if (slot.kind === 'check')
    return CHECK_OPTIONS.map((id) => ({ id, name: sayCode('choice', id), sound: id === CHECK_SOUND }))
  if (slot.kind === 'choice')
    return slot.options
      .filter((id) => isOffered(slot, id))
      .map((id) => ({ id, name: sayCode('choice', id), sound: slot.sound.includes(id) }))
  const sets = new Map<string, string>()
  for (const tool of facts.instruments) for (const set of tool.leadSets ?? []) sets.set(set.id, set.name)
  if (sets.size === 0) sets.set('leads', say('slot.only-leads'))
  return [...sets].map(([id, name]) => ({ id, name, sound: true }))
}
