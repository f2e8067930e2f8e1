/** When a job is wanted, and whether it still stands in the lists: nothing of what was tested depends on either. */
import { eq } from 'drizzle-orm'
import { z } from 'zod'
import type { Database } from '../db/client'
import { job } from '../db/schema'
import { Refused } from '../door'
import { writeAudit } from '../people/audit'

/** A day as 2026-03-07. */
export const dueOnSchema = z.iso.date().nullable()

export const planSchema = z
  .strictObject({ dueOn: dueOnSchema.optional(), putAway: z.boolean().optional() })
  .refine((plan) => Object.keys(plan).length > 0, { error: 'say dueOn, putAway, or both' })

/** @throws Refused where there is no such job */
export async function planJob(
  db: Database,
  by: string,
  jobId: string,
  { dueOn, putAway }: z.infer<typeof planSchema>,
): Promise<void> {
  await db.transaction(async (tx) => {
    const [row] = await tx.select().from(job).where(eq(job.id, jobId)).for('update')
    if (!row) throw new Refused(404, 'door.not-found')
    if (dueOn !== undefined && dueOn !== row.dueOn) {
      await tx.update(job).set({ dueOn }).where(eq(job.id, jobId))
      await writeAudit(tx, by, 'job-due', { job: row.number, what: dueOn ?? '–' })
    }
    if (putAway !== undefined && putAway !== (row.putAwayAt !== null)) {
      await tx
        .update(job)
        .set({ putAwayAt: putAway ? new Date() : null })
        .where(eq(job.id, jobId))
      await writeAudit(tx, by, putAway ? 'job-put-away' : 'job-taken-back', { job: row.number })
    }
  })
}
