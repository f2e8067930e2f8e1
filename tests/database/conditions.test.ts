import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import type { Facts } from '@/core/record/facts'
import { demo, knock } from '../support/server'

const JOB = demo.job.mill
const factsOf = async (): Promise<Facts> =>
  (await knock<{ facts: Facts }>('tester', `/api/jobs/${JOB}/facts`)).body.facts

/** Light joined to a reading from a file, as a device would send it. */
async function join(target: string, irradiance: number, back = 40) {
  const read = (value: number, unit: string) => ({ text: String(value), value, bound: 'exact', unit })
  const entry = {
    id: uuid(),
    jobId: JOB,
    visitId: demo.visit.mill,
    partId: null,
    step: null,
    deviceTime: new Date().toISOString(),
    clockOffset_ms: 0,
    body: {
      kind: 'conditions',
      v: 1,
      target,
      conditions: {
        irradiance: { read: read(irradiance, 'Wm2'), instrument: null },
        cell: { way: 'back', read: read(back, 'degC'), mounting: 'open-rack', instrument: null },
        at: new Date().toISOString(),
        how: 'file',
      },
      file: 'roof.csv',
    },
  }
  const { body } = await knock<{ fates: { fate: string; reason?: string }[] }>('tester', `/api/jobs/${JOB}/entries`, {
    entries: [entry],
  })
  return body.fates[0]!
}

describe('light joined from a logger’s file', () => {
  it('is kept, and judged with from then on; the reading itself stays as it was taken', async () => {
    const before = await factsOf()
    const one = evaluate(before, 0).steps.find((step) => step.step.id === 'pv-voc' && step.counting)!
    const target = one.counting!.entry.id
    expect(await join(target, 733)).toMatchObject({ fate: 'kept' })
    const after = await factsOf()
    const joined = evaluate(after, 0).byKey.get(one.key)!
    expect(joined.counting!.entry.body.conditions!.irradiance.read.value).toBe(733)
    expect(joined.flags).toContain('conditions-from-file')
    expect(after.entries.find((entry) => entry.id === target)).toEqual(
      before.entries.find((entry) => entry.id === target),
    )
  })

  it.each([
    [5000, 40, '1 to 1600'],
    [742, 190, '190'],
  ])('of %d W/m² and %d °C is refused in a sentence', async (irradiance, back, words) => {
    const fate = await join(uuid(), irradiance, back)
    expect(fate.fate).toBe('refused')
    expect(fate.reason).toContain(words)
  })
})
