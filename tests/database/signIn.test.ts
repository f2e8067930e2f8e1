/** Signing in: guessing is slowed, and nobody is locked out by somebody else. */
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Database, openDatabase } from '@/server/db/client'
import { addPerson } from '@/server/people/people'
import { base, demo, knock } from '../support/server'

const PASSWORD = 'a long enough password'
let db: Database
const person = async (name: string): Promise<string> => {
  const email = `${name}.${uuid().slice(-8)}@test.invalid`
  await addPerson(db, { name, email, password: PASSWORD, role: 'viewer' })
  return email
}

beforeAll(() => {
  db = openDatabase(process.env.UPSTAND_TEST_DATABASE!, 2)
})
afterAll(() => db.close())

const cookiesIn = (answer: Response): string =>
  answer.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ')
const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
  fetch(base + path, {
    method: 'POST',
    headers: { origin: base, 'content-type': 'application/json', ...headers },
    body: JSON.stringify(body),
  })
const signIn = (email: string, password = PASSWORD, cookie = '') =>
  post('/api/auth/sign-in/email', { email, password }, cookie ? { cookie } : {})
const me = (cookie: string) => fetch(`${base}/api/me`, { headers: { cookie } })

describe('guessing a password', () => {
  it('has to wait after ten wrong ones, whatever address the sender invents, and says so', async () => {
    const email = await person('Guessed')
    const guess = (k: number) =>
      post('/api/auth/sign-in/email', { email, password: `wrong ${k}` }, { 'x-forwarded-for': `10.1.2.${k}` })
    for (let k = 0; k < 10; k++) expect((await guess(k)).status).toBe(401)
    const eleventh = await guess(10)
    expect(eleventh.status).toBe(429)
    expect((await eleventh.json()).title).toMatch(/Too many wrong passwords.*15 minutes/)
  }, 30_000)

  it('counts what comes at one moment', async () => {
    const email = await person('Flooded')
    const answers = await Promise.all(Array.from({ length: 40 }, (_, k) => signIn(email, `wrong ${k}`)))
    expect(answers.filter((one) => one.status === 401).length).toBeLessThanOrEqual(10)
    expect(answers.filter((one) => one.status === 429).length).toBeGreaterThanOrEqual(30)
  }, 30_000)

  it('locks out nobody else, nor its victim on a device where they signed in before', async () => {
    const victim = await person('Victim')
    const other = await person('Neighbour')
    const known = cookiesIn(await signIn(victim))
    for (let k = 0; k < 12; k++) await signIn(victim, `wrong ${k}`)
    expect((await signIn(victim)).status).toBe(429)
    expect((await signIn(victim, PASSWORD, known)).status).toBe(200)
    expect((await signIn(other)).status).toBe(200)
  }, 60_000)

  it('is not helped by a mark that was made for somebody else', async () => {
    const [one, two] = [await person('One'), await person('Two')]
    const mark = cookiesIn(await signIn(one))
    for (let k = 0; k < 10; k++) await signIn(two, `wrong ${k}`, mark)
    expect((await signIn(two, PASSWORD, mark)).status).toBe(429)
  }, 60_000)

  it('answers what is no sign-in at all with a sentence', async () => {
    for (const body of [{}, { email: 7, password: [] }, 'text', null]) {
      const answer = await post('/api/auth/sign-in/email', body)
      expect(answer.status).toBeGreaterThanOrEqual(400)
      expect(answer.status).toBeLessThan(500)
    }
  })
})

describe('a new password', () => {
  it('ends every other session of its owner, though the page asks for the opposite', async () => {
    const email = await person('Changer')
    const here = cookiesIn(await signIn(email))
    const elsewhere = cookiesIn(await signIn(email))
    expect((await me(elsewhere)).status).toBe(200)
    const wanted = { currentPassword: PASSWORD, newPassword: 'another long password', revokeOtherSessions: false }
    const changed = await post('/api/auth/change-password', wanted, { cookie: here })
    expect(changed.status).toBe(200)
    expect((await me(elsewhere)).status).toBe(401)
    expect((await me(cookiesIn(changed) || here)).status).toBe(200)
    expect((await signIn(email)).status).toBe(401)
    expect((await signIn(email, 'another long password')).status).toBe(200)
  })
})

describe('the demo door', () => {
  it.each([
    ['a public name', { 'x-forwarded-host': 'upstand.example' }],
    ['an outside address', { 'x-forwarded-for': '203.0.113.7' }],
    ['two addresses', { 'x-forwarded-for': '127.0.0.1, 203.0.113.7' }],
    ['a proxy that names itself', { via: '1.1 gate' }],
    ['a proxy of the standard', { forwarded: 'for=203.0.113.7' }],
    ['a proxy of another habit', { 'x-real-ip': '203.0.113.7' }],
  ])('is shut to %s', async (_, headers) => {
    expect((await fetch(`${base}/api/demo/people`, { headers })).status).toBe(404)
    expect((await post('/api/demo/sign-in', { id: demo.person.tester }, headers as never)).status).toBe(404)
  })

  it('is open on this machine', async () => {
    expect((await fetch(`${base}/api/demo/people`)).status).toBe(200)
  })
})

describe('what used to end in an error', () => {
  it('is refused in a sentence', async () => {
    const wanted = {
      id: uuid(),
      visitId: uuid(),
      number: `Z${Date.now() % 1e8}`,
      name: 'X',
      place: '',
      people: [uuid()],
    }
    expect(await knock('supervisor', '/api/jobs', wanted)).toMatchObject({
      status: 422,
      body: { title: expect.stringContaining('not in this company') },
    })
    const tool = {
      id: uuid(),
      tag: `R${Date.now() % 1e6}`,
      name: 'Retired',
      serial: '',
      calibrationDue: null,
      standIn: false,
      ranges: [{ measures: 'dc-voltage', accuracy: { ofReading_pct: 1, digits: 1 }, most: 600, decimals: 1 }],
    }
    expect((await knock('supervisor', '/api/instruments', tool)).status).toBe(201)
    expect((await knock('supervisor', `/api/instruments/${tool.id}/retire`, {})).status).toBe(200)
    expect(await knock('supervisor', '/api/instruments', tool)).toMatchObject({ status: 409 })
    for (const issue of ['á', 'Ａ', 'a', '', 'A B'])
      expect(
        (await knock('tester', `/api/jobs/${demo.job.sealed}/record?issue=${encodeURIComponent(issue)}`)).status,
      ).toBe(404)
    expect((await knock('tester', `/api/jobs/${demo.job.open.replace('de3', 'dé3')}/facts`)).status).toBe(404)
  })
})

describe('one’s own sessions', () => {
  type Own = { sessions: { id: string; isOwn: boolean; device: string }[] }
  const sessionsOf = async (cookie: string, body?: unknown): Promise<Own> => {
    const request = body
      ? post('/api/me/sessions', body, { cookie })
      : fetch(`${base}/api/me/sessions`, { headers: { cookie } })
    return (await (await request).json()) as Own
  }

  it('are listed without their secret, and each can be ended from another', async () => {
    const email = await person('Wanderer')
    const [here, there, elsewhere] = [await signIn(email), await signIn(email), await signIn(email)].map(cookiesIn) as [
      string,
      string,
      string,
    ]
    const { sessions } = await sessionsOf(here)
    expect(sessions.filter((one) => one.isOwn).length).toBe(1)
    expect(sessions.length).toBe(3)
    const secret = /session_token=([^.;]+)/.exec(decodeURIComponent(there))![1]!
    expect(JSON.stringify(sessions)).not.toContain(secret)
    await sessionsOf(here, { end: sessions.find((one) => !one.isOwn)!.id })
    expect([(await me(there)).status, (await me(elsewhere)).status].sort()).toEqual([200, 401])
    expect((await sessionsOf(here, { end: 'others' })).sessions.length).toBe(1)
    expect((await me(here)).status).toBe(200)
    for (const gone of [there, elsewhere]) expect((await me(gone)).status).toBe(401)
  })

  it('of somebody else are never touched', async () => {
    const [mine, hers] = [cookiesIn(await signIn(await person('Mine'))), cookiesIn(await signIn(await person('Hers')))]
    const { sessions } = await sessionsOf(hers)
    await sessionsOf(mine, { end: sessions[0]!.id })
    expect((await me(hers)).status).toBe(200)
    expect((await fetch(`${base}/api/me/sessions`)).status).toBe(401)
  })
})
