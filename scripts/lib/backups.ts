/** Backups of the private database: written while it runs, tried before they are trusted. */
import { createPrivateKey, type KeyObject } from 'node:crypto'
import { existsSync } from 'node:fs'
import { readdir, readFile, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import {
  type BackupContents,
  type BackupSecrets,
  readBackupFile,
  type RowCounts,
  UnusableBackup,
  writeBackupFile,
} from '@/server/backup/backupFile'
import { countsOf, danglingRows, Filler, linesOf } from '@/server/backup/rows'
import { openDatabase } from '@/server/db/client'
import { migratedUpTo, migrateDatabase, migrationsUpTo, NewerDatabase } from '@/server/db/migrate'
import { job } from '@/server/db/schema'
import { verifyJob } from '@/server/seal/verifyJob'
import { type Databases, type FreshDatabase, stamp } from './databases'
import { migrations, type Places } from './paths'
import { Stop } from './say'
import type { Secrets } from './state'

/** What signs people in anew is not put back: a session that was ended after the backup stays ended. */
export const SIGNED_IN = ['session', 'verification', 'rate_limit']

/** What is made from the rest whenever it is wanted. */
const MADE_AGAIN = ['printed']

export type BackupReason = 'asked' | 'scheduled' | 'before-upgrade' | 'before-restore'

/** Writes all that a company has into one file, as it stands at this moment, and gives the file's path. */
export async function writeBackup(
  places: Places,
  adminUrl: string,
  secrets: Secrets,
  reason: BackupReason,
  passphrase: string | null,
): Promise<{ file: string; rows: RowCounts }> {
  const connection = await mysql.createConnection({ uri: adminUrl, timezone: 'Z', charset: 'utf8mb4' })
  try {
    const migrated_ms = await migratedUpTo(connection)
    if (migrated_ms === null) throw new Stop('There is no database of Upstand here yet: nothing to back up.')
    const file = join(places.backups, `upstand-${stamp()}-${reason}.jsonl.gz${passphrase === null ? '' : '.enc'}`)
    const own: BackupSecrets = { secret: secrets.secret, sealKey: await readFile(places.sealKey, 'utf8') }
    const head = { upstandBackup: 1 as const, written: new Date().toISOString(), migrated_ms }
    const rows = await writeBackupFile(file, head, own, linesOf(connection, MADE_AGAIN), passphrase)
    return { file, rows }
  } finally {
    await connection.end()
  }
}

export type BackupFound = { file: string; bytes: number; at: Date; reason: string }

/** The backups of this folder, the newest first. */
export async function backupsIn(places: Places): Promise<BackupFound[]> {
  if (!existsSync(places.backups)) return []
  const found: BackupFound[] = []
  for (const name of await readdir(places.backups)) {
    const reason = /^upstand-.*?(?:-([a-z-]+))?\.(?:jsonl\.gz(?:\.enc)?|sql)$/.exec(name)
    if (!reason) continue
    const { size, mtime } = await stat(join(places.backups, name))
    found.push({ file: join(places.backups, name), bytes: size, at: mtime, reason: reason[1] ?? 'asked' })
  }
  return found.sort((a, b) => b.at.getTime() - a.at.getTime())
}

/** Removes the oldest of the scheduled backups; those that somebody asked for stay. */
export async function keepNewest(places: Places, count: number): Promise<void> {
  const scheduled = (await backupsIn(places)).filter((one) => one.reason === 'scheduled')
  for (const { file } of scheduled.slice(count)) await rm(file)
}

export type Restored = { contents: BackupContents; seals: number; brokenSeals: string[] }

/**
 * Fills a fresh database from a backup, brings it to this version, and holds it against what the backup says of itself:
 * rows of each table, rows that name others, seals.
 * @throws UnusableBackup, NewerDatabase
 */
export async function fillFrom(
  file: string,
  passphrase: string | null,
  databases: Databases,
  fresh: FreshDatabase,
  without: readonly string[],
): Promise<Restored> {
  const contents = await filled(file, passphrase, databases, fresh, without)
  await migrateDatabase(fresh.adminUrl, migrations)
  const connection = await mysql.createConnection({ uri: fresh.adminUrl, timezone: 'Z' })
  try {
    const dangling = await danglingRows(connection)
    if (dangling.length > 0) throw new UnusableBackup(`The backup does not hold together: ${dangling.join('; ')}.`)
  } finally {
    await connection.end()
  }
  return { contents, ...(await sealsOf(fresh.adminUrl, createPrivateKey(contents.secrets.sealKey))) }
}

/** The rows of a backup in tables as they were when it was written. */
async function filled(
  file: string,
  passphrase: string | null,
  databases: Databases,
  fresh: FreshDatabase,
  without: readonly string[],
): Promise<BackupContents> {
  return databases.filling(fresh.name, async (connection) => {
    const filler = new Filler(connection, without)
    const contents = await readBackupFile(
      file,
      passphrase,
      (line) => filler.take(line),
      async ({ migrated_ms }) => {
        const part = await migrationsUpTo(migrations, migrated_ms)
        await migrateDatabase(fresh.adminUrl, part)
        await rm(part, { recursive: true })
        await filler.begin()
      },
    )
    await filler.end()
    if ((contents.rows.company ?? 0) === 0) throw new UnusableBackup('This backup holds no company: it is empty.')
    const there = await countsOf(connection)
    for (const [table, rows] of Object.entries(contents.rows))
      if (!without.includes(table) && there[table] !== rows)
        throw new UnusableBackup(`Of ${rows} rows of ${table} only ${there[table] ?? 0} could be put back.`)
    return contents
  })
}

/** How many seals there are, and the numbers of jobs with one that does not hold. */
async function sealsOf(adminUrl: string, ownKey: KeyObject): Promise<Pick<Restored, 'seals' | 'brokenSeals'>> {
  const db = openDatabase(adminUrl, 2)
  const brokenSeals: string[] = []
  let seals = 0
  try {
    for (const { id, number } of await db.select({ id: job.id, number: job.number }).from(job)) {
      const check = await verifyJob(db, id, async () => ownKey)
      seals += check.issues.length
      if (check.problems.length > 0 || check.issues.some((one) => !one.whole)) brokenSeals.push(number)
    }
  } finally {
    await db.close()
  }
  return { seals, brokenSeals }
}

/** What a person is told of a backup that cannot be put back. */
export function asStop(error: unknown): unknown {
  if (error instanceof NewerDatabase)
    return new Stop('This backup was written by a newer version of Upstand. Put it back with that version.')
  return error instanceof UnusableBackup ? new Stop(error.message) : error
}
