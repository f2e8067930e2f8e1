import { generateKeyPairSync, randomBytes } from 'node:crypto'
import { existsSync } from 'node:fs'
import { mkdir, open, readFile, rename, statfs, writeFile } from 'node:fs/promises'
import type { Places } from './paths'
import { Stop } from './say'

/** What an instance remembers between starts; a lost file costs nothing. */
export type State = {
  databasePort?: number
  databasePid?: number
  appPid?: number
  appPort?: number
  /** The process that started the application, and stops it. */
  startPid?: number
  instance?: string
  buildStamp?: string
}
export type Secrets = { secret: string; ownerPassword: string; appPassword: string; rootPassword: string }

const LEAST_FREE_BYTES = 500 * 1024 * 1024

export async function prepareData(places: Places): Promise<void> {
  try {
    await mkdir(places.data, { recursive: true, mode: 0o700 })
    await mkdir(places.backups, { recursive: true, mode: 0o700 })
  } catch {
    throw new Stop(
      `There is no right to write to ${places.data}. Give this user the right, or set UPSTAND_DATA to another folder.`,
    )
  }
  const disk = await statfs(places.data)
  if (disk.bavail * disk.bsize < LEAST_FREE_BYTES) {
    const free_MB = Math.round((disk.bavail * disk.bsize) / 1024 / 1024)
    throw new Stop(
      `The disk of ${places.data} has only ${free_MB} MB free; 500 MB are needed. Make room, then run this again.`,
    )
  }
}

export async function readState(places: Places): Promise<State> {
  try {
    return JSON.parse(await readFile(places.state, 'utf8')) as State
  } catch {
    return {}
  }
}

export async function writeState(places: Places, change: State): Promise<void> {
  const next = { ...(await readState(places)), ...change }
  await writeFile(`${places.state}.new`, JSON.stringify(next, null, 2))
  await rename(`${places.state}.new`, places.state)
}

const word = (): string => randomBytes(24).toString('base64url')

/** Writes a file that only this user reads; killed half way, the file is as it was before. */
export async function writeWhole(file: string, text: string): Promise<void> {
  const part = `${file}.${process.pid}.part`
  const handle = await open(part, 'w', 0o600)
  await handle.writeFile(text)
  await handle.sync()
  await handle.close()
  await rename(part, file)
}

/** Secrets of this installation, made once, readable only by its user. They live outside the database. */
export async function ensureSecrets(places: Places): Promise<Secrets> {
  if (!existsSync(places.sealKey)) {
    const { privateKey } = generateKeyPairSync('ed25519')
    await writeWhole(places.sealKey, privateKey.export({ type: 'pkcs8', format: 'pem' }) as string)
  }
  if (!existsSync(places.secrets)) {
    const made: Secrets = { secret: word() + word(), ownerPassword: word(), appPassword: word(), rootPassword: word() }
    await writeWhole(places.secrets, JSON.stringify(made, null, 2))
  }
  return (await readSecrets(places))!
}

/** Null: they were not made yet, or are lost. */
export async function readSecrets(places: Places): Promise<Secrets | null> {
  return existsSync(places.secrets) ? (JSON.parse(await readFile(places.secrets, 'utf8')) as Secrets) : null
}
