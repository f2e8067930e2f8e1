/** The people of the company as a supervisor keeps them: roles, who works here no longer, who works on which job. */
import { and, asc, count, eq, max, ne } from 'drizzle-orm'
import { type Database, DUPLICATE_KEY, errnoOf, NO_SUCH_ROW, type Queries } from '../db/client'
import { company, job, jobPerson, person, type Role, session, user } from '../db/schema'
import { Refused } from '../door'
import { writeAudit } from './audit'
import type { Member } from './people'

export type PersonLine = {
  id: string
  name: string
  email: string
  role: Role
  active: boolean
  since: string
  jobs: number
  /** When a device of theirs was last heard, to the day; null where nobody is signed in as them. */
  seenAt: string | null
}

export async function peopleOf(db: Queries): Promise<PersonLine[]> {
  const rows = await db
    .select({
      id: person.id,
      name: person.name,
      email: user.email,
      role: person.role,
      active: person.active,
      since: user.createdAt,
      userId: person.userId,
    })
    .from(person)
    .innerJoin(user, eq(user.id, person.userId))
    .orderBy(asc(person.name))
  const jobs = await db.select({ id: jobPerson.personId, n: count() }).from(jobPerson).groupBy(jobPerson.personId)
  const seen = await db
    .select({ id: session.userId, at: max(session.updatedAt) })
    .from(session)
    .groupBy(session.userId)
  const jobsOf = new Map(jobs.map((one) => [one.id, one.n]))
  const seenOf = new Map(seen.map((one) => [one.id, one.at]))
  return rows.map(({ userId, since, ...row }) => ({
    ...row,
    since: since.toISOString(),
    jobs: jobsOf.get(row.id) ?? 0,
    seenAt: seenOf.get(userId)?.toISOString() ?? null,
  }))
}

/** Changes somebody under the company's row, so that of two at one moment the second sees what the first left. */
async function changing<T>(
  db: Database,
  personId: string,
  work: (tx: Queries, who: typeof person.$inferSelect) => Promise<T>,
): Promise<T> {
  return db.transaction(async (tx) => {
    await tx.select({ id: company.id }).from(company).for('update')
    const [who] = await tx.select().from(person).where(eq(person.id, personId))
    if (!who) throw new Refused(404, 'door.not-found')
    return work(tx, who)
  })
}

/** A company without a supervisor could let nobody in again. */
async function refuseLastSupervisor(tx: Queries, who: typeof person.$inferSelect): Promise<void> {
  if (who.role !== 'supervisor' || !who.active) return
  const others = and(eq(person.role, 'supervisor'), eq(person.active, true), ne(person.id, who.id))
  const [left] = await tx.select({ n: count() }).from(person).where(others)
  if ((left?.n ?? 0) === 0) throw new Refused(409, 'door.last-supervisor', { name: who.name })
}

export function setRole(db: Database, by: Member, personId: string, role: Role): Promise<void> {
  return changing(db, personId, async (tx, who) => {
    if (who.role === role) return
    await refuseLastSupervisor(tx, who)
    await tx.update(person).set({ role }).where(eq(person.id, personId))
    await writeAudit(tx, by.name, 'role-changed', { person: who.name, role })
  })
}

/** Who works here no longer is signed out everywhere at once; what they entered stays theirs. */
export function setActive(db: Database, by: Member, personId: string, active: boolean): Promise<void> {
  return changing(db, personId, async (tx, who) => {
    if (who.active === active) return
    if (!active) {
      await refuseLastSupervisor(tx, who)
      await tx.delete(session).where(eq(session.userId, who.userId))
    }
    await tx.update(person).set({ active }).where(eq(person.id, personId))
    await writeAudit(tx, by.name, active ? 'enabled' : 'disabled', { person: who.name })
  })
}

export type WorksOn = { id: string; name: string; role: Role; active: boolean; since: string | null }

/** Who works on a job, and since when. */
export async function worksOn(db: Queries, jobId: string): Promise<WorksOn[]> {
  const rows = await db
    .select({ id: person.id, name: person.name, role: person.role, active: person.active, since: jobPerson.since })
    .from(jobPerson)
    .innerJoin(person, eq(person.id, jobPerson.personId))
    .where(eq(jobPerson.jobId, jobId))
    .orderBy(asc(person.name))
  return rows.map((row) => ({ ...row, since: row.since?.toISOString() ?? null }))
}

/** Lets somebody work on a job, or no longer. Said twice it is done once. */
export async function setWorksOn(
  db: Database,
  by: Member,
  jobId: string,
  personId: string,
  works: boolean,
): Promise<void> {
  try {
    await db.transaction(async (tx) => {
      const [who] = await tx.select({ name: person.name }).from(person).where(eq(person.id, personId))
      const [where] = await tx.select({ number: job.number }).from(job).where(eq(job.id, jobId))
      if (!who || !where) throw new Refused(422, 'door.person-unknown')
      const own = and(eq(jobPerson.jobId, jobId), eq(jobPerson.personId, personId))
      const [known] = await tx.select({ id: jobPerson.personId }).from(jobPerson).where(own)
      if ((known !== undefined) === works) return
      if (works) await tx.insert(jobPerson).values({ jobId, personId, since: new Date() })
      else await tx.delete(jobPerson).where(own)
      await writeAudit(tx, by.name, works ? 'works-on' : 'no-longer-on', { person: who.name, job: where.number })
    })
  } catch (error) {
    if (errnoOf(error) === DUPLICATE_KEY) return
    if (errnoOf(error) === NO_SUCH_ROW) throw new Refused(422, 'door.person-unknown')
    throw error
  }
}
