import { createHash, createPublicKey, verify } from 'node:crypto'
import { canonicalBytes, canonicalHash } from './canonical'
import { digestsOf, firstDifference } from './digests'
import { headOf, type Seal, sealedRecordSchema } from './sealedRecord'

export type SealCheck = {
  whole: boolean
  /** A JSON Pointer into the export, or `chain`, or `signature`; absent where the record is whole. */
  brokenAt?: string
  /** SHA-256 of the signing key: compare it with the one printed on the certificate. */
  keyFingerprint?: string
}

/** Short name of a signing key, for people to compare: SHA-256 of the SPKI bytes, hex. */
export function keyFingerprint(publicKey: string): string {
  return createHash('sha256').update(Buffer.from(publicKey, 'base64')).digest('hex')
}

/**
 * Checks hash, chain and signature of a sealed record exported as JSON. Computing the evaluation again with newer code
 * is another report and never breaks a seal. What is no sealed record at all is broken at the place that says so.
 */
export function verifySeal(input: unknown): SealCheck {
  const parsed = sealedRecordSchema.safeParse(input)
  if (!parsed.success) {
    const path = parsed.error.issues[0]?.path ?? []
    return { whole: false, brokenAt: `/${path.map(String).join('/')}`.replace(/^\/$/, '') }
  }
  const { record, digests, seal, chain } = parsed.data
  const fingerprint = { keyFingerprint: keyFingerprint(seal.publicKey) }
  const broken = (brokenAt: string): SealCheck => ({ whole: false, brokenAt, ...fingerprint })

  if (canonicalHash(record) !== seal.hash) {
    const found = firstDifference(digests, digestsOf(record))
    if (canonicalHash(digests) !== seal.digestsHash) return broken('/digests')
    return broken(found === null ? '/seal/hash' : `/record${found}`)
  }
  if (canonicalHash(digests) !== seal.digestsHash) return broken('/digests')
  if (!chainHolds(chain, seal)) return broken('chain')
  if (![...chain, seal].every(signatureHolds)) return broken('signature')
  return { whole: true, ...fingerprint }
}

function chainHolds(chain: readonly Seal[], seal: Seal): boolean {
  let previous: string | null = null
  for (const link of [...chain, seal]) {
    if (link.previous !== previous || link.jobId !== seal.jobId || link.publicKey !== seal.publicKey) return false
    previous = link.hash
  }
  return true
}

function signatureHolds(seal: Seal): boolean {
  try {
    const key = createPublicKey({ key: Buffer.from(seal.publicKey, 'base64'), format: 'der', type: 'spki' })
    return verify(null, canonicalBytes(headOf(seal)), key, Buffer.from(seal.signature, 'base64'))
  } catch {
    return false
  }
}
