/**
 * Who asks, and what they may do in a job: in one look, for every save asks it. Signing in and out, and how long a session
 * lasts, are the sign-in library's; a session is read here as the library keeps it.
 */
import { createHmac, timingSafeEqual } from 'node:crypto'
import { getSessionCookie } from 'better-auth/cookies'
import { and, eq, gt, sql } from 'drizzle-orm'
import type { Instrument } from '@/core/record/instrument'
import type { Queries } from '../db/client'
import { instrument, job, jobPerson, person, type Role, session } from '../db/schema'
import { env } from '../env'
import { auth, SESSION_RENEWED_AFTER_s } from './auth'
import type { Member } from './people'

/** `right` is null where the job is not there, or nothing of theirs; `kit` holds those instruments asked for that there are. */
export type Asker = { member: Member; right: Role | null; kit: ReadonlyMap<string, Instrument>; renewedAt: Date }

/**
 * The signed-in person and their right in a job; null where nobody is signed in, or somebody who no longer works here.
 *
 * @param tools instruments that are wanted too: a save needs both, and one look costs half of two.
 */
export async function whoAsks(
  db: Queries,
  request: Request,
  jobId: string,
  tools: readonly string[] = [],
): Promise<Asker | null> {
  const token = sessionToken(request)
  if (!token) return null
  const now = new Date()
  const rows = await lookOn(db).execute({ token, now, jobId, tools: tools.join(',') })
  const row = rows[0]
  if (!row) return null
  // The library renews what is old; it looks at the same session again.
  if (now.getTime() - row.renewedAt.getTime() > SESSION_RENEWED_AFTER_s * 1000)
    await auth().api.getSession({ headers: request.headers })
  const { id, name, role } = row
  const right = row.job === null ? null : role === 'supervisor' ? role : row.assigned ? role : null
  const kit = new Map(rows.flatMap(({ tool }) => (tool ? [[tool.id, tool.data]] : [])))
  return { member: { id, name, role }, right, kit, renewedAt: row.renewedAt }
}

const wanted = sql.placeholder

/** The statement is put together once: to write it anew for each save costs more than to send it. */
const look = (db: Queries) =>
  db
    .select({
      id: person.id,
      name: person.name,
      role: person.role,
      renewedAt: session.updatedAt,
      job: job.id,
      assigned: jobPerson.personId,
      tool: { id: instrument.id, data: instrument.data },
    })
    .from(session)
    .innerJoin(person, and(eq(person.userId, session.userId), eq(person.active, true)))
    .leftJoin(job, eq(job.id, wanted('jobId')))
    .leftJoin(jobPerson, and(eq(jobPerson.jobId, job.id), eq(jobPerson.personId, person.id)))
    .leftJoin(instrument, sql`FIND_IN_SET(${instrument.id}, ${wanted('tools')})`)
    .where(and(eq(session.token, wanted('token')), gt(session.expiresAt, wanted('now'))))
    .prepare()

const looks = new WeakMap<Queries, ReturnType<typeof look>>()

function lookOn(db: Queries): ReturnType<typeof look> {
  const known = looks.get(db) ?? look(db)
  looks.set(db, known)
  return known
}

/** The token of the session cookie, where it was signed here. */
export function sessionToken(request: Request): string | null {
  const cookie = getSessionCookie(request)
  const at = cookie?.lastIndexOf('.') ?? -1
  if (!cookie || at < 1) return null
  const token = cookie.slice(0, at)
  const signature = Buffer.from(cookie.slice(at + 1), 'base64')
  const expected = createHmac('sha256', env().UPSTAND_SECRET).update(token).digest()
  return signature.length === expected.length && timingSafeEqual(signature, expected) ? token : null
}
