import type { Entry } from '../record/entry'
import { isKind } from '../record/entry'
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

/** Parts of one kind that are in service, by tag as people count (2 before 10). */
export function partsOfKind<Kind extends PartKind>(
  parts: ReadonlyMap<string, Part>,
  kind: Kind,
): Part<Extract<PartData, { kind: Kind }>>[] {
  const found: Part<Extract<PartData, { kind: Kind }>>[] = []
  for (const part of parts.values()) {
    if (!part.retired && part.data.kind === kind) found.push(part as Part<Extract<PartData, { kind: Kind }>>)
  }
  return found.sort((a, b) => compareTags(a.data.tag, b.data.tag))
}

const byNumber = new Intl.Collator('en', { numeric: true })
export function compareTags(a: string, b: string): number {
  return byNumber.compare(a, b)
}
