import type { Part } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { plantOfJob } from '../plant/projection'
import { type Entry, isKind } from '../record/entry'
import { correctedTime } from '../record/order'
import type { ReadingEvaluation } from './types'

/** The plant as it stood before each change, made once for each. */
export class PlantHistory {
  private readonly plants = new Map<number, PlantIndex>()
  private readonly changes: readonly Entry<'plant-change'>[]
  private readonly places = new Map<string, number>()
  /** When the plant was last changed, ms; nothing that was read later can be touched. */
  private readonly last: number

  constructor(
    entries: readonly Entry[],
    private readonly jobId: string,
  ) {
    this.changes = entries.filter((entry): entry is Entry<'plant-change'> => isKind(entry, 'plant-change'))
    const last = this.changes.at(-1)
    this.last = last ? correctedTime(last) : Number.NEGATIVE_INFINITY
  }

  /** Changes that a reading did not see: made after it, or to its own part after what its tester saw of that. */
  after(
    reading: ReadingEvaluation,
    part: Part,
    ownChanges: readonly Entry<'plant-change'>[],
  ): { seen: number; unseen: readonly Entry<'plant-change'>[] } | null {
    const { plantRevision } = reading.entry.body
    const isOwnSeen = plantRevision === part.revision
    if (isOwnSeen && this.last <= reading.at) return null
    let at = this.firstAfter(reading.at)
    const seen = isOwnSeen ? -1 : ownChanges.findIndex((one) => one.id === plantRevision)
    const unseenOwn = seen >= 0 ? ownChanges[seen + 1] : undefined
    if (unseenOwn) at = Math.min(at, this.placeOf(unseenOwn))
    return at < this.changes.length ? { seen: at, unseen: this.changes.slice(at) } : null
  }

  private firstAfter(time: number): number {
    let [low, high] = [0, this.changes.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (correctedTime(this.changes[middle]!) > time) high = middle
      else low = middle + 1
    }
    return low
  }

  private placeOf(change: Entry<'plant-change'>): number {
    if (this.places.size === 0) for (const [k, one] of this.changes.entries()) this.places.set(one.id, k)
    return this.places.get(change.id) ?? this.changes.length
  }

  /** The plant as the first `count` changes left it. */
  plantAfter(count: number): PlantIndex {
    const known = this.plants.get(count) ?? new PlantIndex(plantOfJob(this.changes.slice(0, count), this.jobId))
    this.plants.set(count, known)
    return known
  }
}
