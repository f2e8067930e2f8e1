/** Backups, and what puts them back. */
import { existsSync } from 'node:fs'
import { openDatabases } from './lib/instance'
import { servedAt } from './lib/application'
import { asked } from './lib/ask'
import { type Restored, writeBackup } from './lib/backups'
import { passphraseGiven, restoreBackup } from './lib/companyDatabase'
import { alone } from './lib/folderLock'
import { startMariadb } from './lib/mariadb'
import { fromDump, isDump } from './lib/oldDump'
import { ensureMariadb } from './lib/packages'
import { ownPlaces } from './lib/paths'
import { Stop, say, step } from './lib/say'
import { ensureSecrets, prepareData } from './lib/state'
import { PassphraseAsked, readBackupFile } from '@/server/backup/backupFile'

export function withDatabases<T>(
  work: (databases: Awaited<ReturnType<typeof openDatabases>>) => Promise<T>,
): Promise<T> {
  return alone(ownPlaces, async () => {
    const databases = await openDatabases(ownPlaces)
    try {
      return await work(databases)
    } finally {
      // Who did not start it does not stop it: somebody works on it.
      if (databases.own?.startedHere) await databases.own.stop()
    }
  })
}

const NOT_PRIVATE =
  'This works on the private database only. DATABASE_URL names another server: use its own tools for whole backups.'

const SHORTEST_PASSPHRASE = 12

async function passphraseFor(encrypt: boolean): Promise<string | null> {
  const given = passphraseGiven()
  if (!encrypt && given === null) return null
  const [passphrase = '', again] =
    given === null
      ? await asked([
          { text: 'Passphrase: ', hidden: true },
          { text: 'Once more: ', hidden: true },
        ])
      : [given, given]
  if (passphrase !== again) throw new Stop('The two are not alike. Nothing was written.')
  if (passphrase.length < SHORTEST_PASSPHRASE)
    throw new Stop(`A passphrase needs ${SHORTEST_PASSPHRASE} characters or more. Nothing was written.`)
  return passphrase
}

export async function backup(options: { encrypt: boolean }): Promise<number> {
  if (process.env.DATABASE_URL) throw new Stop(NOT_PRIVATE)
  const passphrase = await passphraseFor(options.encrypt)
  return withDatabases(async ({ adminUrl, secrets }) => {
    const { file, rows } = await writeBackup(ownPlaces, adminUrl, secrets, 'asked', passphrase)
    say(`Backup written: ${file}`)
    say(
      `It holds ${told(rows)}, and the key that seals${passphrase === null ? ': keep it where only you read it' : ''}.`,
    )
    return 0
  })
}

const told = (rows: Readonly<Record<string, number>>): string =>
  `${rows.job ?? 0} jobs, ${rows.entry ?? 0} entries, ${rows.attachment ?? 0} photos, ${rows.seal ?? 0} seals, ${rows.person ?? 0} people`

/** The passphrase of a file, asked for where the file wants one and none was given. */
async function passphraseOf(file: string): Promise<string | null> {
  const given = passphraseGiven()
  try {
    await readBackupFile(file, given)
    return given
  } catch (error) {
    if (!(error instanceof PassphraseAsked)) return given
    return (await asked([{ text: 'Passphrase of the backup: ', hidden: true }]))[0]!
  }
}

export async function restore(file: string | undefined, options: { trial: boolean }): Promise<number> {
  if (process.env.DATABASE_URL) throw new Stop(NOT_PRIVATE)
  if (!file || !existsSync(file)) throw new Stop(`Name the backup to put back; they stand in ${ownPlaces.backups}.`)
  const passphrase = isDump(file) ? null : await passphraseOf(file)
  return alone(ownPlaces, async () => {
    const served = await servedAt(ownPlaces)
    if (served && !options.trial) throw new Stop(`Upstand runs at ${served}. Stop it first (Ctrl-C), then restore.`)
    await ensureMariadb()
    await prepareData(ownPlaces)
    const secrets = await ensureSecrets(ownPlaces)
    const server = await startMariadb(ownPlaces, secrets)
    try {
      const from = isDump(file) ? await fromDump(ownPlaces, server, secrets, file) : file
      const restored = await step(options.trial ? 'Trying the backup' : 'Putting the backup back', () =>
        restoreBackup(ownPlaces, server, secrets, from, passphrase, !options.trial),
      )
      report(restored, options.trial)
      return restored.brokenSeals.length > 0 ? 1 : 0
    } finally {
      if (server.startedHere) await server.stop()
    }
  })
}

function report({ contents, seals, brokenSeals }: Restored, isTrial: boolean): void {
  const { written } = contents.head
  say(
    isTrial
      ? `The backup of ${written} can be put back: ${told(contents.rows)}. Nothing was changed.`
      : `What stands now is the backup of ${written}: ${told(contents.rows)}. Everybody signs in again.`,
  )
  if (!isTrial) {
    say('What was there before is kept beside it in the database server, and in no use.')
    say(
      'Who may come in, passwords, and keys to the feed are as they were then: look at Office, People and Instruments.',
    )
  }
  say(
    brokenSeals.length === 0
      ? seals === 1
        ? 'Its seal holds.'
        : `All ${seals} seals hold.`
      : `Of ${seals} seals some do not hold, in jobs ${brokenSeals.join(', ')}: open the record there to see why.`,
  )
}
