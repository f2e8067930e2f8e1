import { createHash, randomBytes } from 'node:crypto'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demo, knock } from '../support/server'

let app: mysql.Connection
const token = { tester: randomBytes(24).toString('base64url'), revoked: randomBytes(24).toString('base64url') }

beforeAll(async () => {
  app = await mysql.createConnection(process.env.UPSTAND_TEST_DATABASE!)
  const hash = (text: string): string => createHash('sha256').update(text).digest('hex')
  const insert =
    'INSERT INTO instrument_token (token_hash, instrument_id, created_at, revoked_at) VALUES (?, ?, NOW(3), ?)'
  await app.query(insert, [hash(token.tester), demo.tester07, null])
  await app.query(insert, [hash(token.revoked), demo.tester07, new Date()])
})
afterAll(() => app.end())

const volts = (value: number, rest: object = {}) => ({
  quantity: 'dc-voltage',
  value,
  unit: 'V',
  at: new Date().toISOString(),
  ...rest,
})
const post = (samples: unknown[], key: string = token.tester, rest: object = {}) =>
  knock<{ title: string; taken: number }>(
    'nobody',
    '/api/feed',
    { samples, ...rest },
    { authorization: `Bearer ${key}` },
  )

describe('the instrument feed', () => {
  it('takes a sample under the instrument’s own token, and shows it to the paired job', async () => {
    expect(await post([volts(385.4)])).toMatchObject({ status: 202, body: { taken: 1 } })
    const { body } = await knock<{ samples: { quantity: string; read: { text: string } }[] }>(
      'tester',
      `/api/jobs/${demo.job.open}/feed`,
    )
    expect(body.samples).toContainEqual(
      expect.objectContaining({ quantity: 'dc-voltage', read: expect.objectContaining({ text: '385.4' }) }),
    )
  })

  it('does not show it to a job it is not paired with', async () => {
    const { body } = await knock<{ samples: unknown[] }>('supervisor', `/api/jobs/${demo.job.mill}/feed`)
    expect(body.samples).toEqual([])
  })

  it('refuses a replayed sample', async () => {
    const one = volts(386)
    await post([one])
    expect(await post([one])).toMatchObject({ status: 409, body: { title: expect.stringContaining('sent before') } })
  })

  it.each([
    ['an unknown token', () => post([volts(1)], 'x'.repeat(32)), 401, 'not known'],
    ['a revoked token', () => post([volts(1)], token.revoked), 401, 'revoked'],
    [
      'another instrument’s token',
      () => post([volts(1)], token.tester, { instrument: demo.meter02 }),
      403,
      'another instrument',
    ],
    [
      'a quantity that is not the instrument’s',
      () => post([{ ...volts(700), quantity: 'irradiance', unit: 'Wm2' }]),
      422,
      'does not measure',
    ],
    ['a unit of something else', () => post([volts(1, { unit: 'A' })]), 422, 'comes in V'],
    [
      'a clock that is an hour off',
      () => post([volts(1, { at: new Date(Date.now() - 3_600_000).toISOString() })]),
      422,
      'clock',
    ],
    ['a unit that is missing', () => post([{ ...volts(1), unit: undefined }]), 422, 'samples.0.unit'],
    ['a value that is no number', () => post([{ ...volts(1), value: '12' }]), 422, 'samples.0.value'],
    ['more than a post may hold', () => post(Array.from({ length: 61 }, () => volts(1))), 422, 'samples'],
  ])('refuses %s', async (_, send, status, words) => {
    const answer = await send()
    expect(answer.status).toBe(status)
    expect(answer.body.title).toContain(words)
  })

  it('refuses more samples than one instrument may send in a minute', async () => {
    let status = 202
    for (let n = 0; n < 12 && status === 202; n++) {
      const at = Date.now() - 60_000 - n * 1000
      status = (await post(Array.from({ length: 60 }, (_, k) => volts(k, { at: new Date(at - k).toISOString() }))))
        .status
    }
    expect(status).toBe(429)
  })
})
