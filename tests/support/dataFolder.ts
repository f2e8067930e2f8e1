/** Data folders that tests make, break and look into; commands that run on them as a person runs them. */
import { type ChildProcess, spawn } from 'node:child_process'
import { cp, mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { openDatabases } from '../../scripts/lib/instance'
import { type Places, placesIn, root } from '../../scripts/lib/paths'
import { serversOn } from '../../scripts/lib/serverProcess'
import { countsOf } from '@/server/backup/rows'

export class Shelf {
  private constructor(readonly folder: string) {}
  static make = async (): Promise<Shelf> => new Shelf(await mkdtemp(join(tmpdir(), 'upstand-folders-')))
  private count = 0

  /** A folder of its own: empty, or a copy of one that nobody uses at this moment. */
  async places(copyOf?: Places): Promise<Places> {
    const places = placesIn(join(this.folder, `data-${++this.count}`))
    if (copyOf) await cp(copyOf.data, places.data, { recursive: true })
    return places
  }
  /** Whatever a killed command left running there goes first: it would hold the port that copies of the folder know. */
  async remove(places: Places): Promise<void> {
    for (const pid of await serversOn(places)) process.kill(pid, 'SIGKILL')
    while ((await serversOn(places)).length > 0) await new Promise((resolve) => setTimeout(resolve, 50))
    await rm(places.data, { recursive: true, force: true })
  }
  async clear(): Promise<void> {
    for (let n = 1; n <= this.count; n++) await this.remove(placesIn(join(this.folder, `data-${n}`)))
    await rm(this.folder, { recursive: true, force: true })
  }
}

export type Command = { child: ChildProcess; output: () => string; ended: Promise<number> }

/** `./upstand` with a data folder; it ends as it would in a terminal. */
export function upstand(places: Places, args: readonly string[], env: Record<string, string> = {}): Command {
  const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/upstand.ts', ...args], {
    cwd: root,
    env: { ...process.env, UPSTAND_DATA: places.data, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let output = ''
  const take = (chunk: Buffer): void => {
    output += chunk
  }
  child.stdout.on('data', take)
  child.stderr.on('data', take)
  // What it started may hold its output open: its own end counts.
  const ended = new Promise<number>((resolve) => child.on('exit', (code) => resolve(code ?? -1)))
  return { child, output: () => output, ended }
}

export async function ranOn(places: Places, args: readonly string[], env: Record<string, string> = {}) {
  const { ended, output } = upstand(places, args, env)
  return { code: await ended, output: output() }
}

/** Opens a folder as every command does, lets something be done there as the tables' owner, and leaves it as it was. */
export async function inside<T>(places: Places, work: (owner: mysql.Connection) => Promise<T>): Promise<T> {
  const { own, adminUrl } = await openDatabases(places)
  const owner = await mysql.createConnection({ uri: adminUrl, timezone: 'Z' })
  try {
    return await work(owner)
  } finally {
    await owner.end()
    if (own!.startedHere) await own!.stop()
  }
}

/** What comes and goes, is made again, or is added by what is tried itself. */
const NO_FACTS = ['session', 'verification', 'rate_limit', 'feed_sample', 'printed', 'audit']

/** What must be there again after any accident: how many rows of each table. */
export async function factsIn(places: Places): Promise<Record<string, number>> {
  const counts = await inside(places, countsOf)
  return Object.fromEntries(Object.entries(counts).filter(([table]) => !NO_FACTS.includes(table)))
}
