/** Keys under which instruments send to the feed. Only their hashes are kept. */
import { createHash, randomBytes } from 'node:crypto'
import { and, eq, isNull } from 'drizzle-orm'
import type { Instrument } from '@/core/record/instrument'
import type { Queries } from '../db/client'
import { instrument, instrumentToken } from '../db/schema'
import { Refused } from '../door'

const KEY_bytes = 24

const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex')

/** A new key of one instrument, beside those it has. */
export async function issueToken(db: Queries, instrumentId: string, now: Date): Promise<string> {
  const token = randomBytes(KEY_bytes).toString('base64url')
  await db.insert(instrumentToken).values({ tokenHash: hashToken(token), instrumentId, createdAt: now })
  return token
}

/**
 * Voids every key of an instrument and gives it a new one where wanted.
 *
 * @returns the new key, which is kept nowhere; null where none was wanted.
 * @throws Refused where the instrument is not in the kit, or simulated: those send by themselves.
 */
export async function changeKey(db: Queries, id: string, give: boolean, now: Date): Promise<string | null> {
  const tool = await inKit(db, id)
  if (tool.standIn) throw new Refused(409, 'door.standin-key')
  await voidKeys(db, id, now)
  return give ? issueToken(db, id, now) : null
}

async function inKit(db: Queries, id: string): Promise<{ standIn: boolean }> {
  const [tool] = await db
    .select({ standIn: instrument.standIn })
    .from(instrument)
    .where(and(eq(instrument.id, id), eq(instrument.retired, false)))
    .for('update')
  if (!tool) throw new Refused(404, 'door.no-instrument')
  return tool
}

/** The number under which the kit knows an instrument. */
export async function tagOf(db: Queries, id: string): Promise<string> {
  const [row] = await db.select({ data: instrument.data }).from(instrument).where(eq(instrument.id, id))
  return row?.data.tag ?? ''
}

async function voidKeys(db: Queries, id: string, now: Date): Promise<void> {
  await db
    .update(instrumentToken)
    .set({ revokedAt: now })
    .where(and(eq(instrumentToken.instrumentId, id), isNull(instrumentToken.revokedAt)))
}

/** Takes an instrument out of the kit: no job hears it any more and its keys are void. */
export async function retire(db: Queries, id: string, now: Date): Promise<void> {
  await inKit(db, id)
  await voidKeys(db, id, now)
  await db.update(instrument).set({ retired: true, pairedJobId: null }).where(eq(instrument.id, id))
}

/** The instrument of a token. @throws Refused where the token is unknown or void, or its instrument retired. */
export async function instrumentByToken(db: Queries, token: string): Promise<Instrument> {
  const [row] = await db
    .select({ data: instrument.data })
    .from(instrumentToken)
    .innerJoin(instrument, eq(instrument.id, instrumentToken.instrumentId))
    .where(
      and(
        eq(instrumentToken.tokenHash, hashToken(token)),
        isNull(instrumentToken.revokedAt),
        eq(instrument.retired, false),
      ),
    )
  if (!row) throw new Refused(401, 'door.feed-token')
  return row.data
}
