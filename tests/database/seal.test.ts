import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { spawnSync } from 'node:child_process'
import mysql from 'mysql2/promise'
import { describe, expect, it } from 'vitest'
import { verifySeal } from '@/server/seal/verifySeal'
import { demo, knock } from '../support/server'

type Loose = Record<string, never> & {
  record: { facts: { entries: { body: Record<string, unknown> }[] }; evaluation: { steps: { verdict: string }[] } }
  seal: Record<string, string>
  chain: unknown[]
  digests: Record<string, string>
}

const sealed = async (): Promise<Loose> =>
  (await knock<Loose>('tester', `/api/jobs/${demo.job.sealed}/record?issue=A`)).body

describe('a sealed record', () => {
  it('is whole as it was exported', async () => {
    expect(verifySeal(await sealed())).toMatchObject({
      whole: true,
      keyFingerprint: expect.stringMatching(/^[0-9a-f]{64}$/),
    })
  })

  it('is whole however its text is laid out', async () => {
    expect(verifySeal(JSON.parse(JSON.stringify(await sealed(), null, 4)))).toMatchObject({ whole: true })
  })

  it.each([
    [
      'a reading',
      (r: Loose) => {
        r.record.facts.entries[4]!.body.note = 'changed'
      },
      '/record/facts/entries/4',
    ],
    [
      'a verdict',
      (r: Loose) => {
        r.record.evaluation.steps[1]!.verdict = 'outside'
      },
      '/record/evaluation/steps/1',
    ],
    [
      'an entry taken out',
      (r: Loose) => {
        r.record.facts.entries.pop()
      },
      '/record/facts/entries/',
    ],
    [
      'an entry put in',
      (r: Loose) => {
        r.record.facts.entries.push({ body: {} })
      },
      '/record/facts/entries/',
    ],
    [
      'the hash',
      (r: Loose) => {
        r.seal.hash = '0'.repeat(64)
      },
      '/seal/hash',
    ],
    [
      'the digests',
      (r: Loose) => {
        r.digests['/sealedBy'] = '0'.repeat(64)
      },
      '/digests',
    ],
    [
      'the chain',
      (r: Loose) => {
        r.seal.previous = 'a'.repeat(64)
      },
      'chain',
    ],
    [
      'the time of sealing',
      (r: Loose) => {
        r.seal.sealedAt = '2027-01-01T00:00:00.000Z'
      },
      'signature',
    ],
    [
      'the signature',
      (r: Loose) => {
        r.seal.signature = Buffer.alloc(64).toString('base64')
      },
      'signature',
    ],
  ])('breaks where %s was changed', async (_, change, at) => {
    const record = await sealed()
    change(record)
    const check = verifySeal(record)
    expect(check.whole).toBe(false)
    expect(check.brokenAt).toContain(at)
  })

  it('is no record at all where its form is not one', () => {
    expect(verifySeal({ hello: 1 })).toMatchObject({ whole: false, brokenAt: expect.any(String) })
  })

  it('travels inside the certificate, and a change to it shows', async () => {
    const answer = await fetch(`${process.env.UPSTAND_TEST_URL}/api/jobs/${demo.job.sealed}/certificate?issue=A`, {
      headers: { cookie: await (await import('../support/server')).cookieOf('tester') },
    })
    expect(answer.headers.get('content-type')).toBe('application/pdf')
    const pdf = Buffer.from(await answer.arrayBuffer())
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
    const attached = await import('../support/pdfAttachment').then((module) => module.attachmentOf(pdf))
    expect(verifySeal(JSON.parse(attached))).toMatchObject({ whole: true })
    expect(verifySeal(JSON.parse(attached.replace('"within"', '"close"')))).toMatchObject({ whole: false })
  })

  it('is verified from the command line', async () => {
    const check = (input: string) =>
      spawnSync('./upstand', ['calc', 'verify-seal'], { input, encoding: 'utf8', cwd: `${import.meta.dirname}/../..` })
    const text = JSON.stringify(await sealed())
    expect(JSON.parse(check(text).stdout)).toMatchObject({ whole: true })
    expect(JSON.parse(check(text.replace('"within"', '"close"')).stdout)).toMatchObject({
      whole: false,
      brokenAt: expect.stringMatching(/^\/record/),
    })
  })

  it('shows when somebody changed the database itself', async () => {
    type Checks = { issues: { whole: boolean; problems: object[] }[] }
    const check = async () => (await knock<Checks>('viewer', `/api/jobs/${demo.job.open}/verify`)).body
    expect(await check()).toEqual({ issues: [], problems: [] })
    const verify = async () =>
      (await knock<Checks>('supervisor', `/api/jobs/${demo.job.sealed}/verify`)).body.issues[0]!
    expect(await verify()).toMatchObject({ whole: true, problems: [] })
    // Somebody with every right over the database takes the trigger away and changes one reading.
    const owner = await mysql.createConnection(process.env.UPSTAND_TEST_DATABASE_ADMIN!)
    const [[found]] = (await owner.query(
      "SELECT id, CAST(body AS CHAR) AS body FROM entry WHERE job_id = ? AND kind = 'reading' LIMIT 1",
      [demo.job.sealed],
    )) as unknown as [[{ id: string; body: string }]]
    const [[trigger]] = (await owner.query('SHOW CREATE TRIGGER entry_no_update')) as unknown as [
      [Record<string, string>],
    ]
    await owner.query('DROP TRIGGER entry_no_update')
    const write = (body: string) => owner.query('UPDATE entry SET body = ? WHERE id = ?', [body, found.id])
    await write(
      found.body.replace('"note":null', '"note":"it was fine"').replace('"note": null', '"note": "it was fine"'),
    )
    expect(await verify()).toMatchObject({ whole: false, problems: [{ code: 'entry-changed', figures: { count: 1 } }] })
    await write(found.body)
    await owner.query(trigger['SQL Original Statement']!.replace(/DEFINER=\S+ /, ''))
    await owner.end()
    expect(await verify()).toMatchObject({ whole: true })
  })

  it('is not made again where nothing is new', async () => {
    const answer = await knock<{ title: string }>('supervisor', `/api/jobs/${demo.job.sealed}/seal`, {})
    expect(answer).toMatchObject({ status: 409, body: { title: expect.stringContaining('issue A') } })
  })

  it('is not made without both signatures', async () => {
    const answer = await knock<{ title: string }>('supervisor', `/api/jobs/${demo.job.mill}/seal`, {})
    expect(answer).toMatchObject({ status: 409, body: { title: expect.stringContaining('signatures') } })
  })
})

describe('a stranger', () => {
  const root = `${import.meta.dirname}/../..`
  /** The script of the page, run as it stands there, on a record of the demo. */
  async function checked(change: (text: string) => string): Promise<string> {
    const page = readFileSync(`${root}/docs/checking-a-seal.md`, 'utf8')
    const script = /```js\n([\s\S]*?)```/.exec(page)![1]!
    const folder = mkdtempSync(`${root}/.build/stranger-`)
    try {
      writeFileSync(`${folder}/check.mjs`, script)
      writeFileSync(`${folder}/record.json`, change(JSON.stringify(await sealed())))
      return spawnSync('node', ['check.mjs', 'record.json'], { cwd: folder, encoding: 'utf8' }).stdout
    } finally {
      rmSync(folder, { recursive: true })
    }
  }

  it('checks a record by the page of the docs, without this application', async () => {
    const said = await checked((text) => text)
    expect(said).toContain('holds   the record is the one that was sealed')
    expect(said).toContain('holds   issue A is signed')
    expect(said).toContain(verifySeal(await sealed()).keyFingerprint)
    expect(said).not.toContain('BROKEN')
  })

  it('sees by it that a verdict was changed', async () => {
    expect(await checked((text) => text.replace('"within"', '"close"'))).toContain('BROKEN  the record')
    expect(await checked((text) => text.replace(/"sealedAt":"2/, '"sealedAt":"3'))).toContain('BROKEN')
  })
})
