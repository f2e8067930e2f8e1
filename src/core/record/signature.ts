import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { type Entry, isKind } from './entry'

/**
 * Hash of the facts that a signature covers: every entry but signatures. An entry never changes and its id stands for
 * it, so the sorted ids are enough; the seal holds the bytes themselves.
 */
export function coverHash(entries: readonly Entry[]): string {
  const ids = entries.filter((entry) => entry.body.kind !== 'signature').map((entry) => entry.id)
  return bytesToHex(sha256(utf8ToBytes(ids.sort().join('\n'))))
}

export type SignatureState = {
  entryId: string
  role: 'tested' | 'checked'
  personId: string
  printedName: string
  statement: string
  review: readonly { of: string; text: string }[]
  at: string
  /** False once a fact was added after it: it must be signed again before sealing. */
  fresh: boolean
}

/** The latest signature of each role, with whether it still covers all there is. */
export function signatureStates(entries: readonly Entry[]): SignatureState[] {
  const latest = new Map<string, Entry<'signature'>>()
  for (const entry of entries) if (isKind(entry, 'signature')) latest.set(entry.body.role, entry)
  if (latest.size === 0) return []
  const now = coverHash(entries)
  return [...latest.values()].map((entry) => ({
    entryId: entry.id,
    role: entry.body.role,
    personId: entry.personId,
    printedName: entry.body.printedName,
    statement: entry.body.statement,
    review: entry.body.review ?? [],
    at: entry.deviceTime,
    fresh: entry.body.coversHash === now,
  }))
}

const plain = (name: string): string => name.trim().replace(/\s+/g, ' ').toLocaleLowerCase('en')

/** Whether somebody signs in their own name, however they space and capitalise it: it tells that a second person looked. */
export const isNameOf = (printed: string, name: string): boolean => plain(printed) === plain(name)
