/** A private MariaDB: own data folder, own socket and port, on loopback; never the system's service. */
import { type ChildProcess, spawn } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import type { Places } from './paths'
import { freePort, isFree } from './ports'
import { type Ran, run } from './run'
import { Stop, say, step } from './say'
import { readState, type Secrets, writeState } from './state'

const READY_MS = 60_000
const ANSWER_MS = 2000
const LONGEST_SOCKET_PATH = 100

export type Mariadb = {
  port: number
  socket: string
  exited: Promise<number | null>
  /** False where it ran already: somebody else uses it. */
  startedHere: boolean
  stop(): Promise<void>
}

const socketOf = (places: Places): string =>
  places.socket.length < LONGEST_SOCKET_PATH
    ? places.socket
    : join(tmpdir(), `upstand-${Buffer.from(places.data).toString('hex').slice(-24)}.sock`)

const pidFileOf = (places: Places): string => join(places.data, 'mariadb.pid')

/** The server whose socket this is, if it answers as ours. */
export async function answering(places: Places, secrets: Secrets): Promise<boolean> {
  let connection: mysql.Connection | null = null
  try {
    connection = await mysql.createConnection({
      socketPath: socketOf(places),
      user: 'root',
      password: secrets.rootPassword,
      connectTimeout: ANSWER_MS,
    })
    // A server that is about to end may take the question and never answer it.
    const [rows] = await connection.query({ sql: 'SELECT @@datadir AS datadir', timeout: ANSWER_MS })
    return (rows as { datadir: string }[])[0]?.datadir.replace(/\/$/, '') === places.mariadb
  } catch {
    return false
  } finally {
    connection?.destroy()
  }
}

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

function installed(places: Places): Promise<Ran> {
  const user = process.getuid?.() === 0 ? ['--user=root'] : []
  return run('mariadb-install-db', [
    '--no-defaults',
    `--datadir=${places.mariadb}`,
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

/** Ends a server of this very folder which nobody here can speak to any more: its secrets were lost while it ran. */
async function endUnreachable(places: Places): Promise<void> {
  const pid = Number(await readFile(pidFileOf(places), 'utf8').catch(() => ''))
  if (!(pid > 0)) return
  const command = (): Promise<string> => readFile(`/proc/${pid}/cmdline`, 'utf8').catch(() => '')
  if (!(await command()).split('\0').includes(`--datadir=${places.mariadb}`)) return
  process.kill(pid, 'SIGTERM')
  for (let n = 0; n < 300 && (await command()) !== ''; n++) await new Promise((resolve) => setTimeout(resolve, 100))
}

/** Starts the private server, or takes over the one that a killed start left running. */
export async function startMariadb(places: Places, secrets: Secrets): Promise<Mariadb> {
  await initialise(places)
  const state = await readState(places)
  let pid: number
  let port: number
  let exited: Promise<number | null>
  const startedHere = !(state.databasePort && state.databasePid && (await answering(places, secrets)))
  if (!startedHere) {
    pid = state.databasePid!
    port = state.databasePort!
    exited = silence(places, secrets)
  } else {
    port = state.databasePort && (await isFree(state.databasePort)) ? state.databasePort : await freePort()
    await endUnreachable(places)
    await rm(socketOf(places), { force: true })
    await writeRootPassword(places, secrets)
    const child = launch(places, port)
    child.unref()
    exited = new Promise((resolve) => child.on('exit', resolve))
    pid = child.pid ?? 0
    await waitUntilReady(places, secrets, exited)
    await rm(rootSql(places), { force: true })
    await writeState(places, { databasePort: port, databasePid: pid })
    await run('touch', [join(places.mariadb, '.whole')])
  }
  return {
    port,
    socket: socketOf(places),
    exited,
    startedHere,
    stop: () => stopMariadb(places, secrets, pid),
  }
}

const LOOK_EVERY_MS = 2000

/** Ends when a server that was taken over answers no longer: it is nobody's child here. */
async function silence(places: Places, secrets: Secrets): Promise<null> {
  while (await answering(places, secrets)) await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS).unref())
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
      await new Promise((resolve) => setTimeout(resolve, 150))
    }
  }
  const log = existsSync(places.log) ? (await readFile(places.log, 'utf8')).split('\n') : []
  const why = log.filter((line) => line.includes('[ERROR]')).at(-1) ?? 'it gave no reason'
  throw new Stop(`The private database did not start: ${why.replace(/^.*\[ERROR\] */, '')} (whole log: ${places.log})`)
}

async function stopMariadb(places: Places, secrets: Secrets, pid: number): Promise<void> {
  try {
    process.kill(pid, 'SIGTERM')
  } catch {
    return
  }
  // A stopped server can linger as a zombie: ask its socket, not its id.
  for (let n = 0; n < 200 && (await answering(places, secrets)); n++)
    await new Promise((resolve) => setTimeout(resolve, 100))
  await new Promise((resolve) => setTimeout(resolve, 300))
}
