import { request } from 'node:http'
import mysql from 'mysql2/promise'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Body, Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { plantFrom } from '@/core/plant/projection'
import { readStepById } from '@/core/steps'
import { exampleBoard, exampleCircuit, exampleSupply } from '@/core/steps/worked'
import { conditions, readingBody } from '@/core/testing/factsBuilder'
import { base, demo, knock, type Who } from '../support/server'
import { inKit, TestJob } from '../support/testJob'

const job = new TestJob()
beforeAll(async () => {
  await job.open('T-1')
})
const send = (entries: unknown[], who: Who = 'tester') => job.send(entries, who)
const entry = (body: unknown, about: Record<string, unknown> = {}) => job.entry(body, about)
const volts = (value: number, rest: Record<string, unknown> = {}) => job.volts(value, rest)
const remark = (text: string) => job.remark(text)

describe('the door for entries', () => {
  it('keeps an entry, and the same again is already there', async () => {
    const one = remark('roof is dry')
    expect((await send([one])).body.fates).toMatchObject([{ id: one.id, fate: 'kept' }])
    expect((await send([one])).body.fates).toMatchObject([{ fate: 'already' }])
    expect((await send([{ ...one, clockOffset_ms: 17 }])).body.fates).toMatchObject([{ fate: 'already' }])
  })

  it('calls the same id with another body a conflict', async () => {
    const one = remark('first words')
    await send([one])
    const other = { ...one, body: { kind: 'remark', v: 1, text: 'other words' } }
    expect((await send([other])).body.fates).toMatchObject([
      { fate: 'conflict', reason: expect.stringContaining('same id') },
    ])
  })

  it('keeps the others of a batch and names the bad one', async () => {
    const batch = [remark('before'), entry({ kind: 'remark', v: 1 }), remark('after')]
    const { body } = await send(batch)
    expect(body.fates.map((one) => one.fate)).toEqual(['kept', 'refused', 'kept'])
    expect(body.fates[1]).toMatchObject({
      id: batch[1]!.id,
      code: 'shape',
      reason: expect.stringContaining('body.text'),
    })
  })

  it.each([
    ['absurd', () => volts(6000), 'cannot come from string 2'],
    ['negative-dc-voltage', () => volts(-380), 'crossed leads'],
    ['ten-times', () => volts(3850), 'decimal point'],
    ['a-tenth', () => volts(38.5), 'decimal point'],
    ['irradiance-out-of-reach', () => volts(385, { conditions: inKit(conditions(5000)) }), '1 to 1600'],
    ['temperature-out-of-reach', () => volts(385, { conditions: inKit(conditions(742, 300)) }), '−50 to 110'],
    ['no-step', () => ({ ...volts(385), step: 'pv-nothing' }), 'pv-nothing'],
    ['no-part', () => ({ ...volts(385), partId: uuid() }), 'no such part'],
    [
      'unit-of-slot',
      () =>
        entry(readingBody({ slots: { voltage: { text: '3', value: 3, bound: 'exact', unit: 'A' } } }), {
          partId: job.string.id,
          step: 'pv-voc',
        }),
      'takes V',
    ],
    [
      'slot-unknown',
      () =>
        entry(readingBody({ slots: { amperage: { text: '3', value: 3, bound: 'exact', unit: 'A' } } }), {
          partId: job.string.id,
          step: 'pv-voc',
        }),
      'no slot',
    ],
    ['wrong-job', () => ({ ...remark('elsewhere'), jobId: demo.job.mill }), 'another job'],
    ['wrong-visit', () => ({ ...remark('elsewhere'), visitId: uuid() }), 'no such visit'],
    ['shape', () => entry({ kind: 'remark', v: 1, text: 'x'.repeat(3000) }), 'body.text'],
    ['shape', () => ({ ...remark('when'), deviceTime: 'yesterday' }), 'deviceTime'],
    ['shape', () => ({ ...remark('who'), personId: demo.person.supervisor }), 'personId'],
    ['shape', () => entry({ kind: 'wish', v: 1 }), 'body'],
    [
      'sign-right',
      () =>
        entry({
          kind: 'signature',
          v: 1,
          role: 'checked',
          printedName: 'Tam',
          statement: 'checked it',
          coversHash: '0'.repeat(64),
        }),
      'checked',
    ],
  ])('refuses %s with a sentence that helps', async (code, make, words) => {
    const { body } = await send([make()])
    expect(body.fates).toMatchObject([{ fate: 'refused', code }])
    expect(body.fates[0]!.reason).toContain(words)
    expect(body.fates[0]!.reason).not.toContain('undefined')
  })

  describe('of earth and the AC side', () => {
    const added = (data: object) =>
      entry({ kind: 'plant-change', v: 1, before: null, after: data, base: null }, { partId: uuid() })
    const supply = added({ ...exampleSupply, phases: 3 })
    const board = added({ ...exampleBoard, supplyId: supply.partId, phases: 3 })
    const circuit = added({ ...exampleCircuit, phases: 3, boardId: board.partId, rcdId: null, layout: 'radial' })
    const single = added({ ...exampleCircuit, tag: '9', phases: 1, boardId: board.partId, rcdId: null })
    beforeAll(async () => {
      const { body } = await send([supply, board, circuit, single])
      expect(body.fates.every((one) => one.fate === 'kept')).toBe(true)
    })
    const ohm = (value: number) => ({ text: String(value), value, bound: 'exact' as const, unit: 'ohm' as const })
    const whole = readStepById('ac-insulation')!.example.reading!.slots
    const read = (at: typeof supply, step: string, slots: Body<'reading'>['slots']) =>
      entry(readingBody({ slots, plantRevision: at.id }), { partId: at.partId, step })
    const { 'l-pe': _, 'n-pe': __, ...onlyLineNeutral } = whole

    it.each([
      ['insulation with one pair of three', () => read(single, 'ac-insulation', onlyLineNeutral)],
      [
        'Ze with the conductor’s answer left out',
        () => read(supply, 'ze', { 'ze-l1': ohm(0.2), 'ze-l2': ohm(0.2), 'ze-l3': ohm(0.2) }),
      ],
      [
        'a loop of one line of three',
        () => read(circuit, 'zs', { 'loop-method': { choice: 'non-trip' }, 'zs-l1': ohm(0.4) }),
      ],
    ])('refuses what is not whole: %s', async (_name, make) => {
      const { body } = await send([make()])
      expect(body.fates).toMatchObject([{ fate: 'refused', code: 'incomplete' }])
      expect(body.fates[0]!.reason).toContain('is wanted still')
    })

    it('keeps the same once it is whole', async () => {
      expect((await send([read(single, 'ac-insulation', whole)])).body.fates).toMatchObject([{ fate: 'kept' }])
    })

    it('refuses a test that its part does not have', async () => {
      const ends = read(circuit, 'ring-ends', { 'end-line': ohm(0.4) })
      const { body } = await send([ends])
      expect(body.fates).toMatchObject([{ fate: 'refused', code: 'step-not-asked' }])
      expect(body.fates[0]!.reason).toContain('is not asked of')
    })
  })

  it('keeps ten times the expected once it was confirmed', async () => {
    expect((await send([volts(3850, { confirmed: ['ten-times'] })])).body.fates).toMatchObject([{ fate: 'kept' }])
  })

  it('keeps a display over its range as a bound', async () => {
    const over = volts(0)
    over.body = readingBody({
      slots: { voltage: { text: '>999', value: 999, bound: 'more-than', unit: 'V' } },
      conditions: inKit(conditions()),
      plantRevision: job.string.revision,
    })
    expect((await send([over])).body.fates).toMatchObject([{ fate: 'kept' }])
  })

  it('takes a void of one’s own and refuses one of somebody else’s', async () => {
    const own = remark('to be voided')
    const hers = remark('by the office')
    await send([own])
    await send([hers], 'supervisor')
    const voidOf = (target: string) => entry({ kind: 'void', v: 1, target, reason: 'a slip' })
    expect((await send([voidOf(own.id)])).body.fates).toMatchObject([{ fate: 'kept' }])
    expect((await send([voidOf(hers.id)])).body.fates).toMatchObject([{ fate: 'refused', code: 'void-own' }])
    expect((await send([voidOf(own.id)], 'supervisor')).body.fates).toMatchObject([{ fate: 'kept' }])
  })

  it('refuses a note of 2 MB, a body that is no JSON, and too many at once', async () => {
    expect((await send([remark('x'.repeat(2_000_000))])).status).toBe(413)
    expect((await knock('tester', `/api/jobs/${job.id}/entries`, '{"entries": [')).status).toBe(400)
    expect((await send(Array.from({ length: 201 }, () => remark('many')))).status).toBe(422)
  })

  it('answers refusals as problem details', async () => {
    const answer = await knock('viewer', `/api/jobs/${job.id}/entries`, { entries: [] })
    expect(answer.headers.get('content-type')).toContain('application/problem+json')
    expect(answer.body).toMatchObject({ status: 403, title: expect.stringContaining('read this job') })
  })
})

describe('what pages and doors are sent with', () => {
  it.each(['/', '/job', '/office', '/sign-in'])(
    '%s carries a nonce in every script and style, and nobody keeps it',
    async (path) => {
      const answer = await fetch(base + path)
      const nonce = /'nonce-([^']+)'/.exec(answer.headers.get('content-security-policy') ?? '')?.[1]
      const text = await answer.text()
      const scripts = text.match(/<script[^>]*>/g) ?? []
      expect(scripts.length).toBeGreaterThan(3)
      for (const script of scripts) expect(script).toContain(`nonce="${nonce}"`)
      for (const style of text.match(/<style[^>]*>/g) ?? []) expect(style).toContain(`nonce="${nonce}"`)
      expect(answer.headers.get('cache-control')).toMatch(/private.*no-store/)
    },
  )

  it('a door answers with data that runs nothing', async () => {
    const answer = await fetch(`${base}/api/health`)
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'")
  })

  it('a save, which is answered before the framework is asked, is sent with the same as every door', async () => {
    const path = `/api/jobs/${job.id}/entries`
    const [save, other] = [await knock('tester', path, { entries: [remark('hot')] }), await knock('tester', '/api/me')]
    expect(save.status).toBe(200)
    for (const header of [
      'content-security-policy',
      'x-content-type-options',
      'referrer-policy',
      'cache-control',
      'content-type',
    ])
      expect(save.headers.get(header), header).toBe(other.headers.get(header))
    for (const odd of [`${path}/`, `/api/jobs/${job.id}%00/entries`, `/api//jobs/${job.id}/entries`, `${path}?x=1`]) {
      const answer = await knock('tester', odd, { entries: [] })
      expect([200, 307, 308, 404, 422], odd).toContain(answer.status)
    }
    expect((await knock('nobody', path, { entries: [] })).status).toBe(401)
  })

  it('a method that nobody has is refused in a sentence', async () => {
    const { status, text } = await new Promise<{ status: number; text: string }>((resolve, reject) => {
      const asked = request(`${base}/api/jobs`, { method: 'TRACE' }, (answer) => {
        let text = ''
        answer.on('data', (chunk) => {
          text += chunk
        })
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, text }))
      })
      asked.on('error', reject)
      asked.end()
    })
    expect(status).toBe(405)
    expect(text).toContain('TRACE is not understood')
  })
})

describe('the database itself', () => {
  let app: mysql.Connection
  let owner: mysql.Connection
  beforeAll(async () => {
    app = await mysql.createConnection(process.env.UPSTAND_TEST_DATABASE!)
    owner = await mysql.createConnection(process.env.UPSTAND_TEST_DATABASE_ADMIN!)
  })
  afterAll(async () => {
    await app.end()
    await owner.end()
  })

  it.each(['entry', 'seal', 'regime'])('lets the application neither change nor remove a row of %s', async (table) => {
    await expect(app.query(`UPDATE \`${table}\` SET id = id`)).rejects.toMatchObject({
      code: 'ER_TABLEACCESS_DENIED_ERROR',
    })
    await expect(app.query(`DELETE FROM \`${table}\``)).rejects.toMatchObject({ code: 'ER_TABLEACCESS_DENIED_ERROR' })
  })

  it.each(['entry', 'seal'])('stops even its owner from changing or removing a row of %s', async (table) => {
    const [before] = await owner.query(`SELECT COUNT(*) AS n FROM \`${table}\``)
    expect((before as { n: number }[])[0]!.n).toBeGreaterThan(0)
    await expect(owner.query(`UPDATE \`${table}\` SET job_id = job_id`)).rejects.toMatchObject({
      sqlMessage: expect.stringContaining('append-only'),
    })
    await expect(owner.query(`DELETE FROM \`${table}\``)).rejects.toMatchObject({
      sqlMessage: expect.stringContaining('append-only'),
    })
  })

  it.each(['job', 'visit', 'person', 'company', 'instrument', 'part', 'user'])(
    'lets the application remove no row of %s, whatever it switches off',
    async (table) => {
      await app.query('SET foreign_key_checks = 0')
      await expect(app.query(`DELETE FROM \`${table}\` WHERE 1 = 0`)).rejects.toMatchObject({ errno: 1142 })
    },
  )

  it('gives the application no right over its tables', async () => {
    await expect(app.query('CREATE TABLE intruder (id INT)')).rejects.toMatchObject({ errno: 1142 })
    await expect(app.query('DROP TRIGGER entry_no_update')).rejects.toMatchObject({ errno: 1142 })
  })

  it('keeps passwords as a memory-hard hash', async () => {
    const [rows] = await app.query('SELECT password FROM account')
    for (const { password } of rows as { password: string }[]) expect(password).toMatch(/^[0-9a-f]{32}:[0-9a-f]{128}$/)
  })

  it('holds a projection of the plant that equals its entries', async () => {
    const { body } = await knock<{ facts: Facts }>('supervisor', `/api/jobs/${demo.job.mill}/facts`)
    const fromEntries = plantFrom(body.facts.entries as Entry[])
    const [rows] = await app.query('SELECT id, data, revision FROM part WHERE job_id = ?', [demo.job.mill])
    const projected = rows as { id: string; data: unknown; revision: string }[]
    expect(projected.length).toBe(fromEntries.size)
    for (const row of projected) {
      const data = typeof row.data === 'string' ? JSON.parse(row.data) : row.data
      expect({ data, revision: row.revision }).toEqual({
        data: fromEntries.get(row.id)!.data,
        revision: fromEntries.get(row.id)!.revision,
      })
    }
  })
})
