import { readFileSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import { unitSpellings } from '@/core/quantity/unit'
import { feedUnits } from '@/core/record/feed'
import type { Instrument } from '@/core/record/instrument'
import { demo, knock } from '../support/server'

const giveKey = async (id: string): Promise<string> =>
  (await knock<{ key: string }>('supervisor', `/api/instruments/${id}/key`, { give: true })).body.key

/** A tester of its own, so that what this file sends takes nothing from the rate of the demo's. */
const own: Instrument = {
  id: uuid(),
  tag: '41',
  name: 'String tester',
  serial: '',
  calibrationDue: null,
  standIn: false,
  ranges: [
    { measures: 'dc-voltage', accuracy: { ofReading_pct: 0.5, digits: 2 }, most: 1000, decimals: 1 },
    { measures: 'iv-curve', accuracy: { ofReading_pct: 1, digits: 0 }, most: 1000, decimals: 0 },
  ],
}
let key: string
beforeAll(async () => {
  await knock('supervisor', '/api/instruments', own)
  key = await giveKey(own.id)
  await knock('tester', `/api/jobs/${demo.job.open}/pair`, { instrumentId: own.id })
})

const volts = (value: number, rest: object = {}) => ({
  quantity: 'dc-voltage',
  value,
  unit: 'V',
  at: new Date().toISOString(),
  ...rest,
})
const post = (samples: unknown[], under: string = key, rest: object = {}) =>
  knock<{ title: string; taken: number }>(
    'nobody',
    '/api/feed',
    { samples, ...rest },
    { authorization: `Bearer ${under}` },
  )

describe('the instrument feed', () => {
  it('takes a sample under the instrument’s own key, and shows it to the paired job', async () => {
    expect(await post([volts(385.4)])).toMatchObject({ status: 202, body: { taken: 1 } })
    const { body } = await knock<{ samples: { quantity: string; read: { text: string } }[] }>(
      'tester',
      `/api/jobs/${demo.job.open}/feed`,
    )
    expect(body.samples).toContainEqual(
      expect.objectContaining({ quantity: 'dc-voltage', read: expect.objectContaining({ text: '385.4' }) }),
    )
  })

  it('takes a curve point by point, and refuses one without points or points of something else', async () => {
    const part = (value: number, sweep?: object) => ({
      ...volts(value, { quantity: 'iv-curve', unit: 'one', at: new Date(Date.now() + value).toISOString() }),
      ...(sweep ? { sweep } : {}),
    })
    const points = [
      [0, 9.6],
      [100, 9.5],
    ]
    expect(
      await post([part(2, { id: 's1', points, done: false }), part(4, { id: 's1', points, done: true, sweep_s: 0.8 })]),
    ).toMatchObject({
      status: 202,
      body: { taken: 2 },
    })
    const { body } = await knock<{ samples: object[] }>('tester', `/api/jobs/${demo.job.open}/feed`)
    expect(body.samples).toContainEqual(
      expect.objectContaining({ quantity: 'iv-curve', sweep: { id: 's1', points, done: true, sweep_s: 0.8 } }),
    )
    const { sweep: _, ...bare } = { ...part(6), sweep: undefined }
    for (const wrong of [bare, volts(5, { sweep: { id: 's1', points, done: false } })])
      expect(await post([wrong])).toMatchObject({
        status: 422,
        body: { title: expect.stringContaining('next points') },
      })
    const tooMany = Array.from({ length: 61 }, (_, k) => [k, 1])
    expect((await post([part(8, { id: 's2', points: tooMany, done: false })])).status).toBe(422)
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
    ['an unknown key', () => post([volts(1)], 'x'.repeat(32)), 401, 'not known'],
    ['another instrument’s key', () => post([volts(1)], key, { instrument: demo.meter02 }), 403, 'another instrument'],
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

describe('the key of an instrument', () => {
  const key41 = `/api/instruments/${own.id}/key`

  it('is void once a new one is given, and once it is taken back', async () => {
    const [before, after] = [await giveKey(own.id), await giveKey(own.id)]
    const old = await post([volts(1)], before)
    expect(old.status).toBe(401)
    expect(old.body.title).toContain('taken back')
    expect((await post([volts(1)], after)).status).toBe(202)
    expect(await knock('supervisor', key41, { give: false })).toMatchObject({ status: 200, body: { key: null } })
    expect((await post([volts(1)], after)).status).toBe(401)
  })

  it('is given to nothing that is not in the kit', async () => {
    const answer = await knock<{ title: string }>('supervisor', `/api/instruments/${uuid()}/key`, { give: true })
    expect(answer).toMatchObject({ status: 404, body: { title: 'That instrument is not in the kit.' } })
  })

  it('is not for a simulated instrument, whose own one would be void', async () => {
    const answer = await knock<{ title: string }>('supervisor', `/api/instruments/${demo.tester07}/key`, { give: true })
    expect(answer).toMatchObject({ status: 409, body: { title: expect.stringContaining('sends by itself') } })
  })

  it('goes with the instrument that leaves the kit, which no job hears any more', async () => {
    const last = await giveKey(own.id)
    expect((await knock('supervisor', `/api/instruments/${own.id}/retire`, {})).status).toBe(200)
    expect((await post([volts(1)], last)).status).toBe(401)
    const { body } = await knock<{ instruments: Instrument[] }>('tester', '/api/instruments')
    expect(body.instruments.map((one) => one.tag)).not.toContain('41')
    expect((await knock('supervisor', `/api/instruments/${own.id}/retire`, {})).status).toBe(404)
  })
})

describe('a page that listens', () => {
  it('begins with what comes from now on, where nothing is paired yet', async () => {
    const feed = `/api/jobs/${demo.job.empty}/feed`
    const { body } = await knock<{ cursor: number; samples: unknown[] }>('supervisor', feed)
    expect(body).toMatchObject({ samples: [], paired: [] })
    // A job's own first look has heard of all samples so far; a page of this job does not go through them.
    const other = await knock<{ cursor: number }>('tester', `/api/jobs/${demo.job.open}/feed`)
    expect(body.cursor).toBeGreaterThanOrEqual(1)
    expect(other.body.cursor - body.cursor).toBeLessThan(50)
  })
})

/** Another one, for the key of the first was taken back by now. */
async function anotherTester(): Promise<void> {
  const tester = { ...own, id: uuid(), tag: '43' }
  await knock('supervisor', '/api/instruments', tester)
  key = await giveKey(tester.id)
  await knock('tester', `/api/jobs/${demo.job.open}/pair`, { instrumentId: tester.id })
}

describe('the page about the feed', () => {
  beforeAll(anotherTester)
  const page = readFileSync(`${import.meta.dirname}/../../docs/instrument-feed.md`, 'utf8')

  it('has a line of curl whose body is taken as it stands, but for its time', async () => {
    const body = /-d '([^']+)'/.exec(page)![1]!
    const now = `${new Date(Date.now() - 2000).toISOString().slice(0, 19)}Z`
    const sent = JSON.parse(body.replace('2026-05-14T11:02:28Z', now)) as object
    const answer = await knock('nobody', '/api/feed', sent, { authorization: `Bearer ${key}` })
    expect(answer).toMatchObject({ status: 202, body: { taken: 1 } })
  })

  it('names every quantity with its unit', () => {
    for (const [quantity, unit] of Object.entries(feedUnits)) {
      const row = page.split('\n').find((line) => line.split('|')[1]?.includes(`\`${quantity}\``))
      const written = unitSpellings[unit].written || '`one`'
      expect([quantity, row?.split('|')[2]?.trim()]).toEqual([quantity, written])
    }
  })
})

describe('what people and instruments write', () => {
  const at = (ms: number) => new Date(Date.now() - ms)
  const seconds = (date: Date): string => date.toISOString().slice(0, 19)
  const live = async (): Promise<{ read: { text: string; value: number; bound: string; unit: string } }[]> =>
    (await knock<{ samples: never[] }>('tester', `/api/jobs/${demo.job.open}/feed`)).body.samples

  it.each([
    ['Z without fractions', (date: Date) => `${seconds(date)}Z`],
    ['no offset from UTC', (date: Date) => `${seconds(date)}+00:00`],
    ['an offset', (date: Date) => `${seconds(new Date(date.getTime() + 7_200_000))}+02:00`],
    ['microseconds', (date: Date) => `${seconds(date)}.123456Z`],
  ])('any RFC 3339 time: %s', async (name, written) => {
    expect((await post([volts(200 + name.length, { at: written(at(60_000)) })])).status).toBe(202)
  })

  it('no time that is none', async () => {
    for (const wrong of ['yesterday', '2026-11-28', '2026-11-28T10:00', '2026-13-01T00:00:00Z', 17])
      expect((await post([volts(1, { at: wrong })])).status).toBe(422)
  })

  it('another unit of the quantity, converted; the text stays', async () => {
    expect((await post([volts(0.3997, { unit: 'kV' }), volts(0.401, { unit: 'kV', text: '0.401' })])).status).toBe(202)
    const shown = (await live()).map((one) => one.read)
    expect(shown).toContainEqual({ text: '399.7', value: 399.7, bound: 'exact', unit: 'V' })
    expect(shown).toContainEqual({ text: '0.401 kV', value: 401, bound: 'exact', unit: 'V' })
    expect(await post([volts(1, { unit: 'A' })])).toMatchObject({ status: 422 })
  })

  it('a display over its range, which can be kept as it came', async () => {
    expect((await post([volts(999, { bound: 'more-than' })])).status).toBe(202)
    expect((await live()).map((one) => one.read)).toContainEqual({
      text: '>999.0',
      value: 999,
      bound: 'more-than',
      unit: 'V',
    })
  })

  it('two values at one time, and the same one only once', async () => {
    const time = `${seconds(at(90_000))}Z`
    expect((await post([volts(311, { at: time })])).status).toBe(202)
    expect((await post([volts(312, { at: time })])).status).toBe(202)
    expect((await post([volts(311, { at: time })])).status).toBe(409)
  })

  it('no text that says something else than its figure', async () => {
    const answer = await post([volts(400, { text: '<12.0' })])
    expect(answer).toMatchObject({ status: 422, body: { title: expect.stringContaining('<12.0') } })
  })

  it('nothing of an instrument that no job has: nobody would see it', async () => {
    const lone = { ...own, id: uuid(), tag: '42' }
    await knock('supervisor', '/api/instruments', lone)
    const answer = await post([volts(1)], await giveKey(lone.id))
    expect(answer).toMatchObject({
      status: 409,
      body: { title: expect.stringContaining('No job has this instrument') },
    })
  })
})
