import { describe, expect, it, vi } from 'vitest'
import { z } from 'zod'

vi.stubEnv('DATABASE_URL', 'mysql://nobody@127.0.0.1:1/none')
vi.stubEnv('UPSTAND_SECRET', 'x'.repeat(40))
vi.stubEnv('UPSTAND_SEAL_KEY_FILE', '/nowhere')
vi.stubEnv('UPSTAND_PORT', '4380')
const { bodyOf, door, jsonOf, problem, Refused, whereAndWhy } = await import('./door')

const HOME = 'http://127.0.0.1:4380'
const post = (body: string, headers: Record<string, string> = {}): Request =>
  new Request(`${HOME}/api/x`, { method: 'POST', body, headers })
const answers = door(async () => Response.json({ fine: true }))

describe('a door', () => {
  it.each([
    ['its own page', { origin: HOME }, 200],
    ['another site', { origin: 'https://elsewhere.example' }, 403],
    ['another port of this machine', { origin: 'http://127.0.0.1:9999' }, 403],
    ['another site that hides its name', { 'sec-fetch-site': 'cross-site' }, 403],
    ['an instrument, which is no page', {}, 200],
  ])('answers a write from %s', async (_, headers, status) => {
    expect((await answers(post('{}', headers), {})).status).toBe(status)
  })

  it('answers a refusal as problem details, without caching', async () => {
    const refusing = door(async () => {
      throw new Refused(409, 'door.seal-nothing-new', { issue: 'A' })
    })
    const answer = await refusing(new Request(`${HOME}/api/x`), {})
    expect(answer.headers.get('cache-control')).toBe('no-store')
    expect(await answer.json()).toEqual({
      type: 'about:blank#door.seal-nothing-new',
      title: 'Nothing was added since issue A. It stays as it is.',
      status: 409,
    })
  })

  it('never shows its inside', async () => {
    const logged = vi.spyOn(console, 'error').mockImplementation(() => undefined)
    const broken = door(async () => {
      throw new Error('password=hunter2')
    })
    const answer = await broken(new Request(`${HOME}/api/x`), {})
    expect(answer.status).toBe(500)
    expect(await answer.text()).not.toContain('hunter2')
    expect(logged).toHaveBeenCalled()
    logged.mockRestore()
  })

  it('writes into its log what was asked of the database, and none of the values', async () => {
    const logged = vi.spyOn(console, 'error').mockImplementation(() => undefined)
    const asking = (code: string) =>
      door(async () => {
        const cause = Object.assign(new Error(`it said ${code}`), { code })
        throw Object.assign(new Error('Failed query: select 1 params: secret-token'), { query: 'select 1', cause })
      })
    const wrong = await asking('ER_PARSE_ERROR')(new Request(`${HOME}/api/x`), {})
    expect(wrong.status).toBe(500)
    const raw = door(async () => {
      throw Object.assign(new Error('You have an error'), { sql: "SELECT 1 WHERE token = 'secret-token'", errno: 1064 })
    })
    expect((await raw(new Request(`${HOME}/api/x`), {})).status).toBe(500)
    const full = door(async () => {
      throw Object.assign(new Error('The table is full'), { sql: "INSERT 'secret-token'", errno: 1114 })
    })
    const told = await full(new Request(`${HOME}/api/x`), {})
    expect([told.status, await told.text()]).toEqual([507, expect.stringContaining('disk of the office is full')])
    const away = await asking('ECONNREFUSED')(new Request(`${HOME}/api/x`), {})
    expect(away.status).toBe(503)
    expect(await away.json()).toMatchObject({ title: expect.stringContaining('stays on this device') })
    const written = JSON.stringify(logged.mock.calls)
    expect(written).toContain('it said ER_PARSE_ERROR in: select 1')
    expect(written).toContain('the database does not answer')
    expect(written).not.toContain('secret-token')
    logged.mockRestore()
  })

  it('leaves no answer to somebody who has gone', async () => {
    const control = new AbortController()
    const slow = door(async () => {
      control.abort()
      throw new Error('aborted')
    })
    expect((await slow(new Request(`${HOME}/api/x`, { signal: control.signal }), {})).status).toBe(499)
  })
})

describe('what a door reads', () => {
  it('is refused when it is no JSON, or longer than the door takes', async () => {
    await expect(jsonOf(post('{'), 1)).rejects.toMatchObject({ status: 400 })
    await expect(jsonOf(post(JSON.stringify('x'.repeat(2000))), 1)).rejects.toMatchObject({ status: 413 })
    await expect(jsonOf(post('{}', { 'content-length': '99999999' }), 1)).rejects.toMatchObject({ status: 413 })
  })

  it('is refused by its first wrong place', async () => {
    const schema = z.strictObject({ name: z.string(), size: z.number() })
    await expect(bodyOf(post('{"name":"a","size":"b"}'), schema)).rejects.toThrow('size')
    await expect(bodyOf(post('{"name":"a","size":1,"more":1}'), schema)).rejects.toThrow('more')
    expect(await bodyOf(post('{"name":"a","size":1}'), schema)).toEqual({ name: 'a', size: 1 })
  })

  it('is described for people', () => {
    const { error } = z.object({ a: z.object({ b: z.number() }) }).safeParse({ a: { b: 'x' } })
    expect(whereAndWhy(error!)).toMatchObject({ where: 'a.b', why: expect.stringContaining('number') })
    expect(problem(404, 'door.not-found').status).toBe(404)
  })
})
