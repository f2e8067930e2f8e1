/** A private MariaDB: own data folder, own socket and port, on loopback; never the system's service. */
import { type ChildProcess, spawn } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import type { Places } from './paths'
import { freePort, isFree } from './ports'
import { type Ran, run } from './run'
import { Stop, say, step } from './say'
import { asked, isAnswering, serversOn, socketOf } from './serverProcess'
import { readState, type Secrets, writeState } from './state'

const READY_MS = 60_000

export type Mariadb = {
  port: number
  socket: string
  exited: Promise<number | null>
  /** False where it ran already: somebody else uses it. */
  startedHere: boolean
  stop(): Promise<void>
}

const pidFileOf = (places: Places): string => join(places.data, 'mariadb.pid')

/** Whether the folder holds a database of Upstand: then it is opened, whatever else is missing. */
const holdsTables = (places: Places): boolean =>
  existsSync(places.mariadb) && readdirSync(places.mariadb).some((name) => /^upstand(_\d|$)/.test(name))

/** Moves a folder out of the way under a name that says when. Nothing is ever deleted here. */
async function setAside(folder: string): Promise<void> {
  const aside = `${folder}.set-aside-${new Date().toISOString().replace(/[:.]/g, '-')}`
  await rename(folder, aside)
  say(`The database folder was not whole and holds no tables of Upstand. It was set aside as ${aside}`)
}

/** In what state the server's folder is, by what lies in it. */
export type FolderState = 'none' | 'half-made' | 'broken' | 'whole'

export function databaseFolder(places: Places): FolderState {
  if (!existsSync(places.mariadb) || readdirSync(places.mariadb).length === 0) return 'none'
  const hasServer = existsSync(join(places.mariadb, 'mysql'))
  if (holdsTables(places)) return hasServer ? 'whole' : 'broken'
  return hasServer && existsSync(join(places.mariadb, '.whole')) ? 'whole' : 'half-made'
}

async function initialise(places: Places): Promise<void> {
  const state = databaseFolder(places)
  if (state === 'whole') return
  if (state === 'broken')
    throw new Stop(
      `${places.mariadb} holds Upstand's tables but not what the database server needs beside them. Put the whole folder back, or move it away and restore a backup.`,
    )
  if (state === 'half-made') await setAside(places.mariadb)
  await mkdir(places.mariadb, { recursive: true, mode: 0o700 })
  await step('Making a private database folder (once)', async () => {
    for (let attempt = 1; ; attempt++) {
      const made = await installed(places)
      if (made.code === 0) return
      // On a machine with no breath left its first server may not get what it asks for: nothing is in the folder yet.
      if (attempt === MOST_ATTEMPTS) throw new Stop(`The database folder could not be made: ${whyNot(made.output)}`)
      await rm(places.mariadb, { recursive: true, force: true })
      await mkdir(places.mariadb, { recursive: true, mode: 0o700 })
    }
  })
}

const MOST_ATTEMPTS = 2

async function installed(places: Places): Promise<Ran> {
  const user = process.getuid?.() === 0 ? ['--user=root'] : []
  await mkdir(places.temporary, { recursive: true, mode: 0o700 })
  return run('mariadb-install-db', [
    '--no-defaults',
    `--datadir=${places.mariadb}`,
    `--tmpdir=${places.temporary}`,
    ...user,
    '--auth-root-authentication-method=normal',
    '--skip-test-db',
    '--skip-name-resolve',
  ])
}

/** What its server gave as the reason; its last line only says where to report it. */
const whyNot = (output: string): string => {
  const lines = output.trim().split('\n')
  return (lines.findLast((line) => line.includes('[ERROR]')) ?? lines.at(-1) ?? '').replace(/^.*\[ERROR\] */, '')
}

function launch(places: Places, port: number): ChildProcess {
  const user = process.getuid?.() === 0 ? ['--user=root'] : []
  return spawn(
    existsSync('/usr/sbin/mariadbd') ? '/usr/sbin/mariadbd' : 'mariadbd',
    [
      '--no-defaults',
      `--datadir=${places.mariadb}`,
      `--tmpdir=${places.temporary}`,
      `--socket=${socketOf(places)}`,
      `--pid-file=${pidFileOf(places)}`,
      `--init-file=${rootSql(places)}`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      ...user,
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_uca1400_ai_ci',
      '--innodb-buffer-pool-size=64M',
      '--innodb-log-file-size=32M',
      '--max-allowed-packet=32M',
      '--performance-schema=OFF',
      `--log-error=${places.log}`,
    ],
    { detached: true, stdio: 'ignore' },
  )
}

export function rootConnection(places: Places, secrets: Secrets): Promise<mysql.Connection> {
  return mysql.createConnection({ socketPath: socketOf(places), user: 'root', password: secrets.rootPassword })
}

const rootSql = (places: Places): string => join(places.data, 'root.sql')

/** The server itself gives root the password of this folder when it starts: a lost one is no dead end. */
async function writeRootPassword(places: Places, secrets: Secrets): Promise<void> {
  const sql = `ALTER USER 'root'@'localhost' IDENTIFIED BY ${mysql.escape(secrets.rootPassword)};\n`
  await writeFile(rootSql(places), sql, { mode: 0o600 })
}

const ENDS_WITHIN_MS = 30_000

/** Ends what serves this folder though nobody here can speak to it: its secrets were lost while it ran. */
async function endUnreachable(places: Places): Promise<void> {
  for (const pid of await serversOn(places)) process.kill(pid, 'SIGTERM')
  await untilGone(places)
}

/** Until no process serves the folder: one that has ended but lingers has no command line and does not count. */
async function untilGone(places: Places): Promise<void> {
  const until = Date.now() + ENDS_WITHIN_MS
  while ((await serversOn(places)).length > 0 && Date.now() < until) await pause(LOOK_AGAIN_MS)
}

const LOOK_AGAIN_MS = 100
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))

type Running = Pick<Mariadb, 'port' | 'exited'> & { pid: number }

/**
 * The server that a killed command left. One that is only on its way has the lock of the folder: it is waited for, and no
 * second one started beside it.
 */
async function left(places: Places, secrets: Secrets): Promise<Running | null> {
  const until = Date.now() + COMES_WITHIN_MS
  for (;;) {
    const [pid] = await serversOn(places)
    if (pid === undefined) return null
    const self = await asked(places, secrets)
    if (typeof self !== 'string') return { port: self.port, pid, exited: silence(places, secrets) }
    if (self === 'refused' || Date.now() > until) return null
    await pause(LOOK_AGAIN_MS)
  }
}

/** Longer than a start takes on a slow machine; one that does not answer by then never will. */
const COMES_WITHIN_MS = 20_000

/** Starts the private server, or takes over the one that a killed start left running. */
export async function startMariadb(places: Places, secrets: Secrets): Promise<Mariadb> {
  await initialise(places)
  const running = await left(places, secrets)
  const self = running ?? (await launched(places, secrets))
  await writeState(places, { databasePort: self.port, databasePid: self.pid })
  await run('touch', [join(places.mariadb, '.whole')])
  return {
    port: self.port,
    socket: socketOf(places),
    exited: self.exited,
    startedHere: running === null,
    stop: () => stopMariadb(places, self.pid),
  }
}

async function launched(places: Places, secrets: Secrets): Promise<Running> {
  const { databasePort } = await readState(places)
  const port = databasePort && (await isFree(databasePort)) ? databasePort : await freePort()
  await endUnreachable(places)
  await rm(socketOf(places), { force: true })
  await writeRootPassword(places, secrets)
  await mkdir(places.temporary, { recursive: true, mode: 0o700 })
  const child = launch(places, port)
  child.unref()
  const exited = new Promise<number | null>((resolve) => child.on('exit', resolve))
  await waitUntilReady(places, secrets, exited)
  await rm(rootSql(places), { force: true })
  return { port, pid: child.pid ?? 0, exited }
}

const LOOK_EVERY_MS = 2000

/** Ends when a server that was taken over answers no longer: it is nobody's child here. */
async function silence(places: Places, secrets: Secrets): Promise<null> {
  while (await isAnswering(places, secrets)) await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS).unref())
  return null
}

async function waitUntilReady(places: Places, secrets: Secrets, exited: Promise<number | null>): Promise<void> {
  let ended = false
  void exited.then(() => {
    ended = true
  })
  const until = Date.now() + READY_MS
  while (Date.now() < until && !ended) {
    try {
      const connection = await rootConnection(places, secrets)
      await connection.end()
      return
    } catch {
      await pause(LOOK_AGAIN_MS)
    }
  }
  const log = existsSync(places.log) ? (await readFile(places.log, 'utf8')).split('\n') : []
  const why = log.filter((line) => line.includes('[ERROR]')).at(-1) ?? 'it gave no reason'
  throw new Stop(`The private database did not start: ${why.replace(/^.*\[ERROR\] */, '')} (whole log: ${places.log})`)
}

async function stopMariadb(places: Places, pid: number): Promise<void> {
  try {
    process.kill(pid, 'SIGTERM')
  } catch {
    return
  }
  // It answers no longer well before it has written everything; who copies the folder then finds files that vanish.
  await untilGone(places)
}
