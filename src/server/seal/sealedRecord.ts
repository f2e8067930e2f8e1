/**
 * A sealed record: the facts, the evaluation at the moment of sealing, and the seal over both. The seal is a hash of the
 * canonical bytes (RFC 8785), chained to the job's seal before it, signed with Ed25519 (RFC 8032).
 */
import { z } from 'zod'
import { keyRecordSchema } from './keyChain'

export const SEALED_RECORD_FORMAT = 'upstand-sealed-record'

const hash = z.string().regex(/^[0-9a-f]{64}$/)

/** What the signature covers. */
export const sealHeadSchema = z.strictObject({
  jobId: z.string(),
  /** The job's number and the seal's among those of its job, 1, 2, 3; seals of version 1 do not say. */
  jobNumber: z.string().optional(),
  number: z.number().int().min(1).optional(),
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

const shared = {
  format: z.literal(SEALED_RECORD_FORMAT),
  record: z.record(z.string(), z.unknown()),
  digests: z.record(z.string(), hash),
  seal: sealSchema,
  /** The job's earlier seals, oldest first. */
  chain: z.array(sealSchema),
}
/** Version 1 knew one key for ever; version 2 carries the company's keys, oldest first. */
export const sealedRecordSchema = z.discriminatedUnion('v', [
  z.strictObject({ ...shared, v: z.literal(1) }),
  z.strictObject({ ...shared, v: z.literal(2), keys: z.array(keyRecordSchema).min(1) }),
])
export type SealedRecord = z.infer<typeof sealedRecordSchema>

/** The signed part of a seal. */
export function headOf({ publicKey: _, signature: __, ...head }: Seal): SealHead {
  return head
}

/** A, B, ... Z, AA: the names of issues in order, from 0. */
export function issueName(n: number): string {
  const letter = String.fromCharCode(65 + (n % 26))
  return n < 26 ? letter : issueName(Math.floor(n / 26) - 1) + letter
}
