/**
 * The company's public keys as a chain of their own. Each record of a key names the one before and is signed by both: by
 * the one before, so that a stranger knows who vouched for it, and by itself, so that nobody can put another one before it.
 */
import { createHash, createPublicKey, type KeyObject, sign, verify } from 'node:crypto'
import { z } from 'zod'
import { canonicalBytes } from './canonical'

const headSchema = z.strictObject({
  /** 1, 2, 3 in the order in which they came into use. */
  number: z.number().int().min(1),
  /** Ed25519, SPKI, base64. */
  publicKey: z.string(),
  since: z.string(),
  /** Fingerprint of the key before, null of the first. */
  previous: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .nullable(),
})
type KeyHead = z.infer<typeof headSchema>

export const keyRecordSchema = headSchema.extend({
  /** By the key itself, over the canonical bytes of the head; base64. */
  signature: z.string(),
  /** By the key before; null of the first, and of one that follows a key which was lost. */
  vouched: z.string().nullable(),
})
export type KeyRecord = z.infer<typeof keyRecordSchema>

/** Short name of a signing key, for people to compare: SHA-256 of the SPKI bytes, hex. */
export function keyFingerprint(publicKey: string): string {
  return createHash('sha256').update(Buffer.from(publicKey, 'base64')).digest('hex')
}

export const publicKeyOf = (key: KeyObject): string =>
  createPublicKey(key).export({ type: 'spki', format: 'der' }).toString('base64')

const headOf = ({ number, publicKey, since, previous }: KeyRecord): KeyHead => ({ number, publicKey, since, previous })

/** The record of a key that comes into use. @param old private key of the one before; null where it was lost, or there is none. */
export function keyRecord(
  key: KeyObject,
  since: string,
  before: KeyRecord | undefined,
  old: KeyObject | null,
): KeyRecord {
  const head: KeyHead = {
    number: (before?.number ?? 0) + 1,
    publicKey: publicKeyOf(key),
    since,
    previous: before ? keyFingerprint(before.publicKey) : null,
  }
  const bytes = canonicalBytes(head)
  const vouched = before && old ? sign(null, bytes, old).toString('base64') : null
  return { ...head, signature: sign(null, bytes, key).toString('base64'), vouched }
}

/** Whether a signature over these bytes is by this key; false of anything that is no key or no signature. */
export function isSignedBy(publicKey: string, bytes: Buffer, signature: string): boolean {
  try {
    const key = createPublicKey({ key: Buffer.from(publicKey, 'base64'), format: 'der', type: 'spki' })
    return verify(null, bytes, key, Buffer.from(signature, 'base64'))
  } catch {
    return false
  }
}

/** The number of the first record that does not hold, null where all do. @param keys oldest first. */
export function brokenKey(keys: readonly KeyRecord[]): number | null {
  for (const [k, record] of keys.entries()) {
    const before = keys[k - 1]
    const bytes = canonicalBytes(headOf(record))
    const follows = record.number === k + 1 && record.previous === (before ? keyFingerprint(before.publicKey) : null)
    const isVouched =
      record.vouched === null || (before !== undefined && isSignedBy(before.publicKey, bytes, record.vouched))
    if (!follows || !isVouched || !isSignedBy(record.publicKey, bytes, record.signature)) return k + 1
  }
  return null
}

/** Numbers of the keys that the one before did not vouch for: it was lost. */
export const unvouchedKeys = (keys: readonly KeyRecord[]): number[] =>
  keys.filter((one) => one.previous !== null && one.vouched === null).map((one) => one.number)
