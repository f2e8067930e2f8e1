/** Jobs that a test makes for itself, their plant taken from the demo's. */
import { v7 as uuid } from 'uuid'
import { expect } from 'vitest'
import type { PartData } from '@/core/plant/part'
import type { Entry } from '@/core/record/entry'
import { circuitFault } from '@/standin/installation'
import { faultsOf } from '@/standin/chargePoint'
import { wasBuiltSound } from '@/standin/press'
import { asBuilt, type Fault } from '@/standin/roof'
import { demo, knock } from './server'

export async function entriesOfJob(jobId: string): Promise<Entry[]> {
  const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${jobId}/facts`)
  return body.facts.entries
}

/** What was put into the plant of a job. */
export const plantOf = async (jobId: string): Promise<Entry[]> =>
  (await entriesOfJob(jobId)).filter((entry) => entry.body.kind === 'plant-change')

export const partOf = (entry: Entry): PartData => (entry.body as { after: PartData }).after

/** An id whose simulated part was built without a fault, or, if it is a string, with this one. */
export function builtId(data: PartData, fault: Fault = 'none'): string {
  for (;;) {
    const id = uuid()
    const isSound =
      wasBuiltSound('insulation', id) &&
      wasBuiltSound('bonding', id) &&
      circuitFault(id) === 'none' &&
      faultsOf(id).length === 0
    if (isSound && (data.kind !== 'string' || asBuilt(id, data.modulesInSeries).fault === fault)) return id
  }
}

type Wanted = { number: string; name: string; changes: readonly Entry[]; idOf?: (data: PartData) => string }

/** A job with the plant of these entries, every part under an id of its own. Gives the job's id. */
export async function copiedJob({ number, name, changes, idOf = builtId }: Wanted): Promise<string> {
  const [jobId, visitId] = [uuid(), uuid()]
  const people = [demo.person.tester]
  const made = await knock('supervisor', '/api/jobs', { id: jobId, visitId, number, name, place: '', people })
  expect(made.status).toBe(201)
  const ids = new Map(changes.map((one) => [one.partId!, idOf(partOf(one))]))
  const entries = changes.map((one) => {
    const body = JSON.stringify({ ...one.body, base: null })
    const text = [...ids].reduce((all, [old, next]) => all.replaceAll(old, next), body)
    const { receivedAt: _, personId: __, ...sent } = one
    return { ...sent, id: uuid(), jobId, visitId, partId: ids.get(one.partId!), body: JSON.parse(text) }
  })
  const kept = await knock('tester', `/api/jobs/${jobId}/entries`, { entries })
  expect(kept.status).toBe(200)
  return jobId
}
