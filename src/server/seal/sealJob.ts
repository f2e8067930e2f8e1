import type { KeyObject } from 'node:crypto'
import { and, asc, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { evaluate } from '@/core/evaluate'
import { type Database, DUPLICATE_KEY, errnoOf, type Queries } from '../db/client'
import { job, seal } from '../db/schema'
import { Refused } from '../door'
import { env } from '../env'
import { loadFacts } from '../jobs/facts'
import type { OnProgress } from '../longWork/tasks'
import { canonicalBytes } from './canonical'
import { writeAudit } from '../people/audit'
import { isCurrent, keyIn, knownKeys } from './companyKeys'
import { makeSeal } from './makeSeal'
import { recordToSeal } from './recordToSeal'
import { type SealedRecord, sealedRecordSchema } from './sealedRecord'

/** The signing key; it lives in a file outside the database, which may be replaced while this process runs. */
export const signingKey = (): Promise<KeyObject> => keyIn(env().UPSTAND_SEAL_KEY_FILE)

export async function sealedRecords(db: Queries, jobId: string): Promise<SealedRecord[]> {
  const rows = await db
    .select({ record: seal.record })
    .from(seal)
    .where(eq(seal.jobId, jobId))
    .orderBy(asc(seal.number))
  return rows.map((row) => sealedRecordSchema.parse(JSON.parse(row.record)))
}

/** The bytes of a sealed record as they were written. Null: no such issue. */
export async function sealedBytes(db: Queries, jobId: string, issue: string): Promise<string | null> {
  // The database takes letters with accents for those without.
  if (!/^[A-Z]{1,4}$/.test(issue)) return null
  const [row] = await db
    .select({ record: seal.record })
    .from(seal)
    .where(and(eq(seal.jobId, jobId), eq(seal.issue, issue)))
  return row?.record ?? null
}

/** Seals what stands now as the job's next issue. Both signatures must be fresh, and something must be new. */
export async function sealJob(
  db: Database,
  jobId: string,
  by: { id: string; name: string },
  now: Date,
  onProgress: OnProgress = () => undefined,
): Promise<SealedRecord> {
  onProgress({ stage: 'reading' })
  const facts = await loadFacts(db, jobId)
  if (!facts) throw new Refused(404, 'door.not-found')
  onProgress({ stage: 'judging' })
  const evaluation = evaluate(facts, now.getTime())
  const last = facts.seals.at(-1)
  if (last && evaluation.sinceSeal === 0) throw new Refused(409, 'door.seal-nothing-new', { issue: last.issue })
  const fresh = new Set(evaluation.signatures.filter((one) => one.fresh).map((one) => one.role))
  if (!fresh.has('tested') || !fresh.has('checked')) throw new Refused(409, 'door.seal-unsigned')
  const key = await signingKey()
  const keys = await knownKeys(db, key, now)
  if (!isCurrent(key, keys)) throw new Refused(409, 'door.seal-key-other')
  const chain = (await sealedRecords(db, jobId)).map((one) => one.seal)
  const about = { jobId, jobNumber: facts.job.number, sealedAt: now.toISOString() }
  onProgress({ stage: 'signing' })
  const made = makeSeal(recordToSeal(facts, now, by.name), about, chain, key, keys)
  await keep(db, made, chain.length + 1, now)
  await writeAudit(db, by.name, 'sealed', { job: facts.job.number, what: made.seal.issue })
  return made
}

async function keep(db: Database, made: SealedRecord, number: number, sealedAt: Date): Promise<void> {
  const { jobId, issue, hash } = made.seal
  const record = canonicalBytes(made).toString('utf8')
  try {
    await db.transaction(async (tx) => {
      await tx.insert(seal).values({ id: uuid(), jobId, issue, number, sealedAt, hash, record })
      await tx.update(job).set({ seals: number }).where(eq(job.id, jobId))
    })
  } catch (error) {
    // Somebody else sealed the same issue at the same moment: theirs stands.
    if (errnoOf(error) === DUPLICATE_KEY) throw new Refused(409, 'door.seal-nothing-new', { issue })
    throw error
  }
}
