import { and, eq, gte } from 'drizzle-orm'
import type { Database } from '../db/client'
import { feedSample, instrument, job } from '../db/schema'
import { Refused } from '../door'
import { type Member, rightsIn } from '../people/people'

/** An instrument that was heard within this time is in somebody's hands, minutes. */
const IN_USE_MINUTES = 15

/**
 * Pairs an instrument with a job. It is in one place at a time: one that somebody else reads from right now stays there.
 *
 * @throws Refused where it is not in the kit, or in use in a job that the person has no part in.
 */
export async function pair(
  db: Database,
  member: Member,
  jobId: string,
  instrumentId: string,
  now: Date,
): Promise<void> {
  const [tool] = await db
    .select()
    .from(instrument)
    .where(and(eq(instrument.id, instrumentId), eq(instrument.retired, false)))
  if (!tool) throw new Refused(404, 'door.no-instrument')
  const elsewhere = tool.pairedJobId !== null && tool.pairedJobId !== jobId ? tool.pairedJobId : null
  if (elsewhere && !(await rightsIn(db, member, elsewhere)) && (await isInUse(db, instrumentId, now))) {
    const [other] = await db.select({ number: job.number }).from(job).where(eq(job.id, elsewhere))
    throw new Refused(409, 'door.instrument-in-use', { tag: tool.data.tag, number: other?.number ?? '' })
  }
  await db.update(instrument).set({ pairedJobId: jobId }).where(eq(instrument.id, instrumentId))
}

async function isInUse(db: Database, instrumentId: string, now: Date): Promise<boolean> {
  const since = new Date(now.getTime() - IN_USE_MINUTES * 60_000)
  const [heard] = await db
    .select({ id: feedSample.id })
    .from(feedSample)
    .where(and(eq(feedSample.instrumentId, instrumentId), gte(feedSample.receivedAt, since)))
    .limit(1)
  return heard !== undefined
}
