import mysql from 'mysql2/promise'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { base, demo, knock } from '../support/server'
import { TestJob } from '../support/testJob'

type Person = { id: string; name: string; email: string; role: string; active: boolean; jobs: number }
type Everybody = {
  people: Person[]
  pending: { id: string; email: string }[]
  given?: { code: string; expiresAt: string }
}
const office = (wanted?: object) => knock<Everybody>('supervisor', '/api/office/people', wanted)
const PASSWORD = 'a password of some length'

/** Knocks without a session, or with one of its own. */
async function bare(
  path: string,
  body: unknown,
  cookie = '',
): Promise<{ status: number; text: string; cookie: string }> {
  const answer = await fetch(base + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base, cookie },
    body: JSON.stringify(body),
  })
  const set = answer.headers.getSetCookie().map((one) => one.split(';')[0])
  return { status: answer.status, text: await answer.text(), cookie: set.join('; ') }
}
const meOf = (cookie: string) => fetch(`${base}/api/me`, { headers: { cookie } })
const signIn = (email: string, password = PASSWORD) => bare('/api/auth/sign-in/email', { email, password })

let count = 0
async function invited(role = 'tester') {
  const email = `una.${++count}.${Date.now()}@test.invalid`
  const { body } = await office({ do: 'invite', name: `Una ${count}`, email, role })
  return { email, code: body.given!.code }
}
/** Somebody who came in by a code. */
async function joined(role = 'tester'): Promise<Person & { cookie: string }> {
  const { email, code } = await invited(role)
  const { cookie } = await bare('/api/code', { code, password: PASSWORD })
  const { body } = await office()
  return { ...body.people.find((one) => one.email === email)!, cookie }
}

let db: mysql.Connection
beforeAll(async () => {
  db = await mysql.createConnection(process.env.UPSTAND_TEST_DATABASE!)
})
afterAll(() => db.end())

describe('a one-time code', () => {
  it('lets its person in once, under the name and role that the office gave', async () => {
    const { email, code } = await invited('viewer')
    expect(code).toMatch(/^[2-9A-Z]{4}(-[2-9A-Z]{4}){2}$/)
    const looked = await bare('/api/code', { code: ` ${code.toLowerCase().replaceAll('-', ' ')} ` })
    expect(JSON.parse(looked.text)).toEqual({ name: `Una ${count}`, email, isReset: false })
    const used = await bare('/api/code', { code, password: PASSWORD })
    expect(used.status).toBe(200)
    expect(await (await meOf(used.cookie)).json()).toMatchObject({
      name: `Una ${count}`,
      role: 'viewer',
      oneTap: false,
    })
    expect((await bare('/api/code', { code, password: PASSWORD })).status).toBe(403)
    expect((await signIn(email)).status).toBe(200)
  })

  it('of eight at one moment lets in one', async () => {
    const { email, code } = await invited()
    const all = await Promise.all(Array.from({ length: 8 }, () => bare('/api/code', { code, password: PASSWORD })))
    expect(all.filter((one) => one.status === 200)).toHaveLength(1)
    expect((await office()).body.people.filter((one) => one.email === email)).toHaveLength(1)
  })

  it('is worth nothing once it is taken back, has run out, or another follows', async () => {
    const first = await invited()
    const { body } = await office()
    await office({ do: 'withdraw', invitation: body.pending.find((one) => one.email === first.email)!.id })
    expect((await bare('/api/code', { code: first.code })).status).toBe(403)

    const second = await invited()
    await db.query('UPDATE invitation SET expires_at = NOW(3) - INTERVAL 1 SECOND WHERE email = ?', [second.email])
    expect((await bare('/api/code', { code: second.code, password: PASSWORD })).status).toBe(403)

    const third = await invited()
    const again = await office({ do: 'invite', name: 'Una', email: third.email, role: 'tester' })
    expect((await bare('/api/code', { code: third.code })).status).toBe(403)
    expect((await bare('/api/code', { code: again.body.given!.code })).status).toBe(200)
  })

  it('is nowhere in the database, and a short password does not use it up', async () => {
    const { email, code } = await invited()
    const [rows] = await db.query('SELECT * FROM invitation WHERE email = ?', [email])
    expect(JSON.stringify(rows)).not.toContain(code.replaceAll('-', ''))
    expect((await bare('/api/code', { code, password: 'short' })).status).toBe(422)
    expect((await bare('/api/code', { code })).status).toBe(200)
  })

  it('is not made for who signs in already', async () => {
    const { email } = await joined()
    const answer = await office({ do: 'invite', name: 'Una', email: email.toUpperCase(), role: 'tester' })
    expect(answer.status).toBe(409)
    expect(answer.text).toContain(email)
  })

  it('gives a new password, ends every session, and leaves the old one until then', async () => {
    const una = await joined()
    const { body } = await office({ do: 'reset', person: una.id })
    expect((await meOf(una.cookie)).status).toBe(200)
    expect((await signIn(una.email)).status).toBe(200)
    const used = await bare('/api/code', { code: body.given!.code, password: 'another password of hers' })
    expect(used.status).toBe(200)
    expect((await meOf(una.cookie)).status).toBe(401)
    expect((await meOf(used.cookie)).status).toBe(200)
    expect((await signIn(una.email)).status).toBe(401)
    expect((await signIn(una.email, 'another password of hers')).status).toBe(200)
  })
})

describe('who works here no longer', () => {
  it('is signed out at once and cannot come in, by password or code; what they entered stays', async () => {
    const una = await joined()
    const job = await new TestJob().open(`T-P${count}`, [una.id])
    const { body } = await office({ do: 'reset', person: una.id })
    expect((await office({ do: 'active', person: una.id, active: false })).status).toBe(200)
    expect((await meOf(una.cookie)).status).toBe(401)
    const refused = await signIn(una.email)
    expect(refused.status).toBe(403)
    expect(refused.text).toContain(una.name)
    expect((await meOf(refused.cookie)).status).toBe(401)
    expect((await bare('/api/code', { code: body.given!.code, password: PASSWORD })).status).toBe(409)
    expect((await office({ do: 'reset', person: una.id })).status).toBe(409)
    const here = await knock<{ people: Person[] }>('supervisor', `/api/jobs/${job.id}/people`)
    expect(here.body.people).toContainEqual(expect.objectContaining({ id: una.id, active: false }))
    await office({ do: 'active', person: una.id, active: true })
    expect((await signIn(una.email)).status).toBe(200)
  })

  it('is never the last supervisor, however many ask at one moment', async () => {
    const two = [await joined('supervisor'), await joined('supervisor')]
    const ids = [...two.map((one) => one.id), demo.person.supervisor]
    const role = (person: string) => office({ do: 'role', person, role: 'viewer' })
    // Asked by a session of their own, since each may lose the right on the way.
    const answers = await Promise.all([
      ...two.map((one, k) =>
        bare('/api/office/people', { do: 'role', person: ids[1 - k], role: 'viewer' }, one.cookie),
      ),
      bare('/api/office/people', { do: 'active', person: demo.person.supervisor, active: false }, two[0]!.cookie),
    ])
    expect(answers.every((one) => [200, 401, 403, 409].includes(one.status))).toBe(true)
    const [left] = await db.query("SELECT id FROM person WHERE role = 'supervisor' AND active")
    expect((left as unknown[]).length).toBeGreaterThan(0)
    // As it was, for the tests that follow.
    await db.query("UPDATE person SET role = 'supervisor', active = 1 WHERE id = ?", [demo.person.supervisor])
    const { cookieOf, forget } = await import('../support/server')
    forget('supervisor')
    await cookieOf('supervisor')
    for (const one of two) await role(one.id)
    const last = await role(demo.person.supervisor)
    expect(last.status).toBe(409)
    expect(last.text).toContain('is the only supervisor')
    expect((await office({ do: 'active', person: demo.person.supervisor, active: false })).status).toBe(409)
  })
})

describe('who works on a job', () => {
  it('sees it from then on, and no longer from when they are taken off', async () => {
    const una = await joined()
    const job = await new TestJob().open(`T-W${count}`, [])
    const sees = async () =>
      (await fetch(`${base}/api/jobs/${job.id}/facts`, { headers: { cookie: una.cookie } })).status
    expect(await sees()).toBe(404)
    const change = (works: boolean) =>
      knock<{ people: { id: string; since: string }[] }>('supervisor', `/api/jobs/${job.id}/people`, {
        person: una.id,
        works,
      })
    const on = await change(true)
    expect(Date.parse(on.body.people.find((one) => one.id === una.id)!.since)).toBeGreaterThan(Date.now() - 60_000)
    expect((await change(true)).body).toEqual(on.body)
    expect(await sees()).toBe(200)
    await change(false)
    await change(false)
    expect(await sees()).toBe(404)
    const wrong = await knock('supervisor', `/api/jobs/${job.id}/people`, { person: uuid(), works: true })
    expect(wrong.status).toBe(422)
  })
})

describe('what was done', () => {
  type Lines = { lines: { id: number; by: string | null; action: string; about: Record<string, string> }[] }
  const lines = async (before = '') => (await knock<Lines>('supervisor', `/api/office/audit${before}`)).body.lines

  it('is written down with who did it and about whom, and read page by page', async () => {
    const una = await joined()
    await office({ do: 'role', person: una.id, role: 'viewer' })
    await signIn(una.email)
    await bare(
      '/api/auth/change-password',
      { currentPassword: PASSWORD, newPassword: 'a third one of hers' },
      una.cookie,
    )
    const job = await new TestJob().open(`T-L${count}`, [una.id])
    await knock('supervisor', `/api/jobs/${job.id}/people`, { person: una.id, works: false })
    const told = (await lines())
      .slice(0, 7)
      .map(({ by, action, about }) => [by, action, about.person ?? about.role ?? ''])
    const isolde = 'Isolde Marrow'
    expect(told).toEqual([
      [isolde, 'no-longer-on', una.name],
      [isolde, 'job-made', ''],
      [una.name, 'password-changed', ''],
      [una.name, 'signed-in', ''],
      [isolde, 'role-changed', una.name],
      [una.name, 'joined', 'tester'],
      [isolde, 'invited', una.name],
    ])
    const [first] = await lines()
    expect((await lines(`?before=${first!.id}`))[0]!.id).toBeLessThan(first!.id)
    expect(await lines('?before=1')).toEqual([])
    expect((await lines('?before=x'))[0]!.id).toBeGreaterThanOrEqual(first!.id)
  })

  it('is changed and removed by nobody', async () => {
    await expect(db.query('UPDATE audit SET action = "x"')).rejects.toThrow(/denied/)
    await expect(db.query('DELETE FROM audit')).rejects.toThrow(/denied/)
    const owner = await mysql.createConnection(process.env.UPSTAND_TEST_DATABASE_ADMIN!)
    await expect(owner.query('UPDATE audit SET action = "x"')).rejects.toThrow('append-only')
    await expect(owner.query('DELETE FROM audit')).rejects.toThrow('append-only')
    await owner.end()
  })
})

describe('what a supervisor sends wrongly', () => {
  it.each([
    [{ do: 'invite', name: 'U', email: 'u@test.invalid', role: 'tester' }, 422],
    [{ do: 'invite', name: 'Una', email: 'no address', role: 'tester' }, 422],
    [{ do: 'invite', name: 'Una', email: 'u@test.invalid', role: 'king' }, 422],
    [{ do: 'invite', name: 'Una \uD800', email: 'u@test.invalid', role: 'tester' }, 422],
    [{ do: 'role', person: uuid(), role: 'tester' }, 404],
    [{ do: 'active', person: uuid(), active: false }, 404],
    [{ do: 'reset', person: uuid() }, 404],
    [{ do: 'withdraw', invitation: uuid() }, 200],
    [{ do: 'delete' }, 422],
  ])('%j is answered in a sentence', async (wanted, status) => {
    const answer = await office(wanted)
    expect(answer.status).toBe(status)
    if (status !== 200) expect((answer.body as unknown as { title: string }).title).toMatch(/\.$/)
  })
})
