import { createHash, type KeyObject } from 'node:crypto'
import { asc, eq, inArray } from 'drizzle-orm'
import type { Entry } from '@/core/record/entry'
import type { Figures } from '@/core/verdict/verdict'
import type { Queries } from '../db/client'
import { attachment, entry, job, seal } from '../db/schema'
import { entryOf } from '../jobs/facts'
import { canonicalHash } from './canonical'
import { isCurrent, keyRecords } from './companyKeys'
import { brokenKey, type KeyRecord } from './keyChain'
import { type SealedRecord, sealedRecordSchema } from './sealedRecord'
import { signingKey } from './sealJob'
import { verifySeal } from './verifySeal'

/** What is wrong with a seal, each told apart; sentences under `seal-check.` */
export type SealProblem = { code: SealProblemCode; figures: Figures }
export type SealProblemCode =
  | 'unreadable'
  | 'record-changed'
  | 'digests-changed'
  | 'hash-changed'
  | 'chain-broken'
  | 'signature-wrong'
  | 'keys-broken'
  | 'key-not-ours'
  | 'of-another-job'
  | 'of-another-issue'
  | 'row-changed'
  | 'earlier-missing'
  | 'earlier-replaced'
  | 'entry-changed'
  | 'entry-missing'
  | 'photo-changed'
  | 'photo-missing'
  | 'last-missing'
  | 'keys-not-ours'

export type IssueCheck = { issue: string; whole: boolean; problems: SealProblem[] }
export type JobCheck = { issues: IssueCheck[]; problems: SealProblem[] }

type Row = typeof seal.$inferSelect
const problem = (code: SealProblemCode, figures: Figures = {}): SealProblem => ({ code, figures })

/**
 * Checks every seal of a job: the sealed record itself, whether it stands in its own place under a key of this company,
 * and whether the entries and pictures that it covers still stand as they were sealed. Somebody with rights over the
 * database, but without the key's file, cannot change any of it unseen.
 */
export async function verifyJob(
  db: Queries,
  jobId: string,
  ownKey: () => Promise<KeyObject> = signingKey,
): Promise<JobCheck> {
  const rows = await db.select().from(seal).where(eq(seal.jobId, jobId)).orderBy(asc(seal.number))
  const [counted] = await db.select({ seals: job.seals }).from(job).where(eq(job.id, jobId))
  const keys = await keyRecords(db)
  const issues: IssueCheck[] = []
  const before: SealedRecord[] = []
  for (const row of rows) {
    const parsed = parsedOrNull(row.record)
    const problems = parsed
      ? [...problemsOf(parsed, row, keys, before), ...(await problemsOfCovered(db, parsed))]
      : [problem('unreadable')]
    if (parsed) before.push(parsed)
    issues.push({ issue: row.issue, whole: problems.length === 0, problems })
  }
  const missing = (counted?.seals ?? 0) - (rows.at(-1)?.number ?? 0)
  const problems = missing > 0 ? [problem('last-missing', { count: missing })] : []
  if (keys.length > 0 && (brokenKey(keys) !== null || !isCurrent(await ownKey(), keys)))
    problems.push(problem('keys-not-ours'))
  return { issues, problems }
}

function parsedOrNull(text: string): SealedRecord | null {
  try {
    return sealedRecordSchema.parse(JSON.parse(text))
  } catch {
    return null
  }
}

function problemsOf(
  parsed: SealedRecord,
  row: Row,
  keys: readonly KeyRecord[],
  before: readonly SealedRecord[],
): SealProblem[] {
  const { seal: own, chain } = parsed
  const problems: SealProblem[] = []
  const { brokenAt } = verifySeal(parsed)
  if (brokenAt !== undefined) problems.push(brokenPlace(brokenAt))
  if (own.jobId !== row.jobId) return [...problems, problem('of-another-job', { number: own.jobNumber ?? '' })]
  if (own.issue !== row.issue) return [...problems, problem('of-another-issue', { issue: own.issue })]
  if (
    own.hash !== row.hash ||
    Date.parse(own.sealedAt) !== row.sealedAt.getTime() ||
    (own.number ?? row.number) !== row.number
  )
    problems.push(problem('row-changed'))
  if (keys.length > 0 && !keys.some((key) => key.publicKey === own.publicKey)) problems.push(problem('key-not-ours'))
  for (const link of chain) {
    const there = before.find((one) => one.seal.issue === link.issue)
    if (!there) problems.push(problem('earlier-missing', { issue: link.issue }))
    else if (canonicalHash(there.seal) !== canonicalHash(link))
      problems.push(problem('earlier-replaced', { issue: link.issue }))
  }
  return problems
}

function brokenPlace(brokenAt: string): SealProblem {
  if (brokenAt === 'chain') return problem('chain-broken')
  if (brokenAt === 'signature') return problem('signature-wrong')
  if (brokenAt === '/digests') return problem('digests-changed')
  if (brokenAt === '/seal/hash') return problem('hash-changed')
  if (brokenAt.startsWith('/keys')) return problem('keys-broken')
  return problem('record-changed', { where: brokenAt })
}

/** Sealed entries and pictures which are missing from the database, or stand there otherwise. */
async function problemsOfCovered(db: Queries, { record }: SealedRecord): Promise<SealProblem[]> {
  const sealed = (record as { facts?: { entries?: Entry[] } }).facts?.entries ?? []
  if (sealed.length === 0) return []
  const [entries, photos] = [await entriesNow(db, sealed), await photosNow(db, sealed)]
  const counts: [SealProblemCode, number][] = [
    ['entry-missing', entries.filter((now) => now === 'missing').length],
    ['entry-changed', entries.filter((now) => now === 'changed').length],
    ['photo-missing', photos.filter((now) => now === 'missing').length],
    ['photo-changed', photos.filter((now) => now === 'changed').length],
  ]
  return counts.flatMap(([code, count]) => (count > 0 ? [problem(code, { count })] : []))
}

type Now = 'as-sealed' | 'changed' | 'missing'

async function entriesNow(db: Queries, sealed: readonly Entry[]): Promise<Now[]> {
  const ids = sealed.map((one) => one.id)
  const rows = await db.select().from(entry).where(inArray(entry.id, ids))
  const hashes = new Map<string, string | null>()
  for (const row of rows) {
    try {
      hashes.set(row.id, canonicalHash(entryOf(row)))
    } catch {
      // A body of no shipped shape was put in by hand: it has changed.
      hashes.set(row.id, null)
    }
  }
  return sealed.map((one) => {
    const hash = hashes.get(one.id)
    return hash === undefined ? 'missing' : hash === canonicalHash(one) ? 'as-sealed' : 'changed'
  })
}

async function photosNow(db: Queries, sealed: readonly Entry[]): Promise<Now[]> {
  const found: Now[] = []
  for (const { body } of sealed) {
    if (body.kind !== 'photo') continue
    const [row] = await db
      .select({ bytes: attachment.bytes })
      .from(attachment)
      .where(eq(attachment.id, body.attachment))
    const hash =
      row &&
      createHash('sha256')
        .update(Buffer.from(row.bytes as Uint8Array))
        .digest('hex')
    found.push(!hash ? 'missing' : hash === body.sha256 ? 'as-sealed' : 'changed')
  }
  return found
}
