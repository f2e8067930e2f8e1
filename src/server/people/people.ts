/** People, and what they may do. */
import { createHmac } from 'node:crypto'
import { hashPassword } from 'better-auth/crypto'
import { and, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Database, Queries } from '../db/client'
import { account, company, job, jobPerson, person, type Role, user } from '../db/schema'
import { env } from '../env'

export type Member = { id: string; name: string; role: Role }

/** What a person may do in a job: a supervisor all, others only where they are assigned. Null: not even see it. */
export async function rightsIn(db: Queries, member: Member, jobId: string): Promise<Role | null> {
  const [found] = await db.select({ id: job.id }).from(job).where(eq(job.id, jobId))
  if (!found) return null
  if (member.role === 'supervisor') return 'supervisor'
  const [assigned] = await db
    .select({ jobId: jobPerson.jobId })
    .from(jobPerson)
    .where(and(eq(jobPerson.jobId, jobId), eq(jobPerson.personId, member.id)))
  return assigned ? member.role : null
}

export type NewPerson = { id?: string; name: string; email: string; password: string; role: Role }

/** A password as it is kept: it takes its time, so it is made before anything is locked. */
export const credentialsOf = (password: string): Promise<string> => hashPassword(password)

/** Adds a person with sign-in by e-mail and password. */
export async function addPerson(db: Database, who: NewPerson): Promise<string> {
  const credentials = await credentialsOf(who.password)
  return db.transaction((tx) => addPersonIn(tx, who, credentials))
}

/** The same within a transaction. @param credentials the password as it is kept. */
export async function addPersonIn(tx: Queries, who: Omit<NewPerson, 'password'>, credentials: string): Promise<string> {
  const personId = who.id ?? uuid()
  const userId = uuid()
  const now = new Date()
  await tx.insert(user).values({
    id: userId,
    name: who.name,
    email: who.email.toLowerCase(),
    emailVerified: true,
    createdAt: now,
    updatedAt: now,
  })
  await tx.insert(account).values({
    id: uuid(),
    accountId: userId,
    providerId: 'credential',
    userId,
    password: credentials,
    createdAt: now,
    updatedAt: now,
  })
  await tx.insert(person).values({ id: personId, userId, name: who.name, role: who.role })
  return personId
}

export async function isDemo(db: Queries): Promise<boolean> {
  const [row] = await db.select({ demo: company.demo }).from(company)
  return row?.demo ?? false
}

/** Demo people have no password that anybody types: it follows from the secret of this installation. */
export function demoPassword(email: string): string {
  return createHmac('sha256', env().UPSTAND_SECRET).update(`demo sign-in of ${email}`).digest('hex')
}
