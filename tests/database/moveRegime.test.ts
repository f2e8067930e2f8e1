import { beforeAll, describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import type { Facts } from '@/core/record/facts'
import type { JobLine } from '@/core/record/jobSummary'
import type { Regime } from '@/core/regime/regime'
import { knock, type Who } from '../support/server'
import { TestJob } from '../support/testJob'

/** A regime of a company's own in two versions: strings within 9 % of what they should read, then within 2 %. */
async function twoVersions(name: string): Promise<string> {
  const wish = { name, schools: {}, reason: 'for this test' }
  const from = { id: 'bs7671-a2', version: 4 }
  const first = await knock<{ regime: Regime }>('supervisor', '/api/regimes', {
    ...wish,
    from,
    limits: { 'pv.expectation.measured': 9 },
  })
  const { id } = first.body.regime
  const next = { ...wish, from: { id, version: 1 }, limits: { 'pv.expectation.measured': 2 } }
  expect((await knock('supervisor', '/api/regimes', next)).status).toBe(201)
  return id
}

describe('a job under an older version of its regime', () => {
  const job = new TestJob()
  const name = `Moved ${job.id.slice(-6)}`
  const move = (body: object, who: Who = 'supervisor') =>
    knock<{ title: string }>(who, `/api/jobs/${job.id}/regime`, body)
  const facts = async () => (await knock<{ facts: Facts }>('supervisor', `/api/jobs/${job.id}/facts`)).body.facts
  const verdict = async () => evaluate(await facts(), Date.now()).byKey.get(stepKey('pv-voc', job.string.id))!.verdict
  const line = async () =>
    (await knock<{ jobs: JobLine[] }>('supervisor', '/api/jobs')).body.jobs.find(({ id }) => id === job.id)!

  beforeAll(async () => {
    const id = await twoVersions(name)
    await job.open(`MOVE-${job.id.slice(-6)}`, undefined, { id, version: 1 })
    expect(await job.fatesOf([job.volts(364)])).toEqual(['kept'])
  })

  it('says that there is a newer one', async () => {
    expect((await line()).regime).toMatchObject({ version: 1, newest: 2 })
    expect(await verdict()).toBe('within')
  })

  it('moves by a supervisor alone, to a version that there is, with a reason', async () => {
    expect((await move({ version: 2, reason: 'the insurer asks' }, 'tester')).status).toBe(403)
    expect((await move({ version: 2, reason: ' ' })).status).toBe(422)
    expect((await move({ version: 7, reason: 'no such one' })).body.title).toContain('no such version')
    expect((await move({ version: 1, reason: 'the same' })).body.title).toContain('already')
    expect((await facts()).regime.version).toBe(1)
    // Nobody moves it with an entry of their own.
    const own = {
      kind: 'regime-move',
      v: 1,
      regime: (await facts()).regime.id,
      from: 1,
      to: 2,
      reason: 'by the back door',
    }
    expect(await job.fateOf(job.entry(own), 'supervisor')).toMatchObject({ fate: 'refused', code: 'regime-by-office' })
  })

  it('is judged anew by it, keeps all that was read, and goes on taking readings', async () => {
    expect((await move({ version: 2, reason: 'the insurer asks for 2 %' })).status).toBe(200)
    const after = await facts()
    expect(after.regime.version).toBe(2)
    expect(after.entries.filter(({ body }) => body.kind === 'reading')).toHaveLength(1)
    expect(after.entries.at(-1)!.body).toMatchObject({ kind: 'regime-move', from: 1, to: 2 })
    expect(await verdict()).not.toBe('within')
    expect(await job.fatesOf([job.volts(378), job.remark('after the move')])).toEqual(['kept', 'kept'])
    expect((await line()).regime).toMatchObject({ version: 2, newest: 2 })
    expect((await move({ version: 2, reason: 'twice' })).status).toBe(409)
  })

  it('may be moved while others save', async () => {
    const other = new TestJob()
    const id = await twoVersions(`${name} b`)
    await other.open(`MOVE-${other.id.slice(-6)}`, undefined, { id, version: 1 })
    const saves = Array.from({ length: 12 }, (_, k) => other.fatesOf([other.remark(`remark ${k}`)]))
    const moved = knock('supervisor', `/api/jobs/${other.id}/regime`, { version: 2, reason: 'in between' })
    expect((await moved).status).toBe(200)
    expect((await Promise.all(saves)).flat()).toEqual(Array(12).fill('kept'))
    expect(await other.fatesOf([other.volts(380)])).toEqual(['kept'])
    const kinds = (await other.entries()).map(({ body }) => body.kind)
    expect(kinds.filter((kind) => kind === 'regime-move')).toHaveLength(1)
    expect(kinds.filter((kind) => kind === 'remark')).toHaveLength(12)
  })
})
