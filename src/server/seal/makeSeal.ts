import { createPublicKey, type KeyObject, sign } from 'node:crypto'
import { canonicalBytes, canonicalHash } from './canonical'
import { digestsOf } from './digests'
import { SEALED_RECORD_FORMAT, type Seal, type SealedRecord, type SealHead } from './sealedRecord'

/**
 * Seals a record: canonical hash, chained to the job's seals before it, signed.
 *
 * @param key Ed25519 private key; it lives outside the database.
 * @param chain the job's earlier seals, oldest first.
 */
export function makeSeal(
  record: Record<string, unknown>,
  about: { jobId: string; issue: string; sealedAt: string },
  chain: readonly Seal[],
  key: KeyObject,
): SealedRecord {
  const plain = JSON.parse(canonicalBytes(record).toString('utf8')) as Record<string, unknown>
  const digests = digestsOf(plain)
  const head: SealHead = {
    ...about,
    previous: chain.at(-1)?.hash ?? null,
    hash: canonicalHash(plain),
    digestsHash: canonicalHash(digests),
  }
  const seal: Seal = {
    ...head,
    publicKey: createPublicKey(key).export({ type: 'spki', format: 'der' }).toString('base64'),
    signature: sign(null, canonicalBytes(head), key).toString('base64'),
  }
  return { format: SEALED_RECORD_FORMAT, v: 1, record: plain, digests, seal, chain: [...chain] }
}
