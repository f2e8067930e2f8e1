import type { Entry } from '../record/entry'
import { isKind } from '../record/entry'
import { bareSite } from './kinds/site'
import type { Part, PartData, PartKind } from './part'

/**
 * The plant as its change entries leave it, in the order in which parts were first entered. The later entry wins;
 * a part whose last change has no `after` is retired and stays readable.
 *
 * @param entries in order.
 */
export function plantFrom(entries: readonly Entry[]): Map<string, Part> {
  const parts = new Map<string, Part>()
  for (const entry of entries) {
    if (!isKind(entry, 'plant-change') || !entry.partId) continue
    const { before, after } = entry.body
    const known = parts.get(entry.partId)
    const data = after ?? known?.data ?? before
    if (data) parts.set(entry.partId, { id: entry.partId, data, revision: entry.id, retired: after === null })
  }
  return parts
}

/**
 * The plant of a job. What belongs to the whole place, lead null, isolation, close-out, is asked of every job: one whose
 * site nobody entered has it all the same, under the job's own id.
 *
 * @param entries in order.
 */
export function plantOfJob(entries: readonly Entry[], jobId: string): Map<string, Part> {
  const parts = plantFrom(entries)
  for (const part of parts.values()) if (part.data.kind === 'site' && !part.retired) return parts
  return new Map([[jobId, { id: jobId, data: bareSite, revision: '', retired: false }], ...parts])
}

/** Parts in service by their kind, each by tag as people count (2 before 10). */
export function partsByKind(parts: ReadonlyMap<string, Part>): Map<PartKind, Part[]> {
  const kinds = new Map<PartKind, Part[]>()
  for (const part of parts.values()) {
    if (part.retired) continue
    const known = kinds.get(part.data.kind)
    if (known) known.push(part)
    else kinds.set(part.data.kind, [part])
  }
  for (const list of kinds.values()) sortByTag(list)
  return kinds
}

/** Parts of one kind that are in service, by tag as people count. */
export function partsOfKind<Kind extends PartKind>(
  parts: ReadonlyMap<string, Part>,
  kind: Kind,
): Part<Extract<PartData, { kind: Kind }>>[] {
  const found: Part<Extract<PartData, { kind: Kind }>>[] = []
  for (const part of parts.values()) {
    if (!part.retired && part.data.kind === kind) found.push(part as Part<Extract<PartData, { kind: Kind }>>)
  }
  return sortByTag(found)
}

const byNumber = new Intl.Collator('en', { numeric: true })
export function compareTags(a: string, b: string): number {
  return byNumber.compare(a, b)
}

/** Sorting by a collator is dear: a list that already stands in order is only looked through. */
function sortByTag<One extends Part>(list: One[]): One[] {
  const stands = list.every((one, k) => k === 0 || compareTags(list[k - 1]!.data.tag, one.data.tag) <= 0)
  return stands ? list : list.sort((a, b) => compareTags(a.data.tag, b.data.tag))
}
