/** What the plant was before a reading was made: answered from positions of changes, and only if need be from a whole plant. */
import type { Part, PartData, PartKind } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { plantOfJob } from '../plant/projection'
import { type Entry, isKind } from '../record/entry'
import { correctedTime } from '../record/order'
import type { ReadingEvaluation } from './types'

type Change = Entry<'plant-change'>
/** How many whole plants of earlier moments are kept; a job that grew while it was read needs few of them. */
const KEPT_PLANTS = 8

/**
 * What a question about parts may depend on: kinds of which it looks through all there are, and kinds that it only passes
 * through. A part that is new touches the first; one that is changed touches both. Questions not named depend on all.
 */
const touchedBy: Readonly<Record<string, { lists: readonly PartKind[]; passes: readonly PartKind[] }>> = {
  site: { lists: ['site'], passes: [] },
  arrayOf: { lists: ['array'], passes: ['row', 'string'] },
  combinerOf: { lists: [], passes: ['combiner', 'string'] },
  inverterOf: { lists: ['inverter'], passes: ['combiner', 'string'] },
  switchOf: { lists: ['dc-switch'], passes: ['string'] },
  surgeProtection: { lists: ['surge-protection'], passes: [] },
  boardOf: { lists: ['board'], passes: ['circuit', 'rcd'] },
  boardsAbove: { lists: [], passes: ['board'] },
  supplyOf: { lists: ['supply'], passes: ['board', 'circuit', 'rcd', 'inverter'] },
  rcdsOf: { lists: [], passes: ['circuit', 'rcd'] },
  upstreamOf: { lists: [], passes: ['rcd'] },
  circuitOfInverter: { lists: [], passes: ['inverter', 'circuit'] },
}

export class PlantHistory {
  private readonly changes: readonly Change[]
  private readonly plants = new Map<number, PlantIndex>()
  private made = false
  private readonly places = new Map<string, number>()
  private readonly ofPart = new Map<string, number[]>()
  /** Where the last part of a kind came or went, and where the last one was changed. */
  private readonly lastCame = new Map<PartKind, number>()
  private readonly lastChanged = new Map<PartKind, number>()
  private lastChangedAny = -1
  /** When the plant was last changed, ms; nothing that was read later can be touched. */
  private readonly last: number

  constructor(
    entries: readonly Entry[],
    private readonly jobId: string,
  ) {
    this.changes = entries.filter((entry): entry is Change => isKind(entry, 'plant-change'))
    const last = this.changes.at(-1)
    this.last = last ? correctedTime(last) : Number.NEGATIVE_INFINITY
  }

  /** When the last change was made, ms. */
  get lastAt(): number {
    return this.last
  }

  /**
   * How many changes a reading saw, where there are any that it did not: made after it, or to its own part after what its
   * tester saw of that; null where it saw all.
   */
  seenBy(reading: ReadingEvaluation, part: Part, ownChanges: readonly Change[]): number | null {
    const { plantRevision } = reading.entry.body
    const isOwnSeen = plantRevision === part.revision
    if (isOwnSeen && this.last <= reading.at) return null
    let at = this.firstAfter(reading.at)
    const seen = isOwnSeen ? -1 : ownChanges.findIndex((one) => one.id === plantRevision)
    const unseenOwn = seen >= 0 ? ownChanges[seen + 1] : undefined
    if (unseenOwn) at = Math.min(at, this.look().places.get(unseenOwn.id) ?? this.changes.length)
    return at < this.changes.length ? at : null
  }

  /** The place of the first change after a time, ms. */
  firstAfter(time: number): number {
    let [low, high] = [0, this.changes.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (correctedTime(this.changes[middle]!) > time) high = middle
      else low = middle + 1
    }
    return low
  }

  /** Whether a part was changed at or after a place. */
  isChanged(partId: string, seen: number): boolean {
    return (this.look().ofPart.get(partId)?.at(-1) ?? -1) >= seen
  }

  /** Whether a part that was there before was changed at or after a place. */
  isAnyChanged(seen: number): boolean {
    return this.look().lastChangedAny >= seen
  }

  /** What a part was before a place; null where it was not there yet. */
  dataBefore(partId: string, seen: number): PartData | null {
    const place = this.look()
      .ofPart.get(partId)
      ?.findLast((one) => one < seen)
    return place === undefined ? null : (this.changes[place]!.body.after ?? this.changes[place]!.body.before)
  }

  /** Whether a change at or after a place may have given a question another answer. */
  mayTouch(query: string, seen: number): boolean {
    const by = touchedBy[query]
    if (!by) return true
    const { lastCame, lastChanged } = this.look()
    const isAfter = (places: ReadonlyMap<PartKind, number>) => (kind: PartKind) => (places.get(kind) ?? -1) >= seen
    return by.lists.some(isAfter(lastCame)) || [...by.lists, ...by.passes].some(isAfter(lastChanged))
  }

  /** The plant as the first `count` changes left it. */
  plantBefore(count: number): PlantIndex {
    const known = this.plants.get(count)
    if (known) return known
    const made = new PlantIndex(plantOfJob(this.changes.slice(0, count), this.jobId))
    if (this.plants.size >= KEPT_PLANTS) this.plants.delete(this.plants.keys().next().value!)
    this.plants.set(count, made)
    return made
  }

  /** Places of changes, looked through once and only where something asks. */
  private look(): this {
    if (this.made) return this
    this.made = true
    const there = new Set<string>()
    for (const [place, { id, partId, body }] of this.changes.entries()) {
      this.places.set(id, place)
      const data = body.after ?? body.before
      if (!partId || !data) continue
      const own = this.ofPart.get(partId)
      if (own) own.push(place)
      else this.ofPart.set(partId, [place])
      const came = !there.has(partId) || body.after === null
      ;(came ? this.lastCame : this.lastChanged).set(data.kind, place)
      if (!came) this.lastChangedAny = place
      if (body.after === null) there.delete(partId)
      else there.add(partId)
    }
    return this
  }
}
