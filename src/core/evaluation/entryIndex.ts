import { type Entry, type EntryKind, isKind } from '../record/entry'
import { correctedTime } from '../record/order'
import { OnParts } from '../plant/onParts'
import { stepKey } from './stepKey'

/** Of readings there are thousands, and what they speak of is all that anybody looks for. */
type OtherKind = Exclude<EntryKind, 'reading'>

/** Entries by what they speak of, so that evaluation stays linear in their number. */
export type EntryIndex = {
  /** All but readings, by kind, in order. */
  kinds: Map<OtherKind, Entry[]>
  readings: OnParts<Entry<'reading'>[]>
  voids: Map<string, Entry<'void'>>
  remedies: OnParts<Entry<'remedy'>[]>
  leftOut: OnParts<Entry<'left-out'>>
  overrides: Map<string, Entry<'override'>>
  choices: OnParts<Entry<'choice'>>
  confirmations: Map<string, Entry<'confirmation'>>
  plantChanges: Map<string, Entry<'plant-change'>[]>
  /** Light and warmth that were joined to a reading later, by its id. */
  joined: Map<string, Entry<'conditions'>>
}

/** Most lists stay lists of one, and are made as that: one that grows from nothing takes room for seventeen. */
function push<T>(index: OnParts<T[]>, step: string, partId: string, value: T): void {
  const column = index.column(step)
  const known = column.get(partId)
  if (known) known.push(value)
  else column.add(partId, [value])
}

/** The entries of a kind, in order. */
export const ofKind = <Kind extends OtherKind>({ kinds }: Pick<EntryIndex, 'kinds'>, kind: Kind): Entry<Kind>[] =>
  (kinds.get(kind) ?? []) as Entry<Kind>[]

const emptyIndex = (): EntryIndex => ({
  kinds: new Map(),
  readings: OnParts.empty(),
  voids: new Map(),
  remedies: OnParts.empty(),
  leftOut: OnParts.empty(),
  overrides: new Map(),
  choices: OnParts.empty(),
  confirmations: new Map(),
  plantChanges: new Map(),
  joined: new Map(),
})

/** @param entries in order. */
export function indexEntries(entries: readonly Entry[]): EntryIndex {
  const index = emptyIndex()
  const others: Entry[] = []
  for (const entry of entries) {
    if (isKind(entry, 'reading')) takeReading(index, entry)
    else others.push(entry)
  }
  // Voids first: one may arrive before its target, and a voided left-out or override must not speak.
  for (const entry of others) if (isKind(entry, 'void')) index.voids.set(entry.body.target, entry)
  for (const entry of others) takeOther(index, entry)
  return index
}

/** The same with entries that come after all others and void nothing. */
export function withEntries(index: EntryIndex, added: readonly Entry[]): EntryIndex {
  const kinds = new Set(added.map((entry) => entry.body.kind))
  const next: EntryIndex = {
    ...index,
    kinds: new Map([...index.kinds].map(([kind, list]) => [kind, kinds.has(kind) ? [...list] : list])),
    readings: kinds.has('reading') ? index.readings.copy() : index.readings,
    leftOut: kinds.has('left-out') ? index.leftOut.copy() : index.leftOut,
    overrides: kinds.has('override') ? new Map(index.overrides) : index.overrides,
    confirmations: kinds.has('confirmation') ? new Map(index.confirmations) : index.confirmations,
  }
  for (const entry of added) {
    const { step, partId } = entry
    const known = step && partId && isKind(entry, 'reading') ? next.readings.get(step, partId) : undefined
    if (step && partId && known) next.readings.set(step, partId, [...known])
    if (isKind(entry, 'reading')) takeReading(next, entry)
    else takeOther(next, entry)
  }
  return next
}

function takeReading({ readings }: EntryIndex, entry: Entry<'reading'>): void {
  if (entry.step && entry.partId) push(readings, entry.step, entry.partId, entry)
}

function takeOther(index: EntryIndex, entry: Entry): void {
  const { voids } = index
  const kind = entry.body.kind as OtherKind
  const alike = index.kinds.get(kind)
  if (alike) alike.push(entry)
  else index.kinds.set(kind, [entry])
  if (isKind(entry, 'conditions') && !voids.has(entry.id)) index.joined.set(entry.body.target, entry)
  const { step, partId } = entry
  if (isKind(entry, 'plant-change') && partId) {
    const known = index.plantChanges.get(partId)
    if (known) known.push(entry)
    else index.plantChanges.set(partId, [entry])
  }
  if (!step || !partId || voids.has(entry.id)) return
  if (isKind(entry, 'remedy')) {
    // Steps which the mending may have changed are to be repeated on the same part.
    for (const one of new Set([step, ...entry.body.repeat])) push(index.remedies, one, partId, entry)
  } else if (isKind(entry, 'left-out')) index.leftOut.set(step, partId, entry)
  else if (isKind(entry, 'override')) index.overrides.set(`${stepKey(step, partId)}:${entry.body.gate}`, entry)
  else if (isKind(entry, 'choice')) index.choices.set(step, partId, entry)
  else if (isKind(entry, 'confirmation')) index.confirmations.set(`${stepKey(step, partId)}:${entry.body.of}`, entry)
}

export type Ended = { by: 'void' | 'remedy'; reason: string; personId: string }

/** Whether a reading no longer counts: only a void or a remedy ends its say. */
export function endedBy(index: EntryIndex, step: string, partId: string, reading: Entry<'reading'>): Ended | null {
  const voided = index.voids.size > 0 ? index.voids.get(reading.id) : undefined
  if (voided) return { by: 'void', reason: voided.body.reason, personId: voided.personId }
  const remedies = index.remedies.get(step, partId)
  if (!remedies) return null
  const at = correctedTime(reading)
  const remedy = remedies.find((one) => correctedTime(one) > at)
  return remedy ? { by: 'remedy', reason: remedy.body.text, personId: remedy.personId } : null
}
