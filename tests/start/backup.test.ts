import { existsSync } from 'node:fs'
import { copyFile, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fillEmpty, openDatabases } from '../../scripts/lib/instance'
import { findingsOf } from '../../scripts/lib/findings'
import { fromDump } from '../../scripts/lib/oldDump'
import { restoreBackup } from '../../scripts/lib/companyDatabase'
import { type Mariadb, rootConnection, startMariadb } from '../../scripts/lib/mariadb'
import type { Places } from '../../scripts/lib/paths'
import { run } from '../../scripts/lib/run'
import { ensureSecrets } from '../../scripts/lib/state'
import { readBackupFile } from '@/server/backup/backupFile'
import { openDatabase } from '@/server/db/client'
import { factsIn, inside, ranOn, Shelf, upstand } from '../support/dataFolder'

/** What a company has, in one file and back: whole, or refused with a sentence while nothing is touched. */
let shelf: Shelf
/** A company's folder whose database server runs, and a copy of it that lies still. */
let office: Places
let still: Places
let server: Mariadb
let facts: Record<string, number>
let file: string

/** The demo company as a start makes it, without the application. */
async function withDemo(places: Places): Promise<void> {
  const { own, appUrl, secrets } = await openDatabases(places)
  const before = { ...process.env }
  Object.assign(process.env, {
    DATABASE_URL: appUrl,
    UPSTAND_SECRET: secrets.secret,
    UPSTAND_SEAL_KEY_FILE: places.sealKey,
  })
  const db = openDatabase(appUrl, 2)
  try {
    await fillEmpty(db, { empty: false })
  } finally {
    await db.close()
    await own!.stop()
    delete process.env.DATABASE_URL
    Object.assign(process.env, { UPSTAND_SECRET: before.UPSTAND_SECRET ?? '' })
  }
}

/** What is found in a folder, each with its weight. */
const toldOf = async (places: Places): Promise<string> =>
  (await findingsOf(places)).map((one) => `${one.is}: ${one.text}`).join('\n')

const backupsOf = async (places: Places): Promise<string[]> =>
  (await readdir(places.backups)).map((name) => join(places.backups, name))

beforeAll(async () => {
  shelf = await Shelf.make()
  office = await shelf.places()
  await withDemo(office)
  await inside(office, (owner) =>
    owner.query(
      "INSERT INTO attachment SELECT '01900000-0000-7000-8000-0000000000aa', id, SHA2('x', 256), 'image/jpeg', X'FFD8FF00005C27220A1A' FROM job LIMIT 1",
    ),
  )
  expect((await ranOn(office, ['backup'])).code).toBe(0)
  file = (await backupsOf(office))[0]!
  still = await shelf.places(office)
  server = (await openDatabases(office)).own!
  facts = await factsIn(office)
})
afterAll(async () => {
  await server.stop()
  await shelf.clear()
})

describe('a backup', () => {
  it('holds all that the company has, pictures and the key that seals', async () => {
    const lines = gunzipSync(await readFile(file))
      .toString()
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line))
    expect(lines.at(-1).rows).toMatchObject(facts)
    expect(lines[1].secrets.sealKey).toBe(await readFile(office.sealKey, 'utf8'))
    expect(facts).toMatchObject({ company: 1, attachment: 1, seal: 3 })
  })

  it('is put back in another folder: facts, bytes, seals and the key that made them', async () => {
    const other = await shelf.places()
    const { code, output } = await ranOn(other, ['restore', file])
    expect(output).toContain('All 3 seals hold.')
    expect(code).toBe(0)
    expect(await factsIn(other)).toEqual(facts)
    expect(await readFile(other.sealKey, 'utf8')).toBe(await readFile(office.sealKey, 'utf8'))
    const [pictures] = await inside(other, (owner) => owner.query('SELECT HEX(bytes) AS hex FROM attachment'))
    expect(pictures).toEqual([{ hex: 'FFD8FF00005C27220A1A' }])
    expect(await toldOf(other)).not.toContain('wrong')
  })

  it('is tried without changing anything', async () => {
    const other = await shelf.places(still)
    await inside(other, (owner) => owner.query("UPDATE job SET name = 'Since then' LIMIT 1"))
    const { code, output } = await ranOn(other, ['restore', file, '--try'])
    expect({ code, output }).toMatchObject({ code: 0, output: expect.stringContaining('Nothing was changed') })
    const [rows] = await inside(other, (owner) => owner.query("SELECT 1 FROM job WHERE name = 'Since then'"))
    expect(rows).toHaveLength(1)
  })

  it('ends codes that waited when it was written: they may have been used since', async () => {
    const other = await shelf.places(still)
    await inside(other, (owner) =>
      owner.query(
        "INSERT INTO invitation VALUES ('i', REPEAT('0', 64), NULL, 'Una', 'una@test.invalid', 'tester', NOW(), NOW() + INTERVAL 1 DAY, NULL)",
      ),
    )
    const { output } = await ranOn(other, ['backup'])
    const written = /Backup written: (\S+)/.exec(output)![1]!
    expect(await ranOn(other, ['restore', written])).toMatchObject({
      code: 0,
      output: expect.stringContaining('as they were then'),
    })
    const [waiting] = await inside(other, (owner) => owner.query('SELECT 1 FROM invitation WHERE ended_at IS NULL'))
    expect(waiting).toEqual([])
    expect(await toldOf(other)).not.toContain('wrong')
  })

  it('puts what was there before aside, with its key, and lets everybody sign in again', async () => {
    const other = await shelf.places()
    await withDemo(other)
    await inside(other, (owner) =>
      owner.query(
        "INSERT INTO session SELECT 's', NOW() + INTERVAL 1 DAY, 't', NOW(), NOW(), NULL, NULL, id FROM user LIMIT 1",
      ),
    )
    const ownKey = await readFile(other.sealKey, 'utf8')
    expect((await ranOn(other, ['restore', file])).code).toBe(0)
    const aside = (await readdir(other.data)).filter((name) => name.startsWith('seal-key.pem.set-aside-'))
    expect(await readFile(join(other.data, aside[0]!), 'utf8')).toBe(ownKey)
    const [sessions] = await inside(other, (owner) => owner.query('SELECT 1 FROM session'))
    expect(sessions).toEqual([])
    expect(await toldOf(other)).toMatch(/The database upstand_\S+ was in use until/)
  })

  it('opens with its passphrase, and with no other', async () => {
    const secret = { UPSTAND_BACKUP_PASSPHRASE: 'seven wet slates on a barn' }
    expect((await ranOn(office, ['backup', '--encrypt'], secret)).code).toBe(0)
    const sealed = (await backupsOf(office)).find((name) => name.endsWith('.enc'))!
    expect((await readFile(sealed)).includes('PRIVATE KEY')).toBe(false)
    await expect(readBackupFile(sealed, 'seven wet slates')).rejects.toThrow('does not open the backup')
    expect((await readBackupFile(sealed, secret.UPSTAND_BACKUP_PASSPHRASE)).rows).toMatchObject(facts)
    const none = await ranOn(office, ['restore', sealed, '--try'])
    expect(none).toMatchObject({ code: 1, output: expect.stringContaining('no answer came to “Passphrase') })
    expect(await ranOn(office, ['backup', '--encrypt'], { UPSTAND_BACKUP_PASSPHRASE: 'short' })).toMatchObject({
      code: 1,
      output: expect.stringContaining('12 characters'),
    })
  })
})

describe('what is no backup', () => {
  const lines = async () =>
    gunzipSync(await readFile(file))
      .toString()
      .split('\n')
  const packed = (text: string) => gzipSync(Buffer.from(text))
  const cases: [string, () => Promise<Buffer>, string][] = [
    ['an empty file', async () => Buffer.alloc(0), 'not a backup of Upstand'],
    ['a picture', async () => Buffer.from('FFD8FFE000104A464946', 'hex'), 'not a backup of Upstand'],
    ['somebody’s packed text', async () => packed('hello\n'), 'not a backup of Upstand'],
    ['one that was cut', async () => (await readFile(file)).subarray(0, 20_000), 'not whole'],
    ['one without its last line', async () => packed((await lines()).slice(0, -2).join('\n')), 'not whole'],
    ['one with a row less', async () => packed((await lines()).filter((_, n) => n !== 30).join('\n')), 'not whole'],
    [
      'one with a figure changed',
      async () => packed((await lines()).join('\n').replace('Tolling', 'Rolling')),
      'not whole',
    ],
    [
      'one of a newer version',
      async () => packed((await lines()).join('\n').replace('"upstandBackup":1', '"upstandBackup":2')),
      'newer version',
    ],
  ]
  it.each(cases)('%s is refused with a sentence', async (_, made, sentence) => {
    const bad = join(shelf.folder, 'bad.jsonl.gz')
    await writeFile(bad, await made())
    await expect(readBackupFile(bad, null)).rejects.toThrow(sentence)
  })

  it('ends the command with that sentence alone, and changes nothing', async () => {
    const bad = join(shelf.folder, 'cut.jsonl.gz')
    await writeFile(bad, (await readFile(file)).subarray(0, 20_000))
    const { code, output } = await ranOn(office, ['restore', bad])
    expect({ code, output }).toMatchObject({ code: 1, output: expect.stringContaining('not whole') })
    expect(output).not.toMatch(/\n\s+at /)
    expect(await factsIn(office)).toEqual(facts)
  })

  it('with a byte flipped anywhere is refused', async () => {
    const whole = await readFile(file)
    const bad = join(shelf.folder, 'flipped.jsonl.gz')
    for (let n = 0; n < 60; n++) {
      const bytes = Buffer.from(whole)
      // The packed head holds a time and the system's name, which say nothing of what is in the file.
      const at = 10 + Math.floor(((bytes.length - 10) * (n + 0.5)) / 60)
      bytes[at]! ^= 1 << (n % 8)
      await writeFile(bad, bytes)
      await expect(readBackupFile(bad, null), `byte ${at}`).rejects.toThrow(/not whole|not a backup/)
    }
  })
})

describe('a dump of an earlier version', () => {
  const dumped = async (sql: string): Promise<string> => {
    const path = join(shelf.folder, 'old.sql')
    await writeFile(path, sql)
    return path
  }
  let dump: string
  beforeAll(async () => {
    const { adminUrl } = await openDatabases(office)
    const { username, password, pathname } = new URL(adminUrl)
    const args = ['--no-defaults', '--host=127.0.0.1', `--port=${server.port}`, `--user=${username}`]
    const dumping = await run('mariadb-dump', [...args, '--triggers', '--hex-blob', pathname.slice(1)], {
      env: { ...process.env, MYSQL_PWD: password },
    })
    dump = dumping.output
  })

  it('is put back', async () => {
    const other = await shelf.places(still)
    expect((await ranOn(other, ['restore', await dumped(dump)])).code).toBe(0)
    expect(await factsIn(other)).toEqual(facts)
  })

  it.each([
    ['shell', (mark: string) => `\\! touch ${mark}\nsystem touch ${mark}\n`],
    ['file', (mark: string) => `SELECT 'x' INTO OUTFILE '${mark}';\n`],
    ['right', () => "GRANT ALL ON *.* TO 'upstand_app'@'127.0.0.1';\nCREATE USER 'back'@'%' IDENTIFIED BY 'door';\n"],
    ['neighbour', () => 'DROP DATABASE upstand_index;\n'],
  ])('that reaches for a %s reaches nothing', async (name, evil) => {
    const mark = join(shelf.folder, `reached-${name}`)
    const secrets = await ensureSecrets(office)
    await fromDump(office, server, secrets, await dumped(evil(mark) + dump)).catch(() => undefined)
    expect(existsSync(mark)).toBe(false)
    const root = await rootConnection(office, secrets)
    const [users] = await root.query("SELECT User AS name FROM mysql.user WHERE User <> 'mariadb.sys' ORDER BY User")
    expect(users).toEqual([{ name: 'root' }, { name: 'upstand_app' }, { name: 'upstand_owner' }])
    const [[grants]] = (await root.query("SHOW GRANTS FOR 'upstand_app'@'127.0.0.1'")) as unknown as [object[]]
    expect(JSON.stringify(grants)).toContain('GRANT USAGE ON *.*')
    await root.end()
    expect(await factsIn(office)).toEqual(facts)
  })

  it('that was cut, or holds nothing, is refused', async () => {
    const cut = await ranOn(office, ['restore', await dumped(dump.slice(0, dump.length / 2))])
    expect(cut).toMatchObject({ code: 1, output: expect.stringContaining('cut off') })
    const empty = await ranOn(office, ['restore', await dumped('-- Dump completed on 2026-01-01\n')])
    expect(empty).toMatchObject({ code: 1, output: expect.stringContaining('no company') })
    expect(await factsIn(office)).toEqual(facts)
  })
})

describe('a folder that lost something', () => {
  it('opens without its secrets, also while its database runs', async () => {
    const other = await shelf.places(still)
    await rm(other.secrets)
    expect(await factsIn(other)).toEqual(facts)
    const { own } = await openDatabases(other)
    await rm(other.secrets)
    expect(await toldOf(other)).toContain('secrets.json is lost')
    expect(await factsIn(other)).toEqual(facts)
    await own!.stop()
  })

  it('says that the key which seals is gone, and takes it back from a backup', async () => {
    const other = await shelf.places(still)
    await ranOn(other, ['seal-key'])
    await rename(other.sealKey, `${other.sealKey}.away`)
    const told = await ranOn(other, ['doctor'])
    expect(told).toMatchObject({ code: 1, output: expect.stringContaining('The key that seals is lost.') })
    await ensureSecrets(other)
    expect(await toldOf(other)).toContain('is not the key that the company signs with')
    const written = join(shelf.folder, 'with-key.jsonl.gz')
    await copyFile(file, written)
    expect((await ranOn(other, ['restore', written])).code).toBe(0)
    expect(await toldOf(other)).toContain('The key that seals is the company’s own.')
  })
})

describe('a database that cannot be opened', () => {
  const states: [string, string, string][] = [
    [
      'of a newer version',
      "INSERT INTO `__drizzle_migrations` (hash, created_at) VALUES ('x', 9999999999999)",
      'newer',
    ],
    ['of somebody else', 'DROP TABLE `__drizzle_migrations`', 'is not one of Upstand'],
    ['that is gone', 'gone', 'is not there'],
  ]
  it.each(states)('%s is refused unchanged, is named, and a backup takes its place', async (_, sql, sentence) => {
    const other = await shelf.places(still)
    await inside(other, async (owner) => {
      const [[{ name }]] = (await owner.query('SELECT DATABASE() AS name')) as never as [[{ name: string }]]
      await owner.query(sql === 'gone' ? `DROP DATABASE ${name}` : sql)
    })
    await expect(openDatabases(other)).rejects.toThrow(sentence)
    expect(await toldOf(other)).toMatch(new RegExp(`wrong: .*${sentence}`))
    const secrets = await ensureSecrets(other)
    const own = await startMariadb(other, secrets)
    await restoreBackup(other, own, secrets, file, null, true)
    await own.stop()
    expect(await factsIn(other)).toEqual(facts)
  })
})

describe('two commands at once', () => {
  it('on an empty folder make one company, whole', async () => {
    const places = await shelf.places()
    const all = [1, 2].map(() => upstand(places, ['seal-key']))
    expect(await Promise.all(all.map((one) => one.ended))).toEqual([0, 0])
    const known = await inside(places, (owner) => owner.query("SHOW DATABASES LIKE 'upstand%'"))
    expect(known[0]).toHaveLength(1)
  })

  it('back up while somebody keeps readings: one moment of all of it', async () => {
    const other = await shelf.places(still)
    const { own, adminUrl } = await openDatabases(other)
    const mysql = await import('mysql2/promise')
    const owner = await mysql.createConnection({ uri: adminUrl, timezone: 'Z' })
    const [[like]] = (await owner.query('SELECT * FROM entry ORDER BY seq DESC LIMIT 1')) as never as [
      [Record<string, unknown>],
    ]
    let isOver = false
    const writing = (async () => {
      for (let n = 1; !isOver; n++)
        await owner.query('INSERT INTO entry SET ?', {
          ...like,
          body: JSON.stringify(like.body),
          id: `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`,
          seq: Number(like.seq) + n,
        })
    })()
    const { code, output } = await ranOn(other, ['backup'])
    isOver = true
    await writing
    await owner.end()
    await own!.stop()
    expect(code, output).toBe(0)
    const newest = (await backupsOf(other)).sort().at(-1)!
    const tried = await ranOn(other, ['restore', newest, '--try'])
    expect(tried).toMatchObject({ code: 0, output: expect.stringContaining('All 3 seals hold.') })
    const taken = Number(/(\d+) entries/.exec(tried.output)![1])
    expect(taken).toBeGreaterThanOrEqual(facts.entry!)
    expect(taken).toBeLessThan((await factsIn(other)).entry!)
  })
})
