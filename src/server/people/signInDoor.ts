/**
 * What stands before the sign-in library: guessing is slowed by account and by address, and nobody is locked out by
 * somebody else. A device on which somebody signed in before carries a mark and has a count of its own; all others share
 * one for each account and address. A password that is right ends the count.
 */
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto'
import { eq, inArray, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import { type Database, database } from '../db/client'
import { person, rateLimit, session, user } from '../db/schema'
import { problem } from '../door'
import { env } from '../env'
import { writeAudit } from './audit'
import { auth } from './auth'
import { whoAsks } from './whoAsks'

const MINUTE_ms = 60_000
const WINDOW_MINUTES = 15
/** Wrong passwords of one account from one place within the window, before it has to wait. */
const MOST_WRONG = 10
/** From so many wrong passwords on, of one account or from one address, each answer takes longer, ms. */
const SLOW_FROM = 10
const SLOWER_BY_ms = 100
const SLOWEST_ms = 3000
const HERE = 'here'
const MARK = 'upstand-known'
const MARK_LASTS_s = 60 * 60 * 24 * 365

const bodySchema = z.object({ email: z.string().max(200), password: z.string().max(200) })
const short = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 24)

/**
 * The address that asks. Behind a proxy it is the last that the proxy wrote down, for whatever stands before it may be
 * invented by whoever asks; without one everybody is on this machine.
 */
function addressOf(request: Request): string {
  if (!env().UPSTAND_URL) return HERE
  return request.headers.get('x-forwarded-for')?.split(',').at(-1)?.trim() ?? 'unknown'
}

const signed = (email: string, nonce: string): string =>
  createHmac('sha256', env().UPSTAND_SECRET).update(`known device ${email} ${nonce}`).digest('base64url')

/** The mark of a device on which this account signed in before, null where it has none. */
function markOf(request: Request, email: string): string | null {
  for (const one of (request.headers.get('cookie') ?? '').split(/;\s*/)) {
    if (!one.startsWith(`${MARK}=`)) continue
    const [nonce = '', signature = ''] = one.slice(MARK.length + 1).split('.')
    const [given, wanted] = [Buffer.from(signature), Buffer.from(signed(email, nonce))]
    if (given.length === wanted.length && timingSafeEqual(given, wanted)) return nonce
  }
  return null
}

/** Counts a try under each of these keys before it is made, so that many at one moment are counted too; how many there are now. */
async function counted(db: Database, keys: readonly string[]): Promise<number[]> {
  const now = Date.now()
  const isOver = sql`${rateLimit.lastRequest} < ${now - WINDOW_MINUTES * MINUTE_ms}`
  await db
    .insert(rateLimit)
    .values(keys.map((key) => ({ id: uuid(), key, count: 1, lastRequest: now })))
    .onDuplicateKeyUpdate({
      set: {
        count: sql`IF(${isOver}, 1, ${rateLimit.count} + 1)`,
        lastRequest: sql`IF(${isOver}, ${now}, ${rateLimit.lastRequest})`,
      },
    })
  const rows = await db
    .select({ key: rateLimit.key, count: rateLimit.count })
    .from(rateLimit)
    .where(inArray(rateLimit.key, [...keys]))
  const counts = new Map(rows.map((row) => [row.key, row.count]))
  return keys.map((key) => counts.get(key) ?? 0)
}

/** Signs in by e-mail and password. */
export async function signInDoor(request: Request): Promise<Response> {
  const body = bodySchema.safeParse(
    await request
      .clone()
      .json()
      .catch(() => null),
  )
  // The library has a sentence for what is no sign-in at all.
  if (!body.success) return auth().handler(request)
  const db = database()
  const email = body.data.email.trim().toLowerCase()
  const account = short(email)
  const address = addressOf(request)
  const mark = markOf(request, email)
  const own = `sign-in ${account} ${mark ?? short(address)}`
  // Without a proxy everybody is on this machine, and an address tells nobody from another.
  const shared = [`sign-in ${account}`, ...(address === HERE ? [] : [`sign-in from ${short(address)}`])]
  const [tries = 0, ...others] = await counted(db, [own, ...shared])
  if (tries > MOST_WRONG) return problem(429, 'door.sign-in-slow', { minutes: WINDOW_MINUTES })
  const slow = mark ? 0 : Math.max(...others) - SLOW_FROM
  if (slow > 0) await new Promise((resolve) => setTimeout(resolve, Math.min(SLOWEST_ms, slow * SLOWER_BY_ms)))
  const answer = await auth().handler(request)
  if (!answer.ok) return answer
  await db.delete(rateLimit).where(inArray(rateLimit.key, [own, `sign-in ${account}`]))
  const who = await personOf(db, email)
  if (who && !who.active) {
    await db.delete(session).where(eq(session.userId, who.userId))
    return problem(403, 'door.person-disabled', { name: who.name })
  }
  if (who) await writeAudit(db, who.name, 'signed-in', { what: deviceOf(request) })
  return mark ? answer : marked(answer, email)
}

async function personOf(db: Database, email: string) {
  const [row] = await db
    .select({ name: person.name, active: person.active, userId: person.userId })
    .from(person)
    .innerJoin(user, eq(user.id, person.userId))
    .where(eq(user.email, email))
  return row ?? null
}

const deviceOf = (request: Request): string => (request.headers.get('user-agent') ?? '').slice(0, 200)

/** Does what wants a one-time code. Who names wrong ones waits longer each time; nobody else does. */
export async function refuseGuesses<T>(request: Request, work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    const address = addressOf(request)
    const [wrong = 0] = await counted(database(), [`code from ${short(address)}`])
    const slow = Math.max(0, wrong - SLOW_FROM) * SLOWER_BY_ms
    await new Promise((resolve) => setTimeout(resolve, Math.min(SLOWEST_ms, slow)))
    throw error
  }
}

/** The answer with a mark for this device, so that nobody else's guesses count against it. */
function marked(answer: Response, email: string): Response {
  const nonce = randomBytes(12).toString('base64url')
  const secure = env().UPSTAND_URL?.startsWith('https:') ? '; Secure' : ''
  const cookie = `${MARK}=${nonce}.${signed(email, nonce)}; Path=/api/auth; HttpOnly; SameSite=Lax; Max-Age=${MARK_LASTS_s}${secure}`
  const headers = new Headers(answer.headers)
  headers.append('set-cookie', cookie)
  return new Response(answer.body, { status: answer.status, headers })
}

/** A new password ends every other session of its owner, whatever the page asks for. */
export async function changePasswordDoor(request: Request): Promise<Response> {
  const body: unknown = await request.json().catch(() => null)
  const isObject = typeof body === 'object' && body !== null
  const asker = await whoAsks(database(), request, '')
  const answer = await auth().handler(
    new Request(request.url, {
      method: 'POST',
      headers: request.headers,
      body: JSON.stringify(isObject ? { ...body, revokeOtherSessions: true } : body),
    }),
  )
  if (answer.ok && asker) await writeAudit(database(), asker.member.name, 'password-changed')
  return answer
}
