import { beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuid } from 'uuid'
import type { JobLine } from '@/core/record/jobSummary'
import type { AuditLine } from '@/server/people/audit'
import { demo, knock } from '../support/server'

const jobId = uuid()
const number = `PLAN-${jobId.slice(-6)}`
const plan = (body: object, who: 'supervisor' | 'tester' = 'supervisor') => knock(who, `/api/jobs/${jobId}/plan`, body)
async function line(): Promise<JobLine> {
  const { body } = await knock<{ jobs: JobLine[] }>('supervisor', '/api/jobs')
  return body.jobs.find((one) => one.id === jobId)!
}
beforeAll(async () => {
  const made = { id: jobId, visitId: uuid(), number, name: 'Planned', place: 'Here', people: [demo.person.tester] }
  expect((await knock('supervisor', '/api/jobs', { ...made, dueOn: '2026-12-04' })).status).toBe(201)
})

describe('a job in the lists', () => {
  it('names who works on it and the day by which it is wanted', async () => {
    expect(await line()).toMatchObject({ people: ['Tam Brackley'], dueOn: '2026-12-04', putAwayAt: null })
  })

  it('is wanted by another day, or by none, when a supervisor says so', async () => {
    expect((await plan({ dueOn: '2027-01-08' })).status).toBe(200)
    expect(await line()).toMatchObject({ dueOn: '2027-01-08' })
    expect((await plan({ dueOn: null })).status).toBe(200)
    expect(await line()).toMatchObject({ dueOn: null })
  })

  it('is put away and taken back with all that is in it, and both are written down', async () => {
    expect((await plan({ putAway: true })).status).toBe(200)
    expect((await line()).putAwayAt).not.toBeNull()
    expect((await knock('tester', `/api/jobs/${jobId}/facts`)).status).toBe(200)
    expect((await plan({ putAway: false })).status).toBe(200)
    expect(await line()).toMatchObject({ putAwayAt: null })
    const { body } = await knock<{ lines: AuditLine[] }>('supervisor', '/api/office/audit')
    const actions = body.lines.filter((one) => one.about.job === number).map((one) => one.action)
    expect(actions.slice(0, 2)).toEqual(['job-taken-back', 'job-put-away'])
  })

  it.each([[{ dueOn: '2026-02-30' }], [{ dueOn: 'soon' }], [{ putAway: 'yes' }], [{}], [{ dueOn: null, number: 'X' }]])(
    'refuses %j, and nothing changes',
    async (body) => {
      const before = await line()
      expect((await plan(body)).status).toBe(422)
      expect(await line()).toEqual(before)
    },
  )
})
