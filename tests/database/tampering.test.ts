/** Somebody with every right over the database, but without the key's file, changes what was sealed: each way is told apart. */
import { generateKeyPairSync, type KeyObject } from 'node:crypto'
import mysql from 'mysql2/promise'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import { canonicalBytes } from '@/server/seal/canonical'
import { keyRecord } from '@/server/seal/keyChain'
import { makeSeal } from '@/server/seal/makeSeal'
import type { SealedRecord } from '@/server/seal/sealedRecord'
import { knock } from '../support/server'
import { SealedJob } from '../support/sealedJob'

type Check = { issues: { issue: string; whole: boolean; problems: { code: string }[] }[]; problems: { code: string }[] }
const TABLES = ['seal', 'entry', 'attachment'] as const
const TRIGGERS = [
  'seal_no_update',
  'seal_no_delete',
  'entry_no_update',
  'entry_no_delete',
  'seal_key_no_update',
  'seal_key_no_delete',
]

const job = new SealedJob()
const other = new SealedJob()
let owner: mysql.Connection
let photo: string
const kept: Record<string, Record<string, unknown>[]> = {}
const triggers: string[] = []

const rowsOf = async (table: string, where = 'job_id = ?') =>
  (await owner.query(`SELECT * FROM \`${table}\` WHERE ${where}`, [job.id]))[0] as Record<string, unknown>[]
const check = async () => (await knock<Check>('supervisor', `/api/jobs/${job.id}/verify`)).body
const codesOf = (found: Check, issue: string) =>
  found.issues.find((one) => one.issue === issue)!.problems.map((one) => one.code)
const recordOf = async (issue: string, jobId = job.id): Promise<SealedRecord> => {
  const [[row]] = (await owner.query('SELECT record FROM seal WHERE job_id = ? AND issue = ?', [
    jobId,
    issue,
  ])) as unknown as [[{ record: string }]]
  return JSON.parse(row.record)
}
const write = (issue: string, record: unknown, more: Record<string, unknown> = {}) =>
  owner.query('UPDATE seal SET ? WHERE job_id = ? AND issue = ?', [
    { record: canonicalBytes(record).toString(), ...more },
    job.id,
    issue,
  ])
async function changed(issue: string, change: (record: SealedRecord) => void): Promise<void> {
  const record = await recordOf(issue)
  change(record)
  await write(issue, record)
}
/** What a forger makes: issues A and B anew, with a key of their own and a reading that suits them. */
async function forged(key: KeyObject): Promise<SealedRecord[]> {
  const made: SealedRecord[] = []
  for (const issue of ['A', 'B']) {
    const { record, seal } = await recordOf(issue)
    const about = { jobId: job.id, jobNumber: seal.jobNumber!, sealedAt: seal.sealedAt }
    const keys = [keyRecord(key, seal.sealedAt, undefined, null)]
    made.push(
      makeSeal(
        { ...record, sealedBy: 'Somebody else' },
        about,
        made.map((one) => one.seal),
        key,
        keys,
      ),
    )
  }
  return made
}

beforeAll(async () => {
  owner = await mysql.createConnection({ uri: process.env.UPSTAND_TEST_DATABASE_ADMIN!, timezone: 'Z' })
  await job.open('T-S1')
  photo = await job.picture()
  await job.send([job.volts(385.4)])
  await job.seal()
  await job.send([job.remark('after the first issue')])
  await job.seal()
  await job.send([job.remark('and once more')])
  await job.seal()
  await other.open('T-S2')
  await other.seal()
  for (const table of TABLES) kept[table] = await rowsOf(table)
  kept.job = await rowsOf('job', 'id = ?')
  for (const name of TRIGGERS) {
    const [[row]] = (await owner.query(`SHOW CREATE TRIGGER ${name}`)) as unknown as [[Record<string, string>]]
    triggers.push(row['SQL Original Statement']!.replace(/DEFINER=\S+ /, ''))
    await owner.query(`DROP TRIGGER ${name}`)
  }
})

/** Puts everything back as it was. */
async function mend(): Promise<void> {
  for (const table of TABLES) await owner.query(`DELETE FROM \`${table}\` WHERE job_id = ?`, [job.id])
  for (const table of TABLES)
    for (const row of kept[table]!) {
      const plain = Object.fromEntries(
        Object.entries(row).map(([name, value]) => [
          name,
          name === 'body' && typeof value === 'object' ? JSON.stringify(value) : value,
        ]),
      )
      await owner.query(`INSERT INTO \`${table}\` SET ?`, [plain])
    }
  await owner.query('UPDATE job SET seals = ? WHERE id = ?', [kept.job![0]!.seals, job.id])
}
afterEach(mend)
afterAll(async () => {
  for (const statement of triggers) await owner.query(statement)
  await owner.end()
})

describe('an honest record', () => {
  it('is whole, and so it is after everything was put back', async () => {
    const whole = { whole: true, problems: [] }
    const honest = { issues: ['A', 'B', 'C'].map((issue) => ({ issue, ...whole })), problems: [] }
    expect(await check()).toEqual(honest)
    await mend()
    expect(await check()).toEqual(honest)
  })
})

describe('a tampering is told by what it is', () => {
  it.each<[string, string, () => Promise<unknown>]>([
    [
      'an entry changed',
      'entry-changed',
      () =>
        owner.query("UPDATE entry SET body = JSON_SET(body, '$.note', 'fine') WHERE job_id = ? AND kind = 'reading'", [
          job.id,
        ]),
    ],
    [
      'an entry removed',
      'entry-missing',
      () => owner.query("DELETE FROM entry WHERE job_id = ? AND kind = 'reading'", [job.id]),
    ],
    [
      'a picture changed',
      'photo-changed',
      () => owner.query("UPDATE attachment SET bytes = CONCAT(bytes, 'x') WHERE id = ?", [photo]),
    ],
    ['a picture removed', 'photo-missing', () => owner.query('DELETE FROM attachment WHERE id = ?', [photo])],
    [
      'a figure of the sealed record',
      'record-changed',
      () => changed('B', (r) => void Object.assign(r.record, { sealedBy: 'X' })),
    ],
    [
      'the table of digests',
      'digests-changed',
      () => changed('B', (r) => void Object.assign(r.digests, { '/sealedBy': '0'.repeat(64) })),
    ],
    [
      'the hash in the seal',
      'hash-changed',
      () => changed('B', (r) => void Object.assign(r.seal, { hash: '0'.repeat(64) })),
    ],
    [
      'the hash of the seal before',
      'chain-broken',
      () => changed('B', (r) => void Object.assign(r.seal, { previous: '0'.repeat(64) })),
    ],
    ['an earlier seal taken out of the chain', 'chain-broken', () => changed('B', (r) => void r.chain.pop())],
    [
      'the time inside the seal',
      'signature-wrong',
      () => changed('B', (r) => void Object.assign(r.seal, { sealedAt: '2027-01-01T00:00:00.000Z' })),
    ],
    [
      'the job’s number inside the seal',
      'signature-wrong',
      () => changed('B', (r) => void Object.assign(r.seal, { jobNumber: 'T-99' })),
    ],
    [
      'a key that it carries',
      'keys-broken',
      () => changed('B', (r) => r.v === 2 && void Object.assign(r.keys[0]!, { since: '2020-01-01T00:00:00.000Z' })),
    ],
    [
      'text that is no record',
      'unreadable',
      () => owner.query("UPDATE seal SET record = '{}' WHERE job_id = ? AND issue = 'B'", [job.id]),
    ],
    [
      'the hash beside the record',
      'row-changed',
      () => owner.query("UPDATE seal SET hash = REPEAT('0', 64) WHERE job_id = ? AND issue = 'B'", [job.id]),
    ],
    [
      'the time beside the record',
      'row-changed',
      () => owner.query("UPDATE seal SET sealed_at = '2020-01-01' WHERE job_id = ? AND issue = 'B'", [job.id]),
    ],
    ['issue A in the place of B', 'of-another-issue', async () => write('B', await recordOf('A'))],
    ['another job’s record in the place of B', 'of-another-job', async () => write('B', await recordOf('A', other.id))],
  ])('%s: %s', async (_, code, change) => {
    await change()
    expect(codesOf(await check(), 'B')).toContain(code)
    expect((await check()).issues.find((one) => one.issue === 'B')!.whole).toBe(false)
  })

  it('the first, a middle and the last issue removed', async () => {
    await owner.query("DELETE FROM seal WHERE job_id = ? AND issue = 'A'", [job.id])
    expect(codesOf(await check(), 'B')).toContain('earlier-missing')
    await mend()
    await owner.query("DELETE FROM seal WHERE job_id = ? AND issue = 'B'", [job.id])
    expect(codesOf(await check(), 'C')).toContain('earlier-missing')
    await mend()
    await owner.query("DELETE FROM seal WHERE job_id = ? AND issue = 'C'", [job.id])
    expect((await check()).problems.map((one) => one.code)).toEqual(['last-missing'])
  })

  it('all issues removed', async () => {
    await owner.query('DELETE FROM seal WHERE job_id = ?', [job.id])
    expect(await check()).toMatchObject({ issues: [], problems: [{ code: 'last-missing', figures: { count: 3 } }] })
  })

  it('issues made again with a key of somebody’s own', async () => {
    const { privateKey } = generateKeyPairSync('ed25519')
    const [a, b] = await forged(privateKey)
    for (const [issue, record] of [
      ['A', a!],
      ['B', b!],
    ] as const)
      await write(issue, record, { hash: record.seal.hash })
    const found = await check()
    for (const issue of ['A', 'B']) expect(codesOf(found, issue)).toContain('key-not-ours')
    expect(codesOf(found, 'C')).toContain('earlier-replaced')
  })

  it('and that key put among the company’s', async () => {
    const { privateKey } = generateKeyPairSync('ed25519')
    const [rows] = (await owner.query('SELECT * FROM seal_key ORDER BY number')) as unknown as [
      Record<string, unknown>[],
    ]
    const put = async (number: number, key: KeyObject, before: Parameters<typeof keyRecord>[2]) => {
      const { publicKey, since, previous, signature, vouched } = keyRecord(
        key,
        '2026-01-01T00:00:00.000Z',
        before,
        null,
      )
      await owner.query('REPLACE INTO seal_key SET ?', [
        { number, public_key: publicKey, since: new Date(since), previous, signature, vouched },
      ])
    }
    const last = rows.at(-1)!
    const before = {
      number: last.number as number,
      publicKey: last.public_key as string,
      since: '',
      previous: null,
      signature: '',
      vouched: null,
    }
    // Behind the company's own: then the key's file is not the last.
    await put(before.number + 1, privateKey, before)
    expect((await check()).problems.map((one) => one.code)).toContain('keys-not-ours')
    await owner.query('DELETE FROM seal_key WHERE number = ?', [before.number + 1])
    // In the place of the first: then the company's own key does not follow it.
    await put(1, privateKey, undefined)
    expect((await check()).problems.map((one) => one.code)).toContain('keys-not-ours')
    await owner.query('DELETE FROM seal_key')
    for (const row of rows) await owner.query('INSERT INTO seal_key SET ?', [row])
    expect((await check()).problems).toEqual([])
  })
})
