import { canonicalBytes, canonicalHash } from './canonical'
import { digestsOf, firstDifference } from './digests'
import { brokenKey, isSignedBy, keyFingerprint, type KeyRecord, unvouchedKeys } from './keyChain'
import { headOf, issueName, type Seal, sealedRecordSchema } from './sealedRecord'

export type SealCheck = {
  whole: boolean
  /** A JSON Pointer into the export, or `chain`, or `signature`; absent where the record is whole. */
  brokenAt?: string
  /** SHA-256 of the signing key: compare it with the one printed on the certificate. */
  keyFingerprint?: string
  /** Numbers of keys which follow one that was lost: nobody vouched for them but they themselves. */
  unvouchedKeys?: number[]
}

/**
 * Checks hash, chain, keys and signature of a sealed record exported as JSON. Computing the evaluation again with newer
 * code is another report and never breaks a seal. What is no sealed record at all is broken at the place that says so.
 */
export function verifySeal(input: unknown): SealCheck {
  const parsed = sealedRecordSchema.safeParse(input)
  if (!parsed.success) {
    const path = parsed.error.issues[0]?.path ?? []
    return { whole: false, brokenAt: `/${path.map(String).join('/')}`.replace(/^\/$/, '') }
  }
  const { record, digests, seal, chain } = parsed.data
  const keys = parsed.data.v === 2 ? parsed.data.keys : null
  const unvouched = keys ? unvouchedKeys(keys) : []
  const known = {
    keyFingerprint: keyFingerprint(seal.publicKey),
    ...(unvouched.length > 0 ? { unvouchedKeys: unvouched } : {}),
  }
  const broken = (brokenAt: string): SealCheck => ({ whole: false, brokenAt, ...known })

  if (canonicalHash(record) !== seal.hash) {
    const found = firstDifference(digests, digestsOf(record))
    if (canonicalHash(digests) !== seal.digestsHash) return broken('/digests')
    return broken(found === null ? '/seal/hash' : `/record${found}`)
  }
  if (canonicalHash(digests) !== seal.digestsHash) return broken('/digests')
  if (!chainHolds(chain, seal)) return broken('chain')
  const bad = keys && brokenKey(keys)
  if (bad) return broken(`/keys/${bad - 1}`)
  const seals = [...chain, seal]
  if (!keysKnown(seals, keys)) return broken(keys ? '/keys' : 'chain')
  if (!seals.every((one) => isSignedBy(one.publicKey, canonicalBytes(headOf(one)), one.signature)))
    return broken('signature')
  return { whole: true, ...known }
}

/** Each seal names the one before, is of this job, and has its place: issues are counted without a gap. */
function chainHolds(chain: readonly Seal[], seal: Seal): boolean {
  return [...chain, seal].every(
    (link, k, all) =>
      link.previous === (all[k - 1]?.hash ?? null) &&
      link.jobId === seal.jobId &&
      link.issue === issueName(k) &&
      (link.number ?? k + 1) === k + 1,
  )
}

/** Every seal is by a key of the company; before keys were told of, there was one. */
function keysKnown(seals: readonly Seal[], keys: readonly KeyRecord[] | null): boolean {
  const known = new Set(keys ? keys.map((one) => one.publicKey) : [seals.at(-1)!.publicKey])
  return seals.every((one) => known.has(one.publicKey))
}
