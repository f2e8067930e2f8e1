import mysql from 'mysql2/promise'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { base, cookieOf, demo, knock, type Who } from '../support/server'
import { TestJob } from '../support/testJob'

type Line = { progress?: { stage: string }; done?: { size: number }; problem?: { title: string; status: number } }

let db: mysql.Connection
const job = new TestJob()
beforeAll(async () => {
  db = await mysql.createConnection(process.env.UPSTAND_TEST_DATABASE!)
  await job.open(`T-PRINT-${Date.now() % 1e6}`)
})
afterAll(() => db.end())

async function linesOf(who: Who, path: string, body: object): Promise<Line[]> {
  const answer = await fetch(base + path, {
    method: 'POST',
    headers: {
      cookie: await cookieOf(who),
      origin: base,
      accept: 'application/x-ndjson',
      'content-type': 'application/json',
    },
    body: JSON.stringify(body),
  })
  const text = (await answer.text()).trim()
  return text.split('\n').map((line) => JSON.parse(line) as Line)
}
const print = (issue: string | null = null) => linesOf('tester', `/api/jobs/${job.id}/certificate`, { issue })
const printed = async (): Promise<number> => {
  const [rows] = await db.query('SELECT COUNT(*) AS n FROM printed WHERE job_id = ?', [job.id])
  return Number((rows as { n: number }[])[0]!.n)
}
const pdf = async (): Promise<Buffer> => {
  const answer = await fetch(`${base}/api/jobs/${job.id}/certificate`, {
    headers: { cookie: await cookieOf('tester') },
  })
  expect(answer.headers.get('content-type')).toBe('application/pdf')
  return Buffer.from(await answer.arrayBuffer())
}

/** A draft is drawn anew each hour: what is counted here is counted within one. */
async function awayFromTheHour(): Promise<void> {
  const left_ms = 3_600_000 - (Date.now() % 3_600_000)
  if (left_ms < 20_000) await new Promise((resolve) => setTimeout(resolve, left_ms + 500))
}

describe('a certificate', () => {
  beforeAll(awayFromTheHour, 30_000)

  it('is drawn once for all who ask for the same, and says how far it is', async () => {
    const all = await Promise.all([print(), print(), print(), print()])
    for (const lines of all) expect(lines.at(-1)?.done?.size).toBeGreaterThan(1000)
    const stages = all.flat().flatMap((line) => (line.progress ? [line.progress.stage] : []))
    expect(stages).toEqual(expect.arrayContaining(['waiting', 'reading', 'judging', 'drawing']))
    expect(await printed()).toBe(1)
    const [first, second] = [await pdf(), await pdf()]
    expect(first.equals(second)).toBe(true)
    expect(first.length).toBe(all[0]!.at(-1)!.done!.size)
    expect(await printed()).toBe(1)
  })

  it('is drawn anew once something was entered', async () => {
    const before = await pdf()
    await job.send([job.remark('the gutter was cleared')])
    expect((await pdf()).equals(before)).toBe(false)
    expect(await printed()).toBe(2)
  })

  it('of an issue that is none is refused in the last line', async () => {
    for (const issue of ['Z', 'á', '', 'A'])
      expect((await print(issue)).at(-1)).toMatchObject({
        problem: { status: 404, title: expect.stringMatching(/\.$/) },
      })
    expect((await knock('tester', `/api/jobs/${uuid()}/certificate`, { issue: null })).status).toBe(404)
  })

  it('of a sealed issue is the same whoever draws it', async () => {
    const path = `/api/jobs/${demo.job.sealed}/certificate`
    const lines = await linesOf('tester', path, { issue: 'A' })
    expect(lines.at(-1)?.done?.size).toBeGreaterThan(1000)
    const again = await linesOf('supervisor', path, { issue: 'A' })
    expect(again.filter((line) => line.progress?.stage === 'drawing')).toEqual([])
    expect(again.at(-1)).toEqual(lines.at(-1))
  })
})

describe('a seal', () => {
  it('that cannot be made says why in its last line, and as a status to who wants no lines', async () => {
    const path = `/api/jobs/${job.id}/seal`
    const lines = await linesOf('supervisor', path, {})
    expect(lines.at(-1)).toMatchObject({ problem: { status: 409 } })
    expect((await knock('supervisor', path, {})).status).toBe(409)
  })
})
