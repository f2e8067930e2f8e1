/**
 * One-time codes: they let somebody into the company, or give somebody who is in it a new password. A code is shown once,
 * to the supervisor who hands it on; here only its hash is kept.
 */
import { createHash, randomInt } from 'node:crypto'
import { hashPassword } from 'better-auth/crypto'
import { and, eq, gt, isNull } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { type Database, DUPLICATE_KEY, errnoOf, type Queries } from '../db/client'
import { account, invitation, person, type Role, session, user } from '../db/schema'
import { Refused } from '../door'
import { writeAudit } from './audit'
import { addPersonIn, type Member } from './people'

/** Figures and letters that nobody takes one for another, read aloud or written by hand. */
const LETTERS = '23456789ABCDEFGHJKMNPQRSTVWXYZ'
const GROUPS = 3
const GROUP = 4
const HOUR_ms = 3_600_000
const JOIN_HOURS = 7 * 24
const RESET_HOURS = 24

export type Given = { code: string; expiresAt: string }
export type Pending = { id: string; name: string; email: string; role: Role; isReset: boolean; expiresAt: string }

function newCode(): string {
  const group = (): string => Array.from({ length: GROUP }, () => LETTERS[randomInt(LETTERS.length)]).join('')
  return Array.from({ length: GROUPS }, group).join('-')
}

/** A code as people type it: small letters, spaces and missing strokes are the same code. */
const hashOf = (code: string): string =>
  createHash('sha256')
    .update(code.toUpperCase().replace(/[^0-9A-Z]/g, ''))
    .digest('hex')

type For = { name: string; email: string; role: Role; personId: string | null }

async function give(db: Queries, wanted: For, hours: number, now: Date): Promise<Given> {
  const code = newCode()
  const expiresAt = new Date(now.getTime() + hours * HOUR_ms)
  await db.insert(invitation).values({ id: uuid(), codeHash: hashOf(code), ...wanted, createdAt: now, expiresAt })
  return { code, expiresAt: expiresAt.toISOString() }
}

/** @throws Refused where somebody signs in by that address already */
export async function invite(db: Database, by: Member, wanted: Omit<For, 'personId'>, now: Date): Promise<Given> {
  const email = wanted.email.toLowerCase()
  const [known] = await db.select({ id: user.id }).from(user).where(eq(user.email, email))
  if (known) throw new Refused(409, 'door.email-known', { email })
  return db.transaction(async (tx) => {
    // A second code for the same address ends the first.
    await tx
      .update(invitation)
      .set({ endedAt: now })
      .where(and(eq(invitation.email, email), isNull(invitation.endedAt)))
    const given = await give(tx, { ...wanted, email, personId: null }, JOIN_HOURS, now)
    await writeAudit(tx, by.name, 'invited', { person: wanted.name, role: wanted.role })
    return given
  })
}

/** A code by which somebody sets a new password. The old one holds until it is used. */
export async function giveReset(db: Database, by: Member, personId: string, now: Date): Promise<Given> {
  const [found] = await db
    .select({ name: person.name, role: person.role, email: user.email, active: person.active })
    .from(person)
    .innerJoin(user, eq(user.id, person.userId))
    .where(eq(person.id, personId))
  if (!found) throw new Refused(404, 'door.not-found')
  if (!found.active) throw new Refused(409, 'door.person-disabled', { name: found.name })
  return db.transaction(async (tx) => {
    await tx
      .update(invitation)
      .set({ endedAt: now })
      .where(and(eq(invitation.personId, personId), isNull(invitation.endedAt)))
    const { name, email, role } = found
    const given = await give(tx, { name, email, role, personId }, RESET_HOURS, now)
    await writeAudit(tx, by.name, 'reset-given', { person: name })
    return given
  })
}

export async function withdraw(db: Database, by: Member, id: string, now: Date): Promise<void> {
  await db.transaction(async (tx) => {
    const [open] = await tx
      .select({ name: invitation.name })
      .from(invitation)
      .where(and(eq(invitation.id, id), isNull(invitation.endedAt)))
      .for('update')
    if (!open) return
    await tx.update(invitation).set({ endedAt: now }).where(eq(invitation.id, id))
    await writeAudit(tx, by.name, 'invitation-withdrawn', { person: open.name })
  })
}

/** Codes that can still be used. */
export async function pending(db: Queries, now: Date): Promise<Pending[]> {
  const rows = await db
    .select()
    .from(invitation)
    .where(and(isNull(invitation.endedAt), gt(invitation.expiresAt, now)))
    .orderBy(invitation.createdAt)
  return rows.map(({ id, name, email, role, personId, expiresAt }) => ({
    id,
    name,
    email,
    role,
    isReset: personId !== null,
    expiresAt: expiresAt.toISOString(),
  }))
}

type Row = typeof invitation.$inferSelect

async function opened(db: Queries, code: string, now: Date): Promise<Row | null> {
  const [row] = await db
    .select()
    .from(invitation)
    .where(and(eq(invitation.codeHash, hashOf(code)), isNull(invitation.endedAt), gt(invitation.expiresAt, now)))
    .for('update')
  return row ?? null
}

/** For whom a code is. @throws Refused where it is none, or no longer */
export async function lookAt(
  db: Queries,
  code: string,
  now: Date,
): Promise<{ name: string; email: string; isReset: boolean }> {
  const row = await opened(db, code, now)
  if (!row) throw new Refused(403, 'door.code-unknown')
  return { name: row.name, email: row.email, isReset: row.personId !== null }
}

/**
 * Uses a code, once: lets its person in, or sets their password anew and signs them out everywhere.
 * @returns the address they sign in by
 */
export async function useCode(db: Database, code: string, password: string, now: Date): Promise<string> {
  const { email } = await lookAt(db, code, now)
  const credentials = await hashPassword(password)
  try {
    return await db.transaction(async (tx) => {
      const row = await opened(tx, code, now)
      if (!row) throw new Refused(403, 'door.code-unknown')
      await tx.update(invitation).set({ endedAt: now }).where(eq(invitation.id, row.id))
      await (row.personId === null ? join(tx, row, credentials) : reset(tx, row, row.personId, credentials))
      return row.email
    })
  } catch (error) {
    if (errnoOf(error) === DUPLICATE_KEY) throw new Refused(409, 'door.email-known', { email })
    throw error
  }
}

async function join(tx: Queries, { name, email, role }: Row, credentials: string): Promise<void> {
  await addPersonIn(tx, { name, email, role }, credentials)
  await writeAudit(tx, name, 'joined', { role })
}

async function reset(tx: Queries, { name }: Row, personId: string, credentials: string): Promise<void> {
  const [found] = await tx
    .select({ userId: person.userId, active: person.active })
    .from(person)
    .where(eq(person.id, personId))
  if (!found?.active) throw new Refused(409, 'door.person-disabled', { name })
  await tx.update(account).set({ password: credentials, updatedAt: new Date() }).where(eq(account.userId, found.userId))
  await tx.delete(session).where(eq(session.userId, found.userId))
  await writeAudit(tx, name, 'password-reset')
}
