/**
 * Who asks, and what they may do in a job: in one look, for every save asks it. Signing in and out, and how long a session
 * lasts, are the sign-in library's; a session is read here as the library keeps it.
 */
import { createHmac, timingSafeEqual } from 'node:crypto'
import { getSessionCookie } from 'better-auth/cookies'
import { and, eq, gt } from 'drizzle-orm'
import type { Queries } from '../db/client'
import { job, jobPerson, person, type Role, session } from '../db/schema'
import { env } from '../env'
import { auth, SESSION_RENEWED_AFTER_s } from './auth'
import type { Member } from './people'

/** `right` is null where the job is not there, or nothing of theirs. */
export type Asker = { member: Member; right: Role | null }

/** The signed-in person and their right in a job; null where nobody is signed in, or somebody who no longer works here. */
export async function whoAsks(db: Queries, request: Request, jobId: string): Promise<Asker | null> {
  const token = sessionToken(request)
  if (!token) return null
  const now = new Date()
  const [row] = await db
    .select({
      id: person.id,
      name: person.name,
      role: person.role,
      renewedAt: session.updatedAt,
      job: job.id,
      assigned: jobPerson.personId,
    })
    .from(session)
    .innerJoin(person, and(eq(person.userId, session.userId), eq(person.active, true)))
    .leftJoin(job, eq(job.id, jobId))
    .leftJoin(jobPerson, and(eq(jobPerson.jobId, job.id), eq(jobPerson.personId, person.id)))
    .where(and(eq(session.token, token), gt(session.expiresAt, now)))
  if (!row) return null
  // The library renews what is old; it looks at the same session again.
  if (now.getTime() - row.renewedAt.getTime() > SESSION_RENEWED_AFTER_s * 1000)
    await auth().api.getSession({ headers: request.headers })
  const { id, name, role } = row
  const right = row.job === null ? null : role === 'supervisor' ? role : row.assigned ? role : null
  return { member: { id, name, role }, right }
}

/** The token of the session cookie, where it was signed here. */
export function sessionToken(request: Request): string | null {
  const cookie = getSessionCookie(request)
  const at = cookie?.lastIndexOf('.') ?? -1
  if (!cookie || at < 1) return null
  const token = cookie.slice(0, at)
  const signature = Buffer.from(cookie.slice(at + 1), 'base64')
  const wanted = createHmac('sha256', env().UPSTAND_SECRET).update(token).digest()
  return signature.length === wanted.length && timingSafeEqual(signature, wanted) ? token : null
}
