import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { demo, knock } from '../support/server'

type Bundle = { facts: { visits: { id: string; startsAt: string; title: string }[] } }
const visitsOf = async (jobId: string) => (await knock<Bundle>('tester', `/api/jobs/${jobId}/facts`)).body.facts.visits

describe('the door of visits', () => {
  it('begins a visit once, which is the last from then on, and takes entries', async () => {
    const jobId = demo.job.empty
    const visit = { id: uuid(), title: 'second day' }
    const before = await visitsOf(jobId)
    expect((await knock('tester', `/api/jobs/${jobId}/visits`, visit)).status).toBe(201)
    expect((await knock('tester', `/api/jobs/${jobId}/visits`, visit)).status).toBe(201)
    const after = await visitsOf(jobId)
    expect(after.length).toBe(before.length + 1)
    expect(after.at(-1)).toMatchObject(visit)
    const entry = {
      id: uuid(),
      jobId,
      visitId: visit.id,
      partId: null,
      step: null,
      deviceTime: new Date().toISOString(),
      clockOffset_ms: 0,
      body: { kind: 'remark', v: 1, text: 'dry and clear' },
    }
    const { body } = await knock<{ fates: { fate: string }[] }>('tester', `/api/jobs/${jobId}/entries`, {
      entries: [entry],
    })
    expect(body.fates[0]!.fate).toBe('kept')
  })

  it('gives no visit to two jobs', async () => {
    const visit = { id: uuid(), title: '' }
    await knock('tester', `/api/jobs/${demo.job.empty}/visits`, visit)
    expect((await knock('tester', `/api/jobs/${demo.job.mill}/visits`, visit)).status).toBe(409)
  })
})
