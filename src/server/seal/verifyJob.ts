import { asc, eq, inArray } from 'drizzle-orm'
import type { Queries } from '../db/client'
import { entry, seal } from '../db/schema'
import { entryOf } from '../jobs/facts'
import { canonicalHash } from './canonical'
import { verifySeal } from './verifySeal'

export type IssueCheck = { issue: string; whole: boolean; brokenAt: string | null; changedEntries: string[] }

type SealedEntries = { record?: { facts?: { entries?: { id: string }[] } } }

/**
 * Checks every seal of a job: the sealed record itself, and whether the entries that it covers still stand in the
 * database as they were sealed. Somebody with rights over the database cannot change either unseen.
 */
export async function verifyJob(db: Queries, jobId: string): Promise<IssueCheck[]> {
  const rows = await db
    .select({ issue: seal.issue, record: seal.record })
    .from(seal)
    .where(eq(seal.jobId, jobId))
    .orderBy(asc(seal.sealedAt))
  const checks: IssueCheck[] = []
  for (const row of rows) {
    const parsed = parsedOrNull(row.record)
    const { whole, brokenAt } = verifySeal(parsed)
    const sealed = (parsed as SealedEntries | null)?.record?.facts?.entries ?? []
    const changedEntries = await changedSince(db, sealed)
    checks.push({
      issue: row.issue,
      whole: whole && changedEntries.length === 0,
      brokenAt: brokenAt ?? null,
      changedEntries,
    })
  }
  return checks
}

function parsedOrNull(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

/** Ids of sealed entries which are missing from the database or stand there otherwise. */
async function changedSince(db: Queries, sealed: readonly { id: string }[]): Promise<string[]> {
  if (sealed.length === 0) return []
  const ids = sealed.map((one) => one.id)
  const rows = await db.select().from(entry).where(inArray(entry.id, ids))
  const hashes = new Map<string, string>()
  for (const row of rows) {
    try {
      hashes.set(row.id, canonicalHash(entryOf(row)))
    } catch {
      // A body of no shipped shape was put in by hand: it has changed.
    }
  }
  return sealed.filter((one) => hashes.get(one.id) !== canonicalHash(one)).map((one) => one.id)
}
