import { mkdir, mkdtemp, readdir, rename, rm, writeFile } from 'node:fs/promises'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, describe, expect, it } from 'vitest'
import { type Instance, startInstance } from '../../scripts/lib/instance'
import { placesIn } from '../../scripts/lib/paths'
import { freePort } from '../../scripts/lib/ports'
import { readState } from '../../scripts/lib/state'
import { asVersionBefore } from '../support/versionBefore'

/** Starting, being killed, and starting again: on a data folder of its own. */
const folder = await mkdtemp(join(tmpdir(), 'upstand-start-'))
const places = placesIn(join(folder, 'data'))
const port = await freePort()
const start = (): Promise<Instance> => startInstance(places, { port, empty: true, quiet: true, yard: false })
let running: Instance | null = null

afterAll(async () => {
  await running?.stop()
  await rm(folder, { recursive: true, force: true })
})

const post = (path: string, body: unknown, cookie = '') =>
  fetch(`http://127.0.0.1:${port}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: `http://127.0.0.1:${port}`, cookie },
    body: JSON.stringify(body),
  })
const me = (cookie: string) => fetch(`http://127.0.0.1:${port}/api/me`, { headers: { cookie } })
const first = { company: 'Test Company', name: 'Una Fern', email: 'una@test.invalid', password: 'a long password' }
let cookie = ''

describe('an empty company', () => {
  it('lets the first person in by the code that the terminal shows, and nobody by another', async () => {
    running = await start()
    expect(running).toMatchObject({ demo: false, firstCode: expect.stringMatching(/^\d{8}$/) })
    expect((await post('/api/first', { ...first, code: '00000000' })).status).toBe(403)
    const answer = await post('/api/first', { ...first, code: running.firstCode })
    expect(answer.status).toBe(200)
    const set = answer.headers.getSetCookie()
    expect(set.join()).toMatch(/HttpOnly/i)
    cookie = set.map((one) => one.split(';')[0]).join('; ')
    expect(await (await me(cookie)).json()).toMatchObject({ name: 'Una Fern', role: 'supervisor', demo: false })
  })

  it('lets in nobody by the code again, and nobody by one tap', async () => {
    expect((await post('/api/first', { ...first, code: running!.firstCode })).status).toBe(409)
    expect((await fetch(`http://127.0.0.1:${port}/api/demo/people`)).status).toBe(404)
  })

  it('refuses a wrong password with a sentence', async () => {
    expect((await post('/api/auth/sign-in/email', { email: first.email, password: 'not this one' })).status).toBe(401)
  })
})

describe('a start after a kill', () => {
  it('recovers when the database was killed', async () => {
    const { databasePid } = await readState(places)
    process.kill(databasePid!, 'SIGKILL')
    expect(await running!.ended).toContain('private database ended')
    await running!.stop()
    running = await start()
    expect(running.firstCode).toBeNull()
    expect((await me(cookie)).status).toBe(200)
  })

  it('takes over what a killed start left running', async () => {
    // The start process itself is killed: application and database go on without it.
    const before = await readState(places)
    running = await start()
    const after = await readState(places)
    expect(after.databasePid).toBe(before.databasePid)
    expect(after.appPid).not.toBe(before.appPid)
    expect((await me(cookie)).status).toBe(200)
  })

  it('recovers when the application was killed', async () => {
    const { appPid } = await readState(places)
    process.kill(appPid!, 'SIGKILL')
    expect(await running!.ended).toContain('application ended')
    await running!.stop()
    running = await start()
    expect((await me(cookie)).status).toBe(200)
  })
})

describe('somebody’s own server', () => {
  it('is used where DATABASE_URL names it, once its user has the rights', async () => {
    const elsewhere = placesIn(join(folder, 'elsewhere'))
    const { rootConnection, startMariadb } = await import('../../scripts/lib/mariadb')
    const { ensureSecrets, prepareData } = await import('../../scripts/lib/state')
    const { companyDatabase } = await import('../../scripts/lib/companyDatabase')
    const { urlOf } = await import('../../scripts/lib/databases')
    await prepareData(elsewhere)
    const secrets = await ensureSecrets(elsewhere)
    const server = await startMariadb(elsewhere, secrets)
    const made = await companyDatabase(elsewhere, server, secrets)
    const [adminUrl, appUrl] = (['owner', 'app'] as const).map((user) => urlOf(server, secrets, user, made))
    const root = await rootConnection(elsewhere, secrets)
    await root.query("REVOKE ALL PRIVILEGES, GRANT OPTION FROM 'upstand_app'@'127.0.0.1'")
    await root.query(`GRANT SELECT ON \`${made}\`.\`company\` TO 'upstand_app'@'127.0.0.1'`)
    await root.end()
    const own = placesIn(join(folder, 'own'))
    const startThere = async () => startInstance(own, { port: await freePort(), empty: true, quiet: true })
    try {
      process.env.DATABASE_ADMIN_URL = adminUrl
      process.env.DATABASE_URL = appUrl
      await expect(startThere()).rejects.toThrow(/GRANT SELECT, INSERT ON `upstand_\d+T\d+`.`entry`/)
      process.env.DATABASE_URL = adminUrl
      const there = await startThere()
      expect(there.databases.own).toBeNull()
      expect((await fetch(`${there.application.address}/api/first`)).status).toBe(200)
      await there.stop()
      process.env.DATABASE_ADMIN_URL = adminUrl!.replace(/:[^:@]+@/, ':wrong@')
      await expect(startThere()).rejects.toThrow('refuses the name or password')
    } finally {
      delete process.env.DATABASE_URL
      delete process.env.DATABASE_ADMIN_URL
      await server.stop()
    }
  })
})

describe('a database folder', () => {
  it('that is served already is not served twice, and goes on', async () => {
    const { servedAt } = await import('../../scripts/lib/application')
    const { writeState } = await import('../../scripts/lib/state')
    expect(await servedAt(places)).toBeNull()
    // As a start in another window sees it.
    await writeState(places, { startPid: process.ppid })
    await expect(start()).rejects.toThrow(`it is at http://127.0.0.1:${port}`)
    await writeState(places, { startPid: process.pid })
    expect((await me(cookie)).status).toBe(200)
  })

  it('is not stopped by who only looks into it', async () => {
    const { openDatabases } = await import('../../scripts/lib/instance')
    const databases = await openDatabases(places)
    expect(databases.own).toMatchObject({ startedHere: false })
    expect(await (await fetch(`http://127.0.0.1:${port}/api/health`)).json()).toMatchObject({ database: true })
  })

  it('without its mark is opened all the same: nothing that holds tables is made anew', async () => {
    await running!.stop()
    await rm(join(places.mariadb, '.whole'))
    running = await start()
    expect((await me(cookie)).status).toBe(200)
    await running.stop()
    await rename(join(places.mariadb, 'mysql'), join(folder, 'mysql-away'))
    await expect(start()).rejects.toThrow('Put the whole folder back')
    await rename(join(folder, 'mysql-away'), join(places.mariadb, 'mysql'))
    running = await start()
    expect((await me(cookie)).status).toBe(200)
  })

  it('that was half made is set aside, and another one made', async () => {
    const half = placesIn(join(folder, 'half'))
    await mkdir(half.mariadb, { recursive: true })
    await writeFile(join(half.mariadb, 'ibdata1'), 'cut off')
    const made = await startInstance(half, { port: await freePort(), empty: true, quiet: true, yard: false })
    await made.stop()
    const aside = (await readdir(half.data)).filter((name) => name.startsWith('mariadb.set-aside-'))
    expect(await readdir(join(half.data, aside[0]!))).toEqual(['ibdata1'])
  })
})

describe('what cannot be started', () => {
  it('says that the port is taken', async () => {
    await running!.stop()
    const other = createServer((socket) => socket.destroy()).listen(port, '127.0.0.1')
    await new Promise((resolve) => other.once('listening', resolve))
    await expect(start()).rejects.toThrow(`Port ${port} is taken`)
    await new Promise((resolve) => other.close(resolve))
  })

  it('refuses a database of a newer version, and changes nothing in it', async () => {
    running = await start()
    const owner = await mysql.createConnection(running.databases.adminUrl)
    await owner.query("INSERT INTO `__drizzle_migrations` (hash, created_at) VALUES ('newer', 9999999999999)")
    await running.stop()
    await expect(start()).rejects.toThrow('newer version')
    await owner.end().catch(() => undefined)
  })

  it('backs up before it brings an older database up to date', async () => {
    const { openDatabases } = await import('../../scripts/lib/instance')
    const { Databases, urlOf } = await import('../../scripts/lib/databases')
    const { startMariadb } = await import('../../scripts/lib/mariadb')
    const { ensureSecrets } = await import('../../scripts/lib/state')
    const secrets = await ensureSecrets(places)
    const own = await startMariadb(places, secrets)
    const before = await Databases.use(places, own, secrets, (all) => all.current())
    const owner = await mysql.createConnection(urlOf(own, secrets, 'owner', before!))
    await owner.query("DELETE FROM `__drizzle_migrations` WHERE hash = 'newer'")
    await asVersionBefore(owner)
    await owner.end()
    const databases = await openDatabases(places)
    const kept = await readdir(places.backups)
    expect(kept.filter((name) => name.includes('before-upgrade')).length).toBe(1)
    const again = await mysql.createConnection(databases.adminUrl)
    const [triggers] = await again.query('SHOW TRIGGERS')
    expect((triggers as unknown[]).length).toBe(9)
    const [entries] = await again.query('SELECT id, seq FROM entry ORDER BY seq')
    expect((entries as { id: string; seq: number }[]).map(({ id, seq }) => [id.slice(0, 1), seq])).toEqual([
      ['b', 1],
      ['a', 2],
      ['c', 3],
    ])
    const [seals] = await again.query('SELECT issue, number FROM seal ORDER BY number')
    expect(seals).toEqual([
      { issue: 'A', number: 1 },
      { issue: 'B', number: 2 },
    ])
    const [jobs] = await again.query('SELECT seals FROM job')
    expect(jobs).toEqual([{ seals: 2 }])
    await again.end()
    const application = await mysql.createConnection(databases.appUrl)
    const [sweeps] = await application.query('SELECT sweep FROM feed_sample')
    expect(sweeps).toEqual([])
    const [keys] = await application.query('SELECT number FROM seal_key')
    expect(keys).toEqual([])
    await application.end()
    await databases.own!.stop()
    running = null
  })
})
