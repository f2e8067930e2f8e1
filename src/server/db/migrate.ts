/** Brings a database to this code's version, as its owner; one migrator at a time. */
import { copyFile, mkdir, mkdtemp, readFile, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import mysql from 'mysql2/promise'

const LOCK_SECONDS = 60

export class NewerDatabase extends Error {
  constructor() {
    super('This database was written by a newer version of Upstand. Start that version, or restore an older backup.')
  }
}

type Journal = { entries: { when: number; tag: string }[] }

async function journalIn(folder: string): Promise<Journal> {
  return JSON.parse(await readFile(join(folder, 'meta/_journal.json'), 'utf8')) as Journal
}

/** When the newest migration was made that a database holds, ms since 1970; null where none was run. */
export async function migratedUpTo(connection: mysql.Connection): Promise<number | null> {
  const [tables] = await connection.query("SHOW TABLES LIKE '__drizzle_migrations'")
  if ((tables as unknown[]).length === 0) return null
  const [rows] = await connection.query('SELECT MAX(created_at) AS held FROM `__drizzle_migrations`')
  const held = (rows as { held: string | number | null }[])[0]?.held ?? null
  return held === null ? null : Number(held)
}

export type MigrationState = 'empty' | 'behind' | 'current'

/** @throws NewerDatabase where the database is ahead of the code. */
export async function migrationState(adminUrl: string, folder: string): Promise<MigrationState> {
  const connection = await mysql.createConnection(adminUrl)
  try {
    const known = Math.max(...(await journalIn(folder)).entries.map((one) => one.when))
    const held = await migratedUpTo(connection)
    if (held === null) return 'empty'
    if (held > known) throw new NewerDatabase()
    return held < known ? 'behind' : 'current'
  } finally {
    await connection.end()
  }
}

export async function migrateDatabase(adminUrl: string, folder: string): Promise<void> {
  const connection = await mysql.createConnection({ uri: adminUrl, timezone: 'Z', multipleStatements: false })
  try {
    const [locked] = await connection.query('SELECT GET_LOCK(CONCAT(DATABASE(), ".migrate"), ?) AS got', [LOCK_SECONDS])
    if ((locked as { got: number }[])[0]?.got !== 1) throw new Error('another process is migrating this database')
    await migrate(drizzle({ client: connection }), { migrationsFolder: folder })
    await connection.query('SELECT RELEASE_LOCK(CONCAT(DATABASE(), ".migrate"))')
  } finally {
    await connection.end()
  }
}

/**
 * What the application's own user may do: add to what is append-only, change what changes, and remove only what is of no
 * record: who works on a job, live samples, sessions.
 */
const APPEND_ONLY = ['entry', 'seal', 'seal_key', 'regime', 'attachment', 'audit', 'source_check']
const CHANGEABLE = [
  'company',
  'person',
  'job',
  'visit',
  'part',
  'instrument',
  'instrument_token',
  'invitation',
  'module_type',
  'charge_point_model',
  'user',
  'account',
]
const REMOVABLE = ['printed', 'job_person', 'feed_sample', 'session', 'verification', 'rate_limit']

export function grantsFor(databaseName: string, appUser: string): string[] {
  const to = `TO '${appUser}'@'127.0.0.1'`
  const may = (rights: string, tables: readonly string[]): string[] =>
    tables.map((table) => `GRANT ${rights} ON \`${databaseName}\`.\`${table}\` ${to}`)
  return [
    ...may('SELECT, INSERT', APPEND_ONLY),
    ...may('SELECT, INSERT, UPDATE', CHANGEABLE),
    ...may('SELECT, INSERT, UPDATE, DELETE', REMOVABLE),
    ...may('SELECT', ['__drizzle_migrations']),
  ]
}

/**
 * The migrations up to one of them, as a folder of their own.
 * @throws NewerDatabase where the code does not know that one
 */
export async function migrationsUpTo(folder: string, when_ms: number): Promise<string> {
  const journal = await journalIn(folder)
  if (!journal.entries.some((one) => one.when === when_ms)) throw new NewerDatabase()
  const entries = journal.entries.filter((one) => one.when <= when_ms)
  const part = await mkdtemp(join(tmpdir(), 'upstand-migrations-'))
  await mkdir(join(part, 'meta'))
  await writeFile(join(part, 'meta/_journal.json'), JSON.stringify({ ...journal, entries }))
  for (const { tag } of entries) await copyFile(join(folder, `${tag}.sql`), join(part, `${tag}.sql`))
  return part
}
