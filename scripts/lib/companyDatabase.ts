/** Opens the company's database of the private server: made, brought up to date, or as it is. */
import { existsSync } from 'node:fs'
import { readdir, readFile, rm } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { type BackupSecrets, readBackupFile } from '@/server/backup/backupFile'
import { isNull } from 'drizzle-orm'
import { openDatabase } from '@/server/db/client'
import { migrateDatabase, migrationState } from '@/server/db/migrate'
import { invitation } from '@/server/db/schema'
import { writeAudit } from '@/server/people/audit'
import { asStop, fillFrom, type Restored, SIGNED_IN, writeBackup } from './backups'
import { Databases, stamp, urlOf } from './databases'
import type { Mariadb } from './mariadb'
import { migrations, type Places } from './paths'
import { Stop, say, step } from './say'
import { ensureSecrets, type Secrets, writeWhole } from './state'

export const passphraseGiven = (): string | null => process.env.UPSTAND_BACKUP_PASSPHRASE || null

/** The name of the company's database, which is of this version when this returns. */
export function companyDatabase(places: Places, server: Mariadb, secrets: Secrets): Promise<string> {
  return Databases.use(places, server, secrets, async (databases) => {
    const half = await databases.clearHalfMade()
    if (half > 0) say('What a command that was ended had half made was cleared away; nothing was lost.')
    const current = await databases.current()
    await settleSecrets(places, current)
    if (current === null) return firstOne(databases)
    const adminUrl = urlOf(server, secrets, 'owner', current)
    const state = await migrationState(adminUrl, migrations)
    if (state === 'empty')
      throw new Stop(`The database ${current} is not one of Upstand. Restore a backup: ./upstand restore FILE`)
    if (state === 'behind') return upgraded(places, databases, adminUrl, secrets)
    if (server.startedHere) await databases.letIn(current)
    return current
  })
}

async function firstOne(databases: Databases): Promise<string> {
  const making = () => databases.inFresh(({ adminUrl }) => migrateDatabase(adminUrl, migrations), true)
  return (await step('Making the tables (once)', making)).name
}

async function upgraded(places: Places, databases: Databases, adminUrl: string, secrets: Secrets): Promise<string> {
  const { file } = await step('Backing up before the database is brought up to date', () =>
    writeBackup(places, adminUrl, secrets, 'before-upgrade', passphraseGiven()),
  )
  const making = () =>
    databases
      .inFresh((fresh) => fillFrom(file, passphraseGiven(), databases, fresh, []), true)
      .catch((error) => {
        throw asStop(error)
      })
  const { name } = await step('Bringing the database up to date', making)
  return name
}

/** The secrets that belong to a database which is not yet in use. */
const incoming = (places: Places, name: string): string => join(places.data, `incoming-${name}.json`)

/**
 * Puts a backup into a fresh database, which takes the place of the present one only when it is whole.
 * @param keep false for a trial: all is done and checked, and nothing is changed
 * @throws Stop with the sentence why it cannot be put back
 */
export async function restoreBackup(
  places: Places,
  server: Mariadb,
  secrets: Secrets,
  file: string,
  passphrase: string | null,
  keep: boolean,
): Promise<Restored> {
  return Databases.use(places, server, secrets, async (databases) => {
    try {
      // The whole file is read once before anything is made: a file cut short stops here.
      await readBackupFile(file, passphrase)
      await databases.clearHalfMade()
      const { name, made } = await databases.inFresh(async (fresh) => {
        const restored = await fillFrom(file, passphrase, databases, fresh, SIGNED_IN)
        if (keep) await noteRestored(fresh.adminUrl, restored.contents.head.written)
        if (keep) await writeWhole(incoming(places, fresh.name), JSON.stringify(restored.contents.secrets))
        return restored
      }, keep)
      if (keep) await settleSecrets(places, name)
      return made
    } catch (error) {
      throw asStop(error)
    }
  })
}

/** Writes down that it was restored; codes that waited then are worth nothing now, for they may have been used since. */
async function noteRestored(adminUrl: string, written: string): Promise<void> {
  const db = openDatabase(adminUrl, 1)
  await db.update(invitation).set({ endedAt: new Date() }).where(isNull(invitation.endedAt))
  await writeAudit(db, null, 'restored', { what: written })
  await db.close()
}

/** Gives the database in use its own secrets; those of one that never came into use go. */
async function settleSecrets(places: Places, current: string | null): Promise<void> {
  for (const entry of await readdir(places.data)) {
    if (!/^incoming-.*\.json$/.test(entry)) continue
    const file = join(places.data, entry)
    if (current !== null && entry === basename(incoming(places, current))) {
      await takeSecrets(places, JSON.parse(await readFile(file, 'utf8')) as BackupSecrets)
    }
    await rm(file)
  }
}

async function takeSecrets(places: Places, taken: BackupSecrets): Promise<void> {
  const own = await ensureSecrets(places)
  if (existsSync(places.sealKey) && (await readFile(places.sealKey, 'utf8')) !== taken.sealKey) {
    const aside = `${places.sealKey}.set-aside-${stamp()}`
    await writeWhole(aside, await readFile(places.sealKey, 'utf8'))
    say(`The key that sealed until now was kept as ${aside}`)
  }
  await writeWhole(places.sealKey, taken.sealKey)
  await writeWhole(places.secrets, JSON.stringify({ ...own, secret: taken.secret }, null, 2))
}
