/** The company's signing keys: the private one in a file outside the database, the public ones as rows that nobody changes. */
import { createPrivateKey, type KeyObject } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { asc } from 'drizzle-orm'
import { DUPLICATE_KEY, errnoOf, type Queries } from '../db/client'
import { sealKey } from '../db/schema'
import { keyRecord, type KeyRecord, publicKeyOf } from './keyChain'

export const keyIn = (file: string): Promise<KeyObject> => readFile(file).then(createPrivateKey)

/** Oldest first. */
export async function keyRecords(db: Queries): Promise<KeyRecord[]> {
  const rows = await db.select().from(sealKey).orderBy(asc(sealKey.number))
  return rows.map(({ since, ...row }) => ({ ...row, since: since.toISOString() }))
}

async function add(db: Queries, record: KeyRecord): Promise<void> {
  await db.insert(sealKey).values({ ...record, since: new Date(record.since) })
}

/** The company's keys, with the first one written down where there are none yet. */
export async function knownKeys(db: Queries, key: KeyObject, now: Date): Promise<KeyRecord[]> {
  const keys = await keyRecords(db)
  if (keys.length > 0) return keys
  try {
    await add(db, keyRecord(key, now.toISOString(), undefined, null))
  } catch (error) {
    // Another process was quicker.
    if (errnoOf(error) !== DUPLICATE_KEY) throw error
  }
  return keyRecords(db)
}

/** Whether a private key is the one that the company signs with now. */
export const isCurrent = (key: KeyObject, keys: readonly KeyRecord[]): boolean =>
  keys.at(-1)?.publicKey === publicKeyOf(key)

/**
 * A new key follows the last one. @param old private key of the last, which vouches for the new; null where it was lost.
 *
 * @throws Error where `old` is not the last key.
 */
export async function rotateTo(db: Queries, key: KeyObject, old: KeyObject | null, now: Date): Promise<KeyRecord> {
  const keys = old ? await knownKeys(db, old, now) : await keyRecords(db)
  if (old && !isCurrent(old, keys)) throw new Error('rotateTo: expected the company’s last key, got another one')
  const record = keyRecord(key, now.toISOString(), keys.at(-1), old)
  await add(db, record)
  return record
}
