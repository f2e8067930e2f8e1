/** Where somebody is signed in: their own sessions, told apart without the secret that each of them is. */
import { and, desc, eq, gt, ne } from 'drizzle-orm'
import type { Queries } from '../db/client'
import { person, session } from '../db/schema'

export type OwnSession = {
  id: string
  since: string
  /** When it was last renewed: at most a day before it was last used. */
  renewedAt: string
  /** As the browser calls itself. */
  device: string
  /** The one that asks. */
  isOwn: boolean
}

async function userOf(db: Queries, personId: string): Promise<string | null> {
  const [row] = await db.select({ userId: person.userId }).from(person).where(eq(person.id, personId))
  return row?.userId ?? null
}

/** The latest first. @param token that of the session that asks. */
export async function sessionsOf(db: Queries, personId: string, token: string): Promise<OwnSession[]> {
  const userId = await userOf(db, personId)
  if (!userId) return []
  const rows = await db
    .select()
    .from(session)
    .where(and(eq(session.userId, userId), gt(session.expiresAt, new Date())))
    .orderBy(desc(session.updatedAt))
  return rows.map((row) => ({
    id: row.id,
    since: row.createdAt.toISOString(),
    renewedAt: row.updatedAt.toISOString(),
    device: (row.userAgent ?? '').slice(0, 300),
    isOwn: row.token === token,
  }))
}

/** Ends one session of a person, or all but the one that asks. Somebody else's are never touched. */
export async function endSessions(
  db: Queries,
  personId: string,
  token: string,
  which: string | 'others',
): Promise<void> {
  const userId = await userOf(db, personId)
  if (!userId) return
  const those = which === 'others' ? ne(session.token, token) : eq(session.id, which)
  await db.delete(session).where(and(eq(session.userId, userId), those))
}
