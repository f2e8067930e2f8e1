import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { Company } from '@/core/record/company'
import { SealedJob } from '../support/sealedJob'
import { knock } from '../support/server'

const PATH = '/api/office/company'
const now = async (): Promise<Company> => (await knock<Company>('supervisor', PATH)).body
const change = (next: unknown) => knock<{ title?: string }>('supervisor', PATH, next)
const withHead = (company: Company, part: Partial<Company['letterhead']>): Company => ({
  ...company,
  letterhead: { ...company.letterhead, ...part },
})

describe('the company’s particulars', () => {
  it('are refused in a sentence where they cannot be, and nothing is lost', async () => {
    const before = await now()
    for (const bad of [
      { ...before, name: ' ' },
      { ...before, name: 'x'.repeat(10_000) },
      { ...before, timeZone: 'Mars/Olympus' },
      { ...before, demo: false },
      withHead(before, { address: 'a'.repeat(10_000) }),
      withHead(before, { email: 'nobody' }),
      withHead(before, { paper: 'A3' as never }),
      withHead(before, { registration: '\ud83d' }),
    ]) {
      const answer = await change(bad)
      expect([answer.status, answer.body.title], JSON.stringify(bad).slice(0, 80)).toEqual([
        422,
        expect.stringMatching(/^[A-Z].*\.$/s),
      ])
    }
    expect(await now()).toEqual(before)
  })

  it('are taken in any writing', async () => {
    const before = await now()
    const next = withHead({ ...before, name: 'حقول الشمس 🌞' }, { address: 'شارع ١\nHalewick' })
    expect((await change(next)).status).toBe(200)
    expect(await now()).toEqual(next)
    expect((await change(before)).status).toBe(200)
  })

  it('stand on what is sealed as they were then', async () => {
    const before = await now()
    const job = await new SealedJob().open(`L${uuid().slice(-9)}`)
    await job.seal()
    const sealed = JSON.stringify(await job.sealedIssue('A'))
    expect(sealed).toContain(before.letterhead.phone)
    expect((await change(withHead(before, { phone: '01632 960 777' }))).status).toBe(200)
    expect(JSON.stringify(await job.sealedIssue('A'))).toBe(sealed)
    const { body } = await knock<{ facts: { job: { letterhead: Company['letterhead'] } } }>(
      'supervisor',
      `/api/jobs/${job.id}/facts`,
    )
    expect(body.facts.job.letterhead.phone).toBe('01632 960 777')
    expect((await change(before)).status).toBe(200)
  })
})
