import mysql from 'mysql2/promise'
import { describe, expect, it } from 'vitest'
import type { Comparison } from '@/core/regime/sources'
import { demo, knock } from '../support/server'

type Compared = { compared: Comparison[] }
const wish = { source: 'bs7671-zs', edition: 'BS 7671:2018+A3:2024', agrees: true, note: '' }

describe('the door of sources', () => {
  it('keeps who held which document and when, the latest of each counting, and tells every job', async () => {
    expect((await knock('supervisor', '/api/sources', wish)).status).toBe(201)
    const later = { ...wish, agrees: false, note: 'table 41.3: B32 is 1.37' }
    expect((await knock('supervisor', '/api/sources', later)).status).toBe(201)
    const { compared } = (await knock<Compared>('viewer', '/api/sources')).body
    expect(compared).toHaveLength(1)
    expect(compared[0]).toMatchObject({ ...later, by: 'Isolde Marrow' })
    const job = await knock<Compared>('tester', `/api/jobs/${demo.job.mill}/facts`)
    expect(JSON.stringify(job.body)).toContain('table 41.3: B32 is 1.37')
    const log = await knock('supervisor', '/api/office/audit')
    expect(log.text).toContain('source-compared')
  })

  it.each([
    [{ source: 'nobody' }],
    [{ source: 'house-minute' }],
    [{ edition: '' }],
    [{ agrees: false, note: '' }],
    [{ note: 'x'.repeat(301) }],
    [{ by: 'Somebody Else' }],
  ])('refuses %j and keeps nothing', async (over) => {
    const before = (await knock('viewer', '/api/sources')).text
    const answer = await knock<{ title: string }>('supervisor', '/api/sources', { ...wish, ...over })
    expect(answer.status).toBe(422)
    expect(answer.body.title.length).toBeGreaterThan(10)
    expect((await knock('viewer', '/api/sources')).text).toBe(before)
  })

  it('lets the application’s own user change or remove none of it', async () => {
    const connection = await mysql.createConnection(process.env.UPSTAND_TEST_DATABASE!)
    try {
      await expect(connection.query("UPDATE source_check SET `by` = 'x'")).rejects.toThrow(/denied/)
      await expect(connection.query('DELETE FROM source_check')).rejects.toThrow(/denied/)
    } finally {
      await connection.end()
    }
  })
})
