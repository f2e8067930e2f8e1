/** One running Upstand: database, application and, in the demo, the simulated sensors. */
import { randomInt } from 'node:crypto'
import { count } from 'drizzle-orm'
import mysql from 'mysql2/promise'
import { type Database, openDatabase } from '@/server/db/client'
import { company, person } from '@/server/db/schema'
import { grantsFor, migrateDatabase, migrationState, NewerDatabase } from '@/server/db/migrate'
import { seedBasics, seedDemo } from '@/server/demo/seed'
import { addShippedRegimes } from '@/server/jobs/regimes'
import { isDemo } from '@/server/people/people'
import { type Application, appEnvironment, servedAt, startApplication } from './application'
import { startYard } from './demoYard'
import { companyDatabase } from './companyDatabase'
import { urlOf } from './databases'
import { alone } from './folderLock'
import { type Mariadb, startMariadb } from './mariadb'
import { ensureMariadb } from './packages'
import { migrations, type Places } from './paths'
import { Stop, step } from './say'
import { ensureSecrets, prepareData, type Secrets } from './state'

export type DatabaseUrls = { adminUrl: string; appUrl: string; own: Mariadb | null; secrets: Secrets }

/** The database this instance uses: a private one, or somebody's own server named by DATABASE_URL. */
export async function openDatabases(places: Places): Promise<DatabaseUrls> {
  return alone(places, async () => {
    await prepareData(places)
    return opened(places, await ensureSecrets(places))
  })
}

async function opened(places: Places, secrets: Secrets): Promise<DatabaseUrls> {
  const appUrl = process.env.DATABASE_URL
  if (appUrl) {
    const adminUrl = process.env.DATABASE_ADMIN_URL ?? appUrl
    await forPeople(() => bringUpToDate(adminUrl))
    await refuseWithoutRights(appUrl)
    return { adminUrl, appUrl, own: null, secrets }
  }
  await ensureMariadb()
  const own = await step('Starting the private database', () => startMariadb(places, secrets))
  try {
    const name = await forPeople(() => companyDatabase(places, own, secrets))
    // A restore that was killed at its end is finished there, with the secrets of what it put back.
    const now = await ensureSecrets(places)
    return { adminUrl: urlOf(own, now, 'owner', name), appUrl: urlOf(own, now, 'app', name), own, secrets: now }
  } catch (error) {
    if (own.startedHere) await own.stop()
    throw error
  }
}

/** On somebody's own server the database is brought up to date where it stands. */
async function bringUpToDate(adminUrl: string): Promise<void> {
  const state = await migrationState(adminUrl, migrations)
  if (state === 'current') return
  if (state === 'behind' && process.env.UPSTAND_BACKED_UP !== 'yes')
    throw new Stop(
      'The database at DATABASE_ADMIN_URL must be brought up to date. Back it up with your own tools, then set UPSTAND_BACKED_UP=yes and start again.',
    )
  await step(state === 'empty' ? 'Making the tables (once)' : 'Bringing the database up to date', () =>
    migrateDatabase(adminUrl, migrations),
  )
}

/** On somebody's own server the rights are theirs to give: says which are missing. */
async function refuseWithoutRights(appUrl: string): Promise<void> {
  const { username, pathname } = new URL(appUrl)
  const database = decodeURIComponent(pathname.slice(1))
  try {
    const connection = await mysql.createConnection(appUrl)
    try {
      for (const table of ['company', 'entry', 'charge_point_model', 'session'])
        await connection.query(`SELECT 1 FROM \`${table}\` LIMIT 1`)
    } finally {
      await connection.end()
    }
  } catch (error) {
    const code = (error as { code?: string }).code ?? ''
    if (!code.includes('DENIED')) throw error
    const grants = grantsFor(database, decodeURIComponent(username)).map((one) => `  ${one};`)
    throw new Stop(
      `The user in DATABASE_URL has no right to the tables. As the database's administrator run (with that user's own host):\n${grants.join('\n')}`,
    )
  }
}

async function forPeople<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof NewerDatabase) throw new Stop(error.message)
    const code = (error as { code?: string }).code
    if (code === 'ER_ACCESS_DENIED_ERROR')
      throw new Stop('The database refuses the name or password in DATABASE_ADMIN_URL. Correct it, then start again.')
    if (code === 'ECONNREFUSED' || code === 'ENOTFOUND')
      throw new Stop('No database answers at DATABASE_ADMIN_URL. Start it, or correct the address, then start again.')
    throw error
  }
}

/** Fills an empty database, with demo data or only with what every company needs. */
export async function fillEmpty(db: Database, options: { empty: boolean }): Promise<void> {
  const [rows] = await db.select({ n: count() }).from(company)
  if ((rows?.n ?? 0) > 0) return
  // In one transaction: a start that is killed half way leaves nothing behind.
  const inOne = (work: (tx: Database) => Promise<void>) => db.transaction((tx) => work(tx as unknown as Database))
  if (options.empty) await inOne((tx) => seedBasics(tx, { name: 'Your company', address: '', demo: false }))
  else await step('Loading the demo company', () => inOne((tx) => seedDemo(tx, Date.now())))
}

/** Seeding signs the demo's sealed job and derives the demo's passwords: it needs what the server has, and only then. */
async function withEnvironment<T>(environment: NodeJS.ProcessEnv, work: () => Promise<T>): Promise<T> {
  const before = { ...process.env }
  Object.assign(process.env, { ...environment, NODE_ENV: before.NODE_ENV })
  try {
    return await work()
  } finally {
    for (const key of Object.keys(environment)) {
      if (before[key] === undefined) delete process.env[key]
      else process.env[key] = before[key]
    }
  }
}

/** The code that lets the first person in, where a company has nobody yet. */
async function firstCode(db: Database): Promise<string | null> {
  const [rows] = await db.select({ n: count() }).from(person)
  return (rows?.n ?? 0) > 0 ? null : String(randomInt(100_000_000)).padStart(8, '0')
}

export type Instance = {
  application: Application
  databases: DatabaseUrls
  firstCode: string | null
  demo: boolean
  ended: Promise<string>
  stop(): Promise<void>
}

export type StartOptions = { port: number; empty: boolean; dev?: boolean; quiet?: boolean; yard?: boolean }

export function startInstance(places: Places, options: StartOptions): Promise<Instance> {
  return alone(places, () => startedAlone(places, options))
}

async function startedAlone(places: Places, options: StartOptions): Promise<Instance> {
  const served = await servedAt(places)
  if (served)
    throw new Stop(`Upstand runs on ${places.data} already: it is at ${served}. Stop that one first (Ctrl-C).`)
  const databases = await openDatabases(places)
  const environment = appEnvironment(databases.secrets, places, databases.appUrl, options.port)
  const db = openDatabase(databases.appUrl, 4)
  try {
    await withEnvironment(environment, () => fillEmpty(db, options))
    await addShippedRegimes(db)
    const code = await firstCode(db)
    if (code) environment.UPSTAND_FIRST_CODE = code
    const application = await step('Starting the application', () =>
      startApplication(places, options.port, environment, options),
    )
    const demo = await isDemo(db)
    const endYard = demo && options.yard !== false ? await startYard(db, application.address) : () => undefined
    const ended = Promise.race([
      application.exited.then(() => 'The application ended by itself; its own words stand above.'),
      ...(databases.own
        ? [databases.own.exited.then(() => `The private database ended by itself; see ${places.log}.`)]
        : []),
    ])
    return {
      application,
      databases,
      firstCode: code,
      demo,
      ended,
      stop: async () => {
        endYard()
        await application.stop()
        await db.close()
        // Who backs up at this moment still reads from it.
        await alone(places, async () => databases.own?.stop())
      },
    }
  } catch (error) {
    await db.close()
    await databases.own?.stop()
    throw error
  }
}
