/** A demo job of our own invention: four strings on a day of drizzle, nobody brought a light meter, one lacks a module. */
import type { Instrument } from '@/core/record/instrument'
import type { Fault } from '@/standin/roof'
import type { Database } from '../db/client'
import { createJob } from '../jobs/createJob'
import { DemoJob, partIds } from './demoJob'
import type { People } from './installations'
import { demoId } from './instruments'
import { inverter, tarnlight } from './modules'

const FAULTS: readonly Fault[] = ['none', 'none', 'module-left-out', 'none']
const MODULES = 10

export async function drizzle(db: Database, kit: readonly Instrument[], start: number, who: People): Promise<void> {
  const [jobId, visitId, arrayId, siteId] = [0x3c0, 0x3c1, 0x3c2, 0x3c3].map(demoId) as [string, string, string, string]
  const place = { number: '0634', name: 'Tern Boathouse', place: 'Slip Road 2, Fernsea' }
  await createJob(db, { id: jobId, visitId, ...place, people: who.people }, new Date(start))
  const job = new DemoJob(db, jobId, visitId, kit, start)
  job.site(siteId, -6)
  job.part(arrayId, { kind: 'array', tag: 'Slip roof', tilt_deg: 18, azimuth_deg: 205, mounting: 'close-roof' })
  const strings = partIds(FAULTS, 0xe000, MODULES)
  strings.forEach((id, k) => {
    const tag = String(k + 1)
    job.part(id, { kind: 'string', tag, arrayId, modulesInSeries: MODULES, moduleType: tarnlight, input: tag })
  })
  job.part(demoId(0x3c4), { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 32 })
  job.part(demoId(0x3c5), inverter)
  for (const step of ['inspection', 'safe-isolation']) job.take(step, siteId)
  for (const string of strings) job.take('pv-polarity', string)
  await job.save(who.author)
}
