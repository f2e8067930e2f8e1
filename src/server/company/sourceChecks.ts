/** Which sources the company held against their documents. */
import { desc } from 'drizzle-orm'
import type { ComparisonMade } from '@/core/regime/comparison'
import type { Comparison } from '@/core/regime/sources'
import { sourceName } from '@/words/sourceName'
import type { SourceId } from '@/core/regime/sources'
import type { Queries } from '../db/client'
import { sourceCheck } from '../db/schema'
import { writeAudit } from '../people/audit'

/** The latest comparison of each source. */
export async function comparisons(db: Queries): Promise<Comparison[]> {
  const rows = await db.select().from(sourceCheck).orderBy(desc(sourceCheck.id))
  const latest = new Map<string, Comparison>()
  for (const { source, edition, by, at, agrees, note } of rows)
    if (!latest.has(source)) latest.set(source, { source, edition, by, at: at.toISOString(), agrees, note })
  return [...latest.values()]
}

export async function compareSource(db: Queries, made: ComparisonMade, by: string, now: Date): Promise<Comparison> {
  await db.insert(sourceCheck).values({ ...made, by, at: now })
  await writeAudit(db, by, 'source-compared', { what: sourceName(made.source as SourceId) })
  return { ...made, by, at: now.toISOString() }
}
