import { and, eq } from 'drizzle-orm'
import { z } from 'zod'
import { idSchema } from '@/core/plant/part'
import { jobSchema } from '@/core/record/facts'
import { defaultRegime } from '@/core/regime/shipped'
import { type Database, DUPLICATE_KEY, errnoOf, NO_SUCH_ROW } from '../db/client'
import { company, job, jobPerson, regime, visit } from '../db/schema'
import { Refused } from '../door'
import { writeAudit } from '../people/audit'
import { dueOnSchema } from './planJob'

export const newJobSchema = z.strictObject({
  id: idSchema,
  visitId: idSchema,
  number: jobSchema.shape.number,
  name: jobSchema.shape.name,
  place: jobSchema.shape.place,
  people: z.array(idSchema).max(50),
  dueOn: dueOnSchema.optional(),
  /** Which version of which regime the job is judged by; the default where nobody chose. */
  regime: z.strictObject({ id: z.string().max(60), version: z.number().int().min(1) }).optional(),
})

/** A new job with its first visit, pinned to one version of a regime. The same id again is the same job. */
export async function createJob(
  db: Database,
  wanted: z.infer<typeof newJobSchema>,
  now: Date,
  by: string | null = null,
): Promise<void> {
  const [firm] = await db.select({ timeZone: company.timeZone }).from(company)
  const [known] = await db.select({ id: job.id }).from(job).where(eq(job.id, wanted.id))
  if (known) return
  const pinned = wanted.regime ?? defaultRegime
  const [there] = await db
    .select({ id: regime.id })
    .from(regime)
    .where(and(eq(regime.id, pinned.id), eq(regime.version, pinned.version)))
  if (!there) throw new Refused(422, 'door.regime-unknown')
  try {
    await db.transaction(async (tx) => {
      await tx.insert(job).values({
        id: wanted.id,
        number: wanted.number,
        name: wanted.name,
        place: wanted.place,
        timeZone: firm?.timeZone ?? 'UTC',
        regimeId: pinned.id,
        regimeVersion: pinned.version,
        createdAt: now,
        dueOn: wanted.dueOn ?? null,
      })
      await tx.insert(visit).values({ id: wanted.visitId, jobId: wanted.id, startsAt: now, title: '' })
      for (const personId of wanted.people)
        await tx.insert(jobPerson).values({ jobId: wanted.id, personId, since: now })
      if (by !== null) await writeAudit(tx, by, 'job-made', { job: wanted.number })
    })
  } catch (error) {
    if (errnoOf(error) === NO_SUCH_ROW) throw new Refused(422, 'door.person-unknown')
    if (errnoOf(error) === DUPLICATE_KEY) throw new Refused(409, 'door.job-number', { number: wanted.number })
    throw error
  }
}
