/**
 * A job goes on under a newer version of its regime. What was read stays as it was read and is judged anew; what was
 * sealed stays under the version that it was sealed under. The move is an entry of the job, so that signatures made
 * before it no longer cover it.
 */
import { and, desc, eq, max } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { Body } from '@/core/record/entry'
import { DUPLICATE_KEY, type Database, errnoOf, type Queries } from '../db/client'
import { entry, job, regime, visit } from '../db/schema'
import { Refused } from '../door'
import { writeAudit } from '../people/audit'
import type { Member } from '../people/people'
import { canonicalHash } from '../seal/canonical'
import { heldJob } from './heldJob'

export const moveSchema = z.strictObject({
  version: z.number().int().positive().max(10_000),
  reason: z.string().trim().min(3).max(300),
})
type Move = z.infer<typeof moveSchema>

/** Somebody else writes to the job at the same moment: so often is it tried anew. */
const MOST_TRIES = 25

/** @throws Refused where there is no such job or version, or the job is under it or a newer one already. */
export async function moveRegime(db: Database, by: Member, jobId: string, move: Move, now: Date): Promise<void> {
  const held = await heldJob(db, jobId)
  if (!held) throw new Refused(404, 'door.not-found')
  await held.turn(async () => {
    for (let attempt = 0; ; attempt++) {
      try {
        await db.transaction((tx) => moved(tx, by, jobId, move, now))
        break
      } catch (error) {
        if (errnoOf(error) !== DUPLICATE_KEY || attempt >= MOST_TRIES) throw error
      }
    }
    await held.catchUp(db)
  })
}

async function moved(tx: Queries, by: Member, jobId: string, { version, reason }: Move, now: Date): Promise<void> {
  const [row] = await tx.select().from(job).where(eq(job.id, jobId)).for('update')
  if (!row) throw new Refused(404, 'door.not-found')
  if (version <= row.regimeVersion) throw new Refused(409, 'door.regime-not-newer', { version: row.regimeVersion })
  const [there] = await tx
    .select({ id: regime.id })
    .from(regime)
    .where(and(eq(regime.id, row.regimeId), eq(regime.version, version)))
  if (!there) throw new Refused(422, 'door.regime-unknown')
  const [last] = await tx
    .select({ seq: max(entry.seq) })
    .from(entry)
    .where(eq(entry.jobId, jobId))
  const [newest] = await tx
    .select({ id: visit.id })
    .from(visit)
    .where(eq(visit.jobId, jobId))
    .orderBy(desc(visit.startsAt))
    .limit(1)
  const body: Body<'regime-move'> = {
    kind: 'regime-move',
    v: 1,
    regime: row.regimeId,
    from: row.regimeVersion,
    to: version,
    reason,
  }
  const said = { id: uuid(), jobId, visitId: newest!.id, partId: null, step: null, deviceTime: now.toISOString(), body }
  await tx.insert(entry).values({
    ...said,
    deviceTime: now,
    receivedAt: now,
    kind: body.kind,
    personId: by.id,
    clockOffset_ms: 0,
    seq: (last?.seq ?? 0) + 1,
    bodyHash: canonicalHash({ ...said, clockOffset_ms: 0 }),
  })
  await tx.update(job).set({ regimeVersion: version }).where(eq(job.id, jobId))
  await writeAudit(tx, by.name, 'job-regime', { job: row.number, what: `${body.from} → ${body.to}: ${reason}` })
}
