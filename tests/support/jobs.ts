/** Jobs that a test makes for itself, their plant taken from the demo's. */
import { v7 as uuid } from 'uuid'
import { expect } from 'vitest'
import type { PartData } from '@/core/plant/part'
import type { Entry } from '@/core/record/entry'
import { circuitFault, rcdFault } from '@/standin/installation'
import { faultsOf, type PointFault } from '@/standin/chargePoint'
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

/** An id whose simulated part was built without a fault, or, if it is a string or a point, with these. */
export function builtId(data: PartData, fault: Fault = 'none', ofPoint: readonly PointFault[] = []): string {
  for (;;) {
    const id = uuid()
    const isSound =
      wasBuiltSound('insulation', id) &&
      wasBuiltSound('bonding', id) &&
      circuitFault(id) === 'none' &&
      rcdFault(id) === 'none' &&
      faultsOf(id).join() === (data.kind === 'charge-point' ? ofPoint.join() : '')
    if (isSound && (data.kind !== 'string' || asBuilt(id, data.modulesInSeries).fault === fault)) return id
  }
}

/** A job with its first visit and nothing else. Gives the ids of both. */
export async function emptyJob(number: string, name: string): Promise<{ jobId: string; visitId: string }> {
  const ids = { jobId: uuid(), visitId: uuid() }
  const wanted = { id: ids.jobId, visitId: ids.visitId, number, name, place: '', people: [demo.person.tester] }
  expect((await knock('supervisor', '/api/jobs', wanted)).status).toBe(201)
  return ids
}

type Wanted = { number: string; name: string; entries: readonly Entry[]; idOf?: (data: PartData) => string }

/** A job with these entries, every part and every entry under an id of its own. Gives the job's id. */
export async function copiedJob({
  number,
  name,
  entries: from,
  idOf = (data) => builtId(data),
}: Wanted): Promise<string> {
  const { jobId, visitId } = await emptyJob(number, name)
  const ids = new Map(from.map((one) => [one.id, uuid()]))
  for (const one of from) if (one.body.kind === 'plant-change') ids.set(one.partId!, idOf(partOf(one)))
  const entries = from.map((one) => {
    const body = JSON.stringify(one.body)
    const text = [...ids].reduce((all, [old, next]) => all.replaceAll(old, next), body)
    const { receivedAt: _, personId: __, ...sent } = one
    return { ...sent, id: ids.get(one.id), jobId, visitId, partId: ids.get(one.partId!), body: JSON.parse(text) }
  })
  const kept = await knock('tester', `/api/jobs/${jobId}/entries`, { entries })
  expect(kept.status).toBe(200)
  return jobId
}
