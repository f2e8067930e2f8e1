import { type Entry, isKind } from '../record/entry'
import { correctedTime } from '../record/order'
import { Layered, type Shelf } from './layered'
import { stepKey } from './stepKey'

/** Entries by what they speak of, so that evaluation stays linear in their number. */
export type EntryIndex = {
  readings: Map<string, Entry<'reading'>[]> | Layered<string, Entry<'reading'>[]>
  voids: Map<string, Entry<'void'>>
  remedies: Map<string, Entry<'remedy'>[]>
  leftOut: Map<string, Entry<'left-out'>>
  overrides: Map<string, Entry<'override'>>
  choices: Map<string, Entry<'choice'>>
  confirmations: Map<string, Entry<'confirmation'>>
  plantChanges: Map<string, Entry<'plant-change'>[]>
  /** Light and warmth that were joined to a reading later, by its id. */
  joined: Map<string, Entry<'conditions'>>
}

function push<T>(map: Shelf<string, T[]>, key: string, value: T): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}

const emptyIndex = (): EntryIndex => ({
  readings: new Map(),
  voids: new Map(),
  remedies: new Map(),
  leftOut: new Map(),
  overrides: new Map(),
  choices: new Map(),
  confirmations: new Map(),
  plantChanges: new Map(),
  joined: new Map(),
})

/** @param entries in order. */
export function indexEntries(entries: readonly Entry[]): EntryIndex {
  const index = emptyIndex()
  // Voids first: one may arrive before its target, and a voided left-out or override must not speak.
  for (const entry of entries) if (isKind(entry, 'void')) index.voids.set(entry.body.target, entry)
  for (const entry of entries) take(index, entry)
  return index
}

/** The same with entries that come after all others and void nothing. */
export function withEntries(index: EntryIndex, added: readonly Entry[]): EntryIndex {
  const kinds = new Set(added.map((entry) => entry.body.kind))
  const next: EntryIndex = {
    ...index,
    readings: kinds.has('reading') ? Layered.over(index.readings) : index.readings,
    leftOut: kinds.has('left-out') ? new Map(index.leftOut) : index.leftOut,
    overrides: kinds.has('override') ? new Map(index.overrides) : index.overrides,
    confirmations: kinds.has('confirmation') ? new Map(index.confirmations) : index.confirmations,
  }
  for (const entry of added) {
    const key = entry.step && entry.partId ? stepKey(entry.step, entry.partId) : null
    const known = key && isKind(entry, 'reading') ? next.readings.get(key) : undefined
    if (key && known) next.readings.set(key, [...known])
    take(next, entry)
  }
  return next
}

function take(index: EntryIndex, entry: Entry): void {
  const { voids } = index
  if (isKind(entry, 'conditions') && !voids.has(entry.id)) index.joined.set(entry.body.target, entry)
  if (isKind(entry, 'plant-change') && entry.partId) push(index.plantChanges, entry.partId, entry)
  if (!entry.step || !entry.partId) return
  const key = stepKey(entry.step, entry.partId)
  if (isKind(entry, 'reading')) push(index.readings, key, entry)
  else if (voids.has(entry.id)) return
  else if (isKind(entry, 'remedy')) {
    // Steps which the mending may have changed are to be repeated on the same part.
    for (const step of new Set([entry.step, ...entry.body.repeat]))
      push(index.remedies, stepKey(step, entry.partId), entry)
  } else if (isKind(entry, 'left-out')) index.leftOut.set(key, entry)
  else if (isKind(entry, 'override')) index.overrides.set(`${key}:${entry.body.gate}`, entry)
  else if (isKind(entry, 'choice')) index.choices.set(key, entry)
  else if (isKind(entry, 'confirmation')) index.confirmations.set(`${key}:${entry.body.of}`, entry)
}

export type Ended = { by: 'void' | 'remedy'; reason: string; personId: string }

/** Whether a reading no longer counts: only a void or a remedy ends its say. */
export function endedBy(index: EntryIndex, key: string, reading: Entry<'reading'>): Ended | null {
  const voided = index.voids.get(reading.id)
  if (voided) return { by: 'void', reason: voided.body.reason, personId: voided.personId }
  const remedies = index.remedies.get(key)
  if (!remedies) return null
  const at = correctedTime(reading)
  const remedy = remedies.find((one) => correctedTime(one) > at)
  return remedy ? { by: 'remedy', reason: remedy.body.text, personId: remedy.personId } : null
}
