/** What the plant was before a reading was made: answered from positions of changes, and only if need be from a whole plant. */
import { kindOf } from '../plant/kinds'
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
 * What the answer to a question about parts may hang on: kinds of which it looks through all there are, kinds of which the
 * only one stands in where nobody said which, kinds that are found by their id, and kinds whose own fields lead there.
 * Questions not named hang on everything. A test holds this against random plants.
 */
type HangsOn = Partial<Record<'all' | 'only' | 'byId' | 'through', readonly PartKind[]>>
const hangsOn: Readonly<Record<string, HangsOn>> = {
  site: { all: ['site'] },
  surgeProtection: { all: ['surge-protection'] },
  arrayOf: { byId: ['array'], through: ['row', 'string'] },
  combinerOf: { byId: ['combiner'], through: ['string'] },
  inverterOf: { only: ['inverter'], byId: ['inverter', 'combiner'], through: ['combiner', 'string'] },
  switchOf: { only: ['dc-switch'], byId: ['dc-switch'], through: ['string'] },
  boardOf: { only: ['board'], byId: ['board'], through: ['circuit', 'rcd'] },
  boardsAbove: { byId: ['board'], through: ['board'] },
  supplyOf: {
    only: ['supply', 'board'],
    byId: ['supply', 'board', 'circuit'],
    through: ['board', 'circuit', 'rcd', 'charge-point'],
  },
  rcdsOf: { byId: ['rcd'], through: ['circuit', 'rcd'] },
  upstreamOf: { byId: ['rcd'], through: ['rcd'] },
  circuitOfInverter: { byId: ['circuit'], through: ['inverter'] },
  circuitOfPoint: { byId: ['circuit'], through: ['charge-point'] },
}

/** Ids of the parts that a part names. */
const namesIn = (data: PartData): string[] =>
  kindOf(data.kind).fields.flatMap(({ id, names }) => {
    const named = names && (data as Record<string, unknown>)[id]
    return typeof named === 'string' ? [named] : []
  })

export class PlantHistory {
  private readonly changes: readonly Change[]
  private readonly plants = new Map<number, PlantIndex>()
  private made = false
  private readonly places = new Map<string, number>()
  private readonly ofPart = new Map<string, number[]>()
  /** Where the last part of a kind came; while there were fewer than two; after another had named it; was changed or went. */
  private readonly lastCame = new Map<PartKind, number>()
  private readonly lastFew = new Map<PartKind, number>()
  private readonly lastAwaited = new Map<PartKind, number>()
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
  seenBy(reading: ReadingEvaluation, part: Part, changesOf: ReadonlyMap<string, readonly Change[]>): number | null {
    const { plantRevision } = reading.entry.body
    const isOwnSeen = plantRevision === part.revision
    if (isOwnSeen && this.last <= reading.at) return null
    let at = this.firstAfter(reading.at)
    const ownChanges = changesOf.get(part.id) ?? []
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
    const by = hangsOn[query]
    if (!by) return true
    const { lastCame, lastFew, lastAwaited, lastChanged } = this.look()
    const isAny = (kinds: readonly PartKind[] | undefined, ...of: ReadonlyMap<PartKind, number>[]): boolean =>
      kinds?.some((kind) => of.some((places) => (places.get(kind) ?? -1) >= seen)) ?? false
    return (
      isAny(by.all, lastCame, lastChanged) ||
      isAny(by.only, lastFew, lastChanged) ||
      isAny(by.byId, lastAwaited, lastChanged) ||
      isAny(by.through, lastChanged)
    )
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
    const there = new Map<string, PartKind>()
    const counts = new Map<PartKind, number>()
    const awaited = new Set<string>()
    for (const [place, { id, partId, body }] of this.changes.entries()) {
      this.places.set(id, place)
      const data = body.after ?? body.before
      if (!partId || !data) continue
      const own = this.ofPart.get(partId)
      if (own) own.push(place)
      else this.ofPart.set(partId, [place])
      const { kind } = data
      const count = counts.get(kind) ?? 0
      if (body.after === null || there.has(partId)) {
        this.lastChanged.set(kind, place)
        this.lastChangedAny = place
      } else {
        this.lastCame.set(kind, place)
        if (count < 2) this.lastFew.set(kind, place)
        if (awaited.has(partId)) this.lastAwaited.set(kind, place)
      }
      for (const named of namesIn(data)) awaited.add(named)
      if (body.after === null) counts.set(kind, there.delete(partId) ? count - 1 : count)
      else if (!there.has(partId)) {
        counts.set(kind, count + 1)
        there.set(partId, kind)
      }
    }
    return this
  }
}
