import { createHash } from 'node:crypto'
import canonicalize from 'canonicalize'

/** Canonical bytes of a JSON value: RFC 8785. Throws where the value cannot be written (NaN, infinity, undefined). */
export function canonicalBytes(value: unknown): Buffer {
  const text = canonicalize(value)
  if (text === undefined) throw new Error('canonicalBytes: expected a JSON value, got undefined')
  return Buffer.from(text, 'utf8')
}

/** SHA-256 of the canonical bytes, hex. */
export function canonicalHash(value: unknown): string {
  return createHash('sha256').update(canonicalBytes(value)).digest('hex')
}
