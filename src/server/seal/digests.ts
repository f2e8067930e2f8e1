import { canonicalHash } from './canonical'

/** How many levels deep places in a record are told apart: /facts/entries/12. */
const DEPTH = 3

const pointerPart = (key: string): string => key.replaceAll('~', '~0').replaceAll('/', '~1')

/** A digest of every place of a record down to DEPTH, by JSON Pointer (RFC 6901), in document order. */
export function digestsOf(record: unknown): Record<string, string> {
  const digests: Record<string, string> = {}
  const visit = (value: unknown, pointer: string, depth: number): void => {
    const isOpen = value !== null && typeof value === 'object' && depth < DEPTH && Object.keys(value).length > 0
    if (!isOpen) {
      digests[pointer] = canonicalHash(value)
      return
    }
    for (const [key, inner] of Object.entries(value)) visit(inner, `${pointer}/${pointerPart(key)}`, depth + 1)
  }
  visit(record, '', 0)
  return digests
}

/** The first place whose digest differs, is missing or was added; null where there is none. */
export function firstDifference(sealed: Record<string, string>, found: Record<string, string>): string | null {
  for (const [pointer, digest] of Object.entries(found)) if (sealed[pointer] !== digest) return pointer
  for (const pointer of Object.keys(sealed)) if (!(pointer in found)) return pointer
  return null
}
