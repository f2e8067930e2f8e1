/** What state a data folder is in, and what to do about it: found without changing anything. */
import { createPrivateKey } from 'node:crypto'
import { existsSync } from 'node:fs'
import { readdir, readFile, statfs } from 'node:fs/promises'
import { basename } from 'node:path'
import mysql from 'mysql2/promise'
import { PassphraseAsked, readBackupFile } from '@/server/backup/backupFile'
import { countsOf, danglingRows } from '@/server/backup/rows'
import { openDatabase } from '@/server/db/client'
import { migrationState, NewerDatabase } from '@/server/db/migrate'
import { isCurrent, keyRecords } from '@/server/seal/companyKeys'
import { servedAt } from './application'
import { backupsIn } from './backups'
import { passphraseGiven } from './companyDatabase'
import { Databases, urlOf } from './databases'
import { databaseFolder, startMariadb } from './mariadb'
import { migrations, type Places } from './paths'
import { Stop } from './say'
import { isAnswering } from './serverProcess'
import { readSecrets, type Secrets } from './state'

/** `well`: nothing to do; `note`: worth knowing; `wrong`: something to do before all is well. */
export type Finding = { is: 'well' | 'note' | 'wrong'; text: string; todo?: string }

const well = (text: string): Finding => ({ is: 'well', text })
const note = (text: string, todo?: string): Finding => ({ is: 'note', text, todo })
const wrong = (text: string, todo: string): Finding => ({ is: 'wrong', text, todo })

const DAY_ms = 86_400_000
const OLD_BACKUP_days = 7
const LITTLE_bytes = 500 * 1024 * 1024

export async function findingsOf(places: Places): Promise<Finding[]> {
  if (!existsSync(places.data)) return [note(`There is no data folder ${places.data} yet.`, START)]
  return [
    await ofDisk(places),
    ...(await ofFolder(places)),
    ...(await ofSecrets(places)),
    ...(await ofDatabases(places)),
    ...(await ofBackups(places)),
  ]
}

const START = './upstand start makes what is needed.'
const RESTORE = './upstand restore FILE puts a backup back.'

async function ofDisk(places: Places): Promise<Finding> {
  const { bavail, bsize } = await statfs(places.data)
  const free = `${Math.round((bavail * bsize) / 1024 / 1024)} MB free on the disk of ${places.data}.`
  return bavail * bsize < LITTLE_bytes ? wrong(free, 'Make room: 500 MB are needed to start.') : well(free)
}

async function ofFolder(places: Places): Promise<Finding[]> {
  const aside = (await readdir(places.data)).filter((name) => name.includes('.set-aside-'))
  const found = aside.map((name) => note(`${name} was set aside and is in no use.`, 'Look into it, then move it away.'))
  switch (databaseFolder(places)) {
    case 'none':
      return [...found, note('There is no database folder yet.', START)]
    case 'half-made':
      return [...found, note('The database folder was half made.', './upstand start sets it aside and makes another.')]
    case 'broken':
      return [
        ...found,
        wrong(
          'The database folder holds tables but not what the server needs beside them.',
          'Put the whole folder back as it was, or move it away and restore a backup.',
        ),
      ]
    case 'whole':
      return [...found, well('The database folder is whole.')]
  }
}

async function ofSecrets(places: Places): Promise<Finding[]> {
  if (databaseFolder(places) !== 'whole') return []
  const found: Finding[] = []
  if (!existsSync(places.secrets))
    found.push(wrong('secrets.json is lost.', `${START} Everybody signs in again, and the demo is as it was.`))
  if (!existsSync(places.sealKey))
    found.push(
      wrong(
        'The key that seals is lost.',
        'Put seal-key.pem back from where you keep it, or from a backup; where it is gone: ./upstand seal-key new --lost',
      ),
    )
  return found
}

async function ofDatabases(places: Places): Promise<Finding[]> {
  if (databaseFolder(places) !== 'whole') return []
  const secrets = await readSecrets(places)
  if (!secrets) return []
  const served = await servedAt(places)
  const found = [
    served ? well(`Upstand runs: it is at ${served}.`) : note('Upstand does not run.', './upstand start starts it.'),
  ]
  if (!served && (await isAnswering(places, secrets)))
    found.push(note('Its database server runs without it: a start was killed.', './upstand start takes it over.'))
  try {
    const server = await startMariadb(places, secrets)
    try {
      found.push(...(await Databases.use(places, server, secrets, (all) => ofEach(all, places, server, secrets))))
    } finally {
      if (server.startedHere) await server.stop()
    }
  } catch (error) {
    if (!(error instanceof Stop)) throw error
    found.push(wrong(error.message, RESTORE))
  }
  return found
}

async function ofEach(all: Databases, places: Places, server: { port: number }, secrets: Secrets): Promise<Finding[]> {
  const known = await all.known()
  const found = known
    .filter((one) => one.setAside)
    .map((one) => note(`The database ${one.name} was in use until ${one.setAside!.toISOString()} and is kept.`))
  const half = known.filter((one) => !one.since && !one.setAside).length
  if (half > 0) found.push(note('A command was ended half way.', './upstand start clears away what it had half made.'))
  const current = await all.current()
  if (current === null) return [...found, note('No company was made yet.', START)]
  const adminUrl = urlOf(server, secrets, 'owner', current)
  try {
    const state = await migrationState(adminUrl, migrations)
    if (state === 'empty') return [...found, wrong(`The database ${current} is not one of Upstand.`, RESTORE)]
    if (state === 'behind')
      return [
        ...found,
        note('The database is of an older version.', './upstand start backs it up and brings it up to date.'),
      ]
    return [...found, ...(await ofCompany(adminUrl, places))]
  } catch (error) {
    if (!(error instanceof NewerDatabase)) throw error
    return [...found, wrong(error.message, 'Start the newer version, or restore an older backup.')]
  }
}

async function ofCompany(adminUrl: string, places: Places): Promise<Finding[]> {
  const connection = await mysql.createConnection(adminUrl)
  const found: Finding[] = []
  try {
    const counts = await countsOf(connection)
    const { job = 0, entry = 0, seal = 0, person = 0 } = counts
    found.push(
      counts.company
        ? well(`The company's database is whole: ${job} jobs, ${entry} entries, ${seal} seals, ${person} people.`)
        : note('The tables are there and empty.', './upstand start fills in what every company needs.'),
    )
    for (const text of await danglingRows(connection))
      found.push(wrong(`Rows do not hold together: ${text}.`, `${RESTORE} Keep this one too.`))
  } finally {
    await connection.end()
  }
  return [...found, ...(await ofSealKey(adminUrl, places))]
}

async function ofSealKey(adminUrl: string, places: Places): Promise<Finding[]> {
  if (!existsSync(places.sealKey)) return []
  const db = openDatabase(adminUrl, 1)
  try {
    const keys = await keyRecords(db)
    const own = createPrivateKey(await readFile(places.sealKey))
    if (keys.length === 0 || isCurrent(own, keys)) return [well('The key that seals is the company’s own.')]
    return [
      wrong(
        'seal-key.pem is not the key that the company signs with: nothing can be sealed.',
        'Put that key back; where it is lost for good: ./upstand seal-key new --lost',
      ),
    ]
  } finally {
    await db.close()
  }
}

async function ofBackups(places: Places): Promise<Finding[]> {
  const backups = (await backupsIn(places)).filter((one) => !one.file.endsWith('.sql'))
  const newest = backups[0]
  if (!newest) return [note('There is no backup.', './upstand backup writes one, also while Upstand runs.')]
  const named = `The newest of ${backups.length} backups is ${basename(newest.file)}`
  try {
    await readBackupFile(newest.file, passphraseGiven())
  } catch (error) {
    if (!(error instanceof PassphraseAsked))
      return [wrong(`${named}, and it is not whole.`, 'Write another: ./upstand backup')]
    return [note(`${named}; it is encrypted, so it was not read.`, 'Set UPSTAND_BACKUP_PASSPHRASE to have it read.')]
  }
  const days = Math.floor((Date.now() - newest.at.getTime()) / DAY_ms)
  if (days > OLD_BACKUP_days) return [note(`${named}: ${days} days old.`, './upstand backup writes another.')]
  return [well(`${named}, and it is whole.`)]
}
