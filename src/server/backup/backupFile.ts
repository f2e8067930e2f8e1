/**
 * A backup is one file: JSON lines, packed with gzip, so that general tools read it (`zcat`). The first line says what it
 * is, the last how many rows of each table stand between and the SHA-256 of all lines before it: a file that was cut or
 * changed is known as such. Where a passphrase is given the packed lines are encrypted (AES-256-GCM, key by scrypt) behind
 * one plain line that says so; they hold the key that seals.
 */
import { createCipheriv, createDecipheriv, createHash, randomBytes, scrypt } from 'node:crypto'
import { createReadStream, createWriteStream } from 'node:fs'
import { open, rename, rm } from 'node:fs/promises'
import { createInterface } from 'node:readline'
import { Readable, Transform, type TransformCallback } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import { z } from 'zod'

/** A value as the database writes it in text; bytes as base64. */
const cellSchema = z.union([z.string(), z.null(), z.strictObject({ base64: z.string() })])
const headSchema = z.strictObject({
  upstandBackup: z.literal(1),
  written: z.iso.datetime(),
  /** When the newest migration of the database was made, ms since 1970. */
  migrated_ms: z.number().int(),
})
const secretsSchema = z.strictObject({ secret: z.string().min(20), sealKey: z.string().includes('PRIVATE KEY') })
const lineSchema = z.union([
  z.strictObject({ secrets: secretsSchema }),
  z.strictObject({ table: z.string().max(64), columns: z.array(z.string().max(64)).min(1) }),
  z.array(cellSchema).min(1),
])
const endSchema = z.strictObject({ rows: z.record(z.string(), z.number().int().nonnegative()), sha256: z.string() })
const coverSchema = z.strictObject({
  upstandBackup: z.literal(1),
  encrypted: z.literal('aes-256-gcm'),
  kdf: z.literal('scrypt'),
  N: z.literal(32768),
  r: z.literal(8),
  p: z.literal(1),
  salt: z.string(),
  iv: z.string(),
})

export type Cell = z.infer<typeof cellSchema>
export type BackupHead = z.infer<typeof headSchema>
export type BackupSecrets = z.infer<typeof secretsSchema>
export type BackupLine = z.infer<typeof lineSchema>
export type RowCounts = Record<string, number>
export type BackupContents = { head: BackupHead; secrets: BackupSecrets; rows: RowCounts }

/** Why a file is no backup that can be put back; its message is the sentence for people. */
export class UnusableBackup extends Error {}
export class PassphraseAsked extends UnusableBackup {
  constructor() {
    super('This backup is encrypted: its passphrase is needed.')
  }
}

const TAG_BYTES = 16
const LONGEST_COVER = 1000

const keyOf = (passphrase: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(passphrase.normalize('NFC'), salt, 32, { N: 32768, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }, (error, key) =>
      error ? reject(error) : resolve(key),
    ),
  )

async function* packedLines(
  head: BackupHead,
  secrets: BackupSecrets,
  lines: AsyncIterable<BackupLine>,
  counted: RowCounts,
): AsyncGenerator<string> {
  const hash = createHash('sha256')
  const written = (value: unknown): string => {
    const line = `${JSON.stringify(value)}\n`
    hash.update(line)
    return line
  }
  yield written(head)
  yield written({ secrets })
  let table = ''
  for await (const line of lines) {
    if (Array.isArray(line)) counted[table] = (counted[table] ?? 0) + 1
    else if ('table' in line) {
      table = line.table
      counted[table] = 0
    }
    yield written(line)
  }
  yield `${JSON.stringify({ rows: counted, sha256: hash.digest('hex') })}\n`
}

/** Puts the cover before and the tag behind what passes through it, encrypted. */
async function sealedBy(passphrase: string): Promise<Transform> {
  const [salt, iv] = [randomBytes(16), randomBytes(12)]
  const cover = {
    upstandBackup: 1,
    encrypted: 'aes-256-gcm',
    kdf: 'scrypt',
    N: 32768,
    r: 8,
    p: 1,
    salt: salt.toString('base64'),
    iv: iv.toString('base64'),
  }
  const cipher = createCipheriv('aes-256-gcm', await keyOf(passphrase, salt), iv)
  const stream = new Transform({
    transform: (chunk: Buffer, _, done: TransformCallback) => done(null, cipher.update(chunk)),
    flush: (done: TransformCallback) => done(null, Buffer.concat([cipher.final(), cipher.getAuthTag()])),
  })
  stream.push(`${JSON.stringify(cover)}\n`)
  return stream
}

/**
 * Writes a backup, whole or not at all: it gets its name only when its last byte is on the disk.
 * @returns how many rows of each table stand in it
 */
export async function writeBackupFile(
  file: string,
  head: BackupHead,
  secrets: BackupSecrets,
  lines: AsyncIterable<BackupLine>,
  passphrase: string | null,
): Promise<RowCounts> {
  const part = `${file}.part`
  const counted: RowCounts = {}
  try {
    const source = Readable.from(packedLines(head, secrets, lines, counted))
    const sink = createWriteStream(part, { mode: 0o600 })
    if (passphrase === null) await pipeline(source, createGzip(), sink)
    else await pipeline(source, createGzip(), await sealedBy(passphrase), sink)
    const written = await open(part, 'r')
    await written.sync()
    await written.close()
    await rename(part, file)
  } catch (error) {
    await rm(part, { force: true })
    throw error
  }
  return counted
}

/** The packed bytes of a file, decrypted where it is encrypted. */
async function unsealed(file: string, passphrase: string | null): Promise<{ packed: Readable; isEncrypted: boolean }> {
  const handle = await open(file, 'r')
  const start = Buffer.alloc(LONGEST_COVER)
  const { bytesRead } = await handle.read(start, 0, LONGEST_COVER, 0)
  const { size } = await handle.stat()
  await handle.close()
  if (start[0] === 0x1f && start[1] === 0x8b) return { packed: createReadStream(file), isEncrypted: false }
  const length = start.subarray(0, bytesRead).indexOf(0x0a)
  const cover = coverSchema.safeParse(asJson(start.subarray(0, Math.max(0, length)).toString()))
  if (!cover.success) throw new UnusableBackup('This is not a backup of Upstand.')
  if (passphrase === null) throw new PassphraseAsked()
  if (size < length + 1 + TAG_BYTES) throw new UnusableBackup('This backup is cut off: its end is missing.')
  const tag = Buffer.alloc(TAG_BYTES)
  const again = await open(file, 'r')
  await again.read(tag, 0, TAG_BYTES, size - TAG_BYTES)
  await again.close()
  const { salt, iv } = cover.data
  const key = await keyOf(passphrase, Buffer.from(salt, 'base64'))
  const decipher = createDecipheriv('aes-256-gcm', key, Buffer.from(iv, 'base64')).setAuthTag(tag)
  const source = createReadStream(file, { start: length + 1, end: size - TAG_BYTES - 1 })
  source.on('error', (error) => decipher.destroy(error))
  return { packed: source.pipe(decipher), isEncrypted: true }
}

function asJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

const NOT_WHOLE = 'This backup is not whole: it was cut off or changed after it was written. Nothing was touched.'

/**
 * Reads a backup from its first line to its last and hands each row to `take`; only when this returns is all that was
 * handed out known to be what was written.
 * @throws UnusableBackup with the sentence that says why
 */
export async function readBackupFile(
  file: string,
  passphrase: string | null,
  take: (line: BackupLine) => Promise<void> | void = () => undefined,
  begun: (head: BackupHead) => Promise<void> | void = () => undefined,
): Promise<BackupContents> {
  const { packed, isEncrypted } = await unsealed(file, passphrase)
  const text = createGunzip()
  const failed: unknown[] = []
  packed.on('error', (error) => {
    failed.push(error)
    text.destroy()
  })
  text.on('error', (error) => failed.push(error))
  packed.pipe(text)
  const reader = new BackupReader()
  try {
    for await (const line of createInterface({ input: text, crlfDelay: Number.POSITIVE_INFINITY })) {
      const given = reader.next(line)
      if (given === 'head') await begun(reader.head!)
      else if (given) await take(given)
    }
  } catch (error) {
    packed.destroy()
    text.destroy()
    if (!failed.includes(error)) throw error
  }
  if (failed.length === 0) return reader.whole()
  if (isEncrypted && reader.head === null) throw new UnusableBackup('This passphrase does not open the backup.')
  throw new UnusableBackup(NOT_WHOLE)
}

/** Goes along the lines of a backup and holds them against its last one. */
class BackupReader {
  head: BackupHead | null = null
  private secrets: BackupSecrets | null = null
  private end: z.infer<typeof endSchema> | null = null
  private table = ''
  private readonly counted: RowCounts = {}
  private readonly hash = createHash('sha256')

  next(text: string): BackupLine | 'head' | null {
    if (this.end) throw new UnusableBackup(NOT_WHOLE)
    const value = asJson(text)
    const end = endSchema.safeParse(value)
    if (end.success) {
      this.end = end.data
      return null
    }
    this.hash.update(`${text}\n`)
    if (this.head === null) {
      this.head = headOf(value)
      return 'head'
    }
    const line = lineSchema.safeParse(value)
    if (!line.success) throw new UnusableBackup(NOT_WHOLE)
    if (Array.isArray(line.data)) this.counted[this.table] = (this.counted[this.table] ?? 0) + 1
    else if ('table' in line.data) {
      this.table = line.data.table
      this.counted[this.table] = 0
    } else this.secrets = line.data.secrets
    return line.data
  }

  whole(): BackupContents {
    const { head, secrets, end, counted } = this
    if (!head || !secrets || !end || end.sha256 !== this.hash.digest('hex')) throw new UnusableBackup(NOT_WHOLE)
    if (JSON.stringify(counted) !== JSON.stringify(end.rows)) throw new UnusableBackup(NOT_WHOLE)
    return { head, secrets, rows: counted }
  }
}

function headOf(value: unknown): BackupHead {
  const head = headSchema.safeParse(value)
  if (head.success) return head.data
  if ((value as { upstandBackup?: unknown } | null)?.upstandBackup !== undefined)
    throw new UnusableBackup('This backup was written by a newer version of Upstand. Put it back with that version.')
  throw new UnusableBackup('This is not a backup of Upstand.')
}
