import { mkdtemp, readdir, rm } from 'node:fs/promises'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, describe, expect, it } from 'vitest'
import { type Instance, startInstance } from '../../scripts/lib/instance'
import { placesIn } from '../../scripts/lib/paths'
import { freePort } from '../../scripts/lib/ports'
import { readState } from '../../scripts/lib/state'

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
    const { startMariadb } = await import('../../scripts/lib/mariadb')
    const { ensureSecrets, prepareData } = await import('../../scripts/lib/state')
    await prepareData(elsewhere)
    const server = await startMariadb(elsewhere, await ensureSecrets(elsewhere))
    const own = placesIn(join(folder, 'own'))
    const startThere = async () => startInstance(own, { port: await freePort(), empty: true, quiet: true })
    try {
      process.env.DATABASE_ADMIN_URL = server.adminUrl
      process.env.DATABASE_URL = server.appUrl
      await expect(startThere()).rejects.toThrow(/GRANT SELECT, INSERT ON `upstand`.`entry`/)
      process.env.DATABASE_URL = server.adminUrl
      const there = await startThere()
      expect(there.databases.own).toBeNull()
      expect((await fetch(`${there.application.address}/api/first`)).status).toBe(200)
      await there.stop()
      process.env.DATABASE_ADMIN_URL = server.adminUrl.replace(/:[^:@]+@/, ':wrong@')
      await expect(startThere()).rejects.toThrow('refuses the name or password')
    } finally {
      delete process.env.DATABASE_URL
      delete process.env.DATABASE_ADMIN_URL
      await server.stop()
    }
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
    const { startMariadb } = await import('../../scripts/lib/mariadb')
    const { ensureSecrets } = await import('../../scripts/lib/state')
    const own = await startMariadb(places, await ensureSecrets(places))
    const owner = await mysql.createConnection(own.adminUrl)
    // As if the last migration had not been made yet; the row of a newer version goes with it.
    await owner.query('ALTER TABLE feed_sample DROP COLUMN sweep')
    await owner.query('DELETE FROM `__drizzle_migrations` ORDER BY created_at DESC LIMIT 2')
    await owner.end()
    const databases = await openDatabases(places)
    const kept = await readdir(places.backups)
    expect(kept.filter((name) => name.endsWith('.sql')).length).toBe(1)
    const again = await mysql.createConnection(databases.adminUrl)
    const [triggers] = await again.query('SHOW TRIGGERS')
    expect((triggers as unknown[]).length).toBe(5)
    await again.end()
    const application = await mysql.createConnection(databases.appUrl)
    const [sweeps] = await application.query('SELECT sweep FROM feed_sample')
    expect(sweeps).toEqual([])
    await application.end()
    await databases.own!.stop()
    running = null
  })
})
