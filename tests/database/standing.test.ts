/** A save rests on nothing that was true only at the save before: whatever changed meanwhile, by whatever way, counts. */
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Body } from '@/core/record/entry'
import type { Instrument } from '@/core/record/instrument'
import { cookieOf, demo, forget, knock, type Who } from '../support/server'
import { type Fates, TestJob } from '../support/testJob'

const job = new TestJob()
let owner: mysql.Connection

beforeAll(async () => {
  await job.open('T-ST1')
  owner = await mysql.createConnection({ uri: process.env.UPSTAND_TEST_DATABASE_ADMIN!, timezone: 'Z' })
})
afterAll(() => owner.end())

const by07 = {
  id: demo.tester07,
  tag: '07',
  name: 'tester',
  calibrationDue: '2030-01-01',
  standIn: true,
  accuracy: null,
  most: null,
}
const bodyOf = async <K extends 'signature' | 'reading'>(id: string): Promise<Body<K>> =>
  (await job.entries()).find((entry) => entry.id === id)!.body as Body<K>
const one = async <T>(query: string, values: unknown[]): Promise<T> =>
  ((await owner.query(query, values))[0] as T[])[0]!
const isThere = async (id: string) =>
  (await one<{ n: number }>('SELECT COUNT(*) AS n FROM entry WHERE id = ?', [id])).n === 1
const tokenOf = async (who: Who) => decodeURIComponent((await cookieOf(who)).split('=')[1]!).split('.')[0]!

describe('what changed since the save before', () => {
  beforeEach(async () => {
    // Twice, so that the second rests on the first.
    for (const _ of [1, 2])
      expect(await job.fatesOf([job.volts(384.1, { instrument: by07, how: 'typed' })])).toEqual(['kept'])
  })

  const refusedWith = async (status: number) => {
    const late = job.volts(384.2)
    const answer = await job.send([late])
    expect([answer.status, await isThere(late.id)]).toEqual([status, false])
  }

  it('a session that ended keeps nothing', async () => {
    await owner.query('DELETE FROM session WHERE token = ?', [await tokenOf('tester')])
    await refusedWith(401)
    forget('tester')
  })

  it('a session that ran out keeps nothing', async () => {
    await owner.query('UPDATE session SET expires_at = NOW() - INTERVAL 1 SECOND WHERE token = ?', [
      await tokenOf('tester'),
    ])
    await refusedWith(401)
    forget('tester')
  })

  it('somebody who left keeps nothing', async () => {
    await owner.query('UPDATE person SET active = 0 WHERE id = ?', [demo.person.tester])
    await refusedWith(401)
    await owner.query('UPDATE person SET active = 1 WHERE id = ?', [demo.person.tester])
  })

  it('somebody taken off the job keeps nothing', async () => {
    const off = [job.id, demo.person.tester]
    const row = await one<Record<string, string>>('SELECT * FROM job_person WHERE job_id = ? AND person_id = ?', off)
    await owner.query('DELETE FROM job_person WHERE job_id = ? AND person_id = ?', off)
    await refusedWith(404)
    await owner.query('INSERT INTO job_person SET ?', row)
  })

  it('somebody who may only read now keeps nothing', async () => {
    await owner.query("UPDATE person SET role = 'viewer' WHERE id = ?", [demo.person.tester])
    await refusedWith(403)
    await owner.query("UPDATE person SET role = 'tester' WHERE id = ?", [demo.person.tester])
  })

  it('a new name signs, though it differs by a letter’s height only', async () => {
    const { name } = await one<{ name: string }>('SELECT name FROM person WHERE id = ?', [demo.person.tester])
    await owner.query('UPDATE person SET name = UPPER(name) WHERE id = ?', [demo.person.tester])
    const signature = job.entry({
      kind: 'signature',
      v: 1,
      role: 'tested',
      printedName: name.toUpperCase(),
      statement: 'Tested as recorded.',
      coversHash: '0'.repeat(64),
    })
    const fate = await job.fateOf(signature)
    await owner.query('UPDATE person SET name = ? WHERE id = ?', [name, demo.person.tester])
    expect(fate.fate).toBe('kept')
    expect((await bodyOf<'signature'>(signature.id)).printedName).toBe(name.toUpperCase())
  })

  it('an instrument is as the kit has it now', async () => {
    const { data } = await one<{ data: Instrument }>('SELECT data FROM instrument WHERE id = ?', [demo.tester07])
    const due = { ...data, calibrationDue: '2031-05-06' }
    await owner.query('UPDATE instrument SET data = ? WHERE id = ?', [JSON.stringify(due), demo.tester07])
    const late = job.volts(384.3, { instrument: by07, how: 'typed' })
    await job.fateOf(late)
    await owner.query('UPDATE instrument SET data = ? WHERE id = ?', [JSON.stringify(data), demo.tester07])
    expect((await bodyOf<'reading'>(late.id)).instrument!.calibrationDue).toBe('2031-05-06')
  })

  it('another person’s page keeps nothing, though it has the session', async () => {
    const late = job.volts(384.4)
    const answer = await knock<Fates>('tester', `/api/jobs/${job.id}/entries`, {
      personId: demo.person.viewer,
      entries: [late],
    })
    expect([answer.status, await isThere(late.id)]).toEqual([409, false])
  })

  it('what was kept meanwhile by another process is found, and nothing is kept twice', async () => {
    const last = await one<Record<string, unknown>>('SELECT * FROM entry WHERE job_id = ? ORDER BY seq DESC LIMIT 1', [
      job.id,
    ])
    const foreign = { ...last, id: job.remark('').id, seq: Number(last.seq) + 1, body: JSON.stringify(last.body) }
    await owner.query('INSERT INTO entry SET ?', foreign)
    const late = job.volts(384.5)
    expect(await job.fatesOf([late])).toEqual(['kept'])
    expect(await job.fatesOf([late])).toEqual(['already'])
    const { seq } = await one<{ seq: number }>('SELECT seq FROM entry WHERE id = ?', [late.id])
    expect(seq).toBe(foreign.seq + 1)
  })
})
