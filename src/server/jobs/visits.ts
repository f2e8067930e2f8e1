import { eq } from 'drizzle-orm'
import { DUPLICATE_KEY, type Database, errnoOf } from '../db/client'
import { visit } from '../db/schema'
import { Refused } from '../door'

export type Visit = { id: string; startsAt: string; title: string }

/** A further visit of a job. The same id again is the same visit; an id of another job is refused. */
export async function beginVisit(
  db: Database,
  jobId: string,
  wanted: { id: string; title: string },
  now: Date,
): Promise<Visit> {
  try {
    await db.insert(visit).values({ id: wanted.id, jobId, startsAt: now, title: wanted.title })
  } catch (error) {
    if (errnoOf(error) !== DUPLICATE_KEY) throw error
  }
  const [kept] = await db.select().from(visit).where(eq(visit.id, wanted.id))
  if (kept?.jobId !== jobId) throw new Refused(409, 'refused.conflict')
  return { id: kept.id, startsAt: kept.startsAt.toISOString(), title: kept.title }
}
