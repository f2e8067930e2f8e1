/** What readings do to places: each that begins or ends a state of one, as an event. */
import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Entry } from '../record/entry'
import { correctedTime } from '../record/order'
import { steps } from '../steps'
import { CHECK_SOUND } from '../steps/slot'
import { type AnyReadStep, type AnyStep, isRead, type StateEffect } from '../steps/step'
import { isDone } from '../verdict/verdict'
import type { EntryIndex } from './entryIndex'
import type { OnParts } from '../plant/onParts'
import type { Own } from './runOf'
import { type PlacedEvent, type StateId, type States, statesFrom } from './states'
import { stepKey } from './stepKey'
import { endedOn, subjectsOf } from './subjects'
import type { ReadingEvaluation } from './types'

/** Whether anything is to be said of a place: what nothing ever began has no end. */
type Wanted = (state: StateId, placeId: string) => boolean

/** What the readings of a step do to places. */
export function eventsOf(
  step: AnyStep,
  part: Part,
  plant: PlantIndex,
  readings: readonly ReadingEvaluation[],
  does: StateEffect['does'],
  isWanted: Wanted = () => true,
): readonly PlacedEvent[] {
  if (!isRead(step) || readings.length === 0) return NONE
  let events: PlacedEvent[] | null = null
  for (const effect of step.effects ?? []) {
    if (effect.does !== does) continue
    const { state } = effect
    const places = does === 'end' ? endedOn(effect.on, part, plant) : subjectsOf(effect.on, part, plant).parts
    for (const { id: placeId } of places) {
      if (!isWanted(state, placeId)) continue
      for (const reading of readings) {
        const { entry, at } = reading
        if (does === 'end' ? reading.ended?.by === 'void' : !begins(step, reading)) continue
        if (effect.when && !effect.when(entry.body)) continue
        events ??= []
        events.push(placed(effect, placeId, entry, at, stepKey(step.id, part.id)))
      }
    }
  }
  return events ?? NONE
}
const NONE: readonly PlacedEvent[] = []

const placed = (
  { state, does }: StateEffect,
  placeId: string,
  { id: entryId, visitId }: Entry<'reading'>,
  at: number,
  key: string,
): PlacedEvent => ({ state, placeId, event: { does, at, entryId, visitId, key } })

/** A state begins by a good reading of which no decisive line was left out. */
function begins(step: AnyReadStep, { entry, verdict, ended }: ReadingEvaluation): boolean {
  if (ended || !isDone(verdict)) return false
  return step.slots.every((slot) => {
    if (slot.kind !== 'check' || !slot.decisive) return true
    const value = entry.body.slots[slot.id]
    return !value || ('choice' in value && value.choice === CHECK_SOUND)
  })
}

/** What was read, by step and part. */
type Read = {
  asked: readonly { step: AnyStep; parts: readonly Part[] }[]
  owns: OnParts<Own>
  plant: PlantIndex
  parts: ReadonlyMap<string, Part>
  index: EntryIndex
}

export function statesOf({ asked, owns, plant, parts, index }: Read): States {
  const gather = (
    does: StateEffect['does'],
    isWanted?: Wanted,
    begun?: ReadonlyMap<StateId, unknown>,
  ): PlacedEvent[] => {
    const events: PlacedEvent[] = []
    for (const { step } of asked) {
      const touches = (effect: StateEffect): boolean => effect.does === does && (!begun || begun.has(effect.state))
      if (!isRead(step) || !step.effects?.some(touches)) continue
      for (const { part, readings } of owns.ofStep(step.id))
        for (const one of eventsOf(step, part, plant, readings, does, isWanted)) events.push(one)
    }
    return events
  }
  const begun = gather('begin')
  const known = new Map<StateId, Set<string>>()
  for (const { state, placeId } of begun) known.set(state, (known.get(state) ?? new Set()).add(placeId))
  const isKnown: Wanted = (state, placeId) => known.get(state)?.has(placeId) ?? false
  return statesFrom(begun, [...gather('end', isKnown, known), ...endsOfRetired(parts, index, plant)])
}

/** What was switched on at a part was on, also where the part was taken out of the plant since. */
function endsOfRetired(parts: Read['parts'], index: EntryIndex, plant: PlantIndex): PlacedEvent[] {
  const events: PlacedEvent[] = []
  for (const part of parts.values()) {
    if (!part.retired) continue
    for (const step of steps) {
      if (step.appliesTo !== part.data.kind || !isRead(step)) continue
      const entries = (index.readings.get(step.id, part.id) ?? []).filter((entry) => !index.voids.has(entry.id))
      for (const effect of step.effects ?? []) {
        if (effect.does !== 'end' || effect.on === 'part') continue
        for (const { id: placeId } of endedOn(effect.on, part, plant))
          for (const entry of entries)
            if (effect.when?.(entry.body) ?? true)
              events.push(placed(effect, placeId, entry, correctedTime(entry), stepKey(step.id, part.id)))
      }
    }
  }
  return events
}
