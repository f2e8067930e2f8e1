import { type KeyObject, sign } from 'node:crypto'
import { canonicalBytes, canonicalHash } from './canonical'
import { digestsOf } from './digests'
import { type KeyRecord, publicKeyOf } from './keyChain'
import { issueName, SEALED_RECORD_FORMAT, type Seal, type SealedRecord, type SealHead } from './sealedRecord'

/**
 * Seals a record: canonical hash, numbered and chained to the job's seals before it, signed.
 *
 * @param key Ed25519 private key, the last of `keys`; it lives outside the database.
 * @param chain the job's earlier seals, oldest first.
 */
export function makeSeal(
  record: Record<string, unknown>,
  about: { jobId: string; jobNumber: string; sealedAt: string },
  chain: readonly Seal[],
  key: KeyObject,
  keys: readonly KeyRecord[],
): SealedRecord {
  const plain = JSON.parse(canonicalBytes(record).toString('utf8')) as Record<string, unknown>
  const digests = digestsOf(plain)
  const head: SealHead = {
    ...about,
    number: chain.length + 1,
    issue: issueName(chain.length),
    previous: chain.at(-1)?.hash ?? null,
    hash: canonicalHash(plain),
    digestsHash: canonicalHash(digests),
  }
  const signature = sign(null, canonicalBytes(head), key).toString('base64')
  const seal: Seal = { ...head, publicKey: publicKeyOf(key), signature }
  return { format: SEALED_RECORD_FORMAT, v: 2, record: plain, digests, seal, chain: [...chain], keys: [...keys] }
}
