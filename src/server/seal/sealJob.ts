import { createPrivateKey, type KeyObject } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { and, asc, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { evaluate } from '@/core/evaluate'
import { type Database, DUPLICATE_KEY, errnoOf, type Queries } from '../db/client'
import { seal } from '../db/schema'
import { Refused } from '../door'
import { env } from '../env'
import { loadFacts } from '../jobs/facts'
import { canonicalBytes } from './canonical'
import { makeSeal } from './makeSeal'
import { recordToSeal } from './recordToSeal'
import { type SealedRecord, sealedRecordSchema } from './sealedRecord'

let key: Promise<KeyObject> | null = null

/** The signing key; it lives in a file outside the database. */
function signingKey(): Promise<KeyObject> {
  key ??= readFile(env().UPSTAND_SEAL_KEY_FILE).then(createPrivateKey)
  return key
}

export async function sealedRecords(db: Queries, jobId: string): Promise<SealedRecord[]> {
  const rows = await db
    .select({ record: seal.record })
    .from(seal)
    .where(eq(seal.jobId, jobId))
    .orderBy(asc(seal.sealedAt))
  return rows.map((row) => sealedRecordSchema.parse(JSON.parse(row.record)))
}

/** The bytes of a sealed record as they were written. Null: no such issue. */
export async function sealedBytes(db: Queries, jobId: string, issue: string): Promise<string | null> {
  const [row] = await db
    .select({ record: seal.record })
    .from(seal)
    .where(and(eq(seal.jobId, jobId), eq(seal.issue, issue)))
  return row?.record ?? null
}

/** A, B, ... Z, AA: the names of issues in order. */
export function issueName(n: number): string {
  const letter = String.fromCharCode(65 + (n % 26))
  return n < 26 ? letter : issueName(Math.floor(n / 26) - 1) + letter
}

/** Seals what stands now as the job's next issue. Both signatures must be fresh, and something must be new. */
export async function sealJob(
  db: Database,
  jobId: string,
  by: { id: string; name: string },
  now: Date,
): Promise<SealedRecord> {
  const facts = await loadFacts(db, jobId)
  if (!facts) throw new Refused(404, 'door.not-found')
  const evaluation = evaluate(facts, now.getTime())
  const last = facts.seals.at(-1)
  if (last && evaluation.sinceSeal === 0) throw new Refused(409, 'door.seal-nothing-new', { issue: last.issue })
  const fresh = new Set(evaluation.signatures.filter((one) => one.fresh).map((one) => one.role))
  if (!fresh.has('tested') || !fresh.has('checked')) throw new Refused(409, 'door.seal-unsigned')
  const chain = (await sealedRecords(db, jobId)).map((one) => one.seal)
  const issue = issueName(chain.length)
  const made = makeSeal(
    recordToSeal(facts, now, by.name),
    { jobId, issue, sealedAt: now.toISOString() },
    chain,
    await signingKey(),
  )
  try {
    await db.insert(seal).values({
      id: uuid(),
      jobId,
      issue,
      sealedAt: now,
      hash: made.seal.hash,
      record: canonicalBytes(made).toString('utf8'),
    })
  } catch (error) {
    // Somebody else sealed the same issue at the same moment: theirs stands.
    if (errnoOf(error) === DUPLICATE_KEY) throw new Refused(409, 'door.seal-nothing-new', { issue })
    throw error
  }
  return made
}
