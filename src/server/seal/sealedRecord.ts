/**
 * A sealed record: the facts, the evaluation at the moment of sealing, and the seal over both. The seal is a hash of the
 * canonical bytes (RFC 8785), chained to the job's seal before it, signed with Ed25519 (RFC 8032).
 */
import { z } from 'zod'

export const SEALED_RECORD_FORMAT = 'upstand-sealed-record'

const hash = z.string().regex(/^[0-9a-f]{64}$/)

/** What the signature covers. */
export const sealHeadSchema = z.strictObject({
  jobId: z.string(),
  issue: z.string(),
  sealedAt: z.string(),
  /** Hash of the seal before, null on the first. */
  previous: hash.nullable(),
  /** Hash of the record's canonical bytes. */
  hash,
  /** Hash of the table of digests, which tells where a record was changed. */
  digestsHash: hash,
})
export type SealHead = z.infer<typeof sealHeadSchema>

export const sealSchema = sealHeadSchema.extend({
  /** Ed25519 public key, SPKI, base64. */
  publicKey: z.string(),
  /** Ed25519 signature over the canonical bytes of the head, base64. */
  signature: z.string(),
})
export type Seal = z.infer<typeof sealSchema>

export const sealedRecordSchema = z.strictObject({
  format: z.literal(SEALED_RECORD_FORMAT),
  v: z.literal(1),
  record: z.record(z.string(), z.unknown()),
  digests: z.record(z.string(), hash),
  seal: sealSchema,
  /** The job's earlier seals, oldest first. */
  chain: z.array(sealSchema),
})
export type SealedRecord = z.infer<typeof sealedRecordSchema>

/** The signed part of a seal. */
export function headOf(seal: Seal): SealHead {
  const { jobId, issue, sealedAt, previous, hash: recordHash, digestsHash } = seal
  return { jobId, issue, sealedAt, previous, hash: recordHash, digestsHash }
}
