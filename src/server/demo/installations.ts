/** Demo installations of our own invention: a house on its own electrode, and a workshop with three phases. */
import type { CircuitData, PartData, RcdData, ServiceData } from '@/core/plant/part'
import { readValueOf } from '@/core/quantity/readValue'
import type { Instrument } from '@/core/record/instrument'
import { type CircuitFault, circuitFault, type RcdFault, rcdFault } from '@/standin/installation'
import type { Database } from '../db/client'
import { createJob } from '../jobs/createJob'
import type { Author } from '../jobs/refusals'
import { DemoJob } from './demoJob'
import { demoId } from './instruments'

export type People = { author: Author; people: string[] }

/** An id whose simulated part was really built with this fault. */
function idBuilt<Fault>(from: number, fault: Fault, built: (id: string) => Fault): string {
  let n = from
  while (built(demoId(n)) !== fault) n++
  return demoId(n)
}
export const circuitId = (from: number, fault: CircuitFault = 'none'): string => idBuilt(from, fault, circuitFault)
export const rcdId = (from: number, fault: RcdFault = 'none'): string => idBuilt(from, fault, rcdFault)

export const circuit = (tag: string, feeds: string, boardId: string, own: Partial<CircuitData>): CircuitData => ({
  kind: 'circuit',
  tag,
  feeds,
  boardId,
  rcdId: null,
  phases: 1,
  device: 'B',
  rating_A: 16,
  deviceStandard: '60898',
  breaking_kA: 6,
  line_mm2: 2.5,
  protective_mm2: 1.5,
  length_m: 20,
  ...own,
})
export const rcd = (tag: string, boardId: string, own: Partial<RcdData> = {}): RcdData => ({
  kind: 'rcd',
  tag,
  boardId,
  upstreamId: null,
  type: 'A',
  delay: 'general',
  rated_mA: 30,
  standard: 'iec-61008',
  ...own,
})

const ttSupply = {
  kind: 'supply',
  tag: 'Supply',
  arrangement: 'TT',
  phases: 1,
  nominal_V: 230,
  declaredZe_ohm: null,
  faultLevel_kA: 6,
  earthing_mm2: 16,
  bonding_mm2: 10,
} as const satisfies PartData

const service = (
  tag: string,
  what: ServiceData['what'],
  material: ServiceData['material'],
  bearing_deg: number,
  away_m: number,
): ServiceData => ({ kind: 'buried-service', tag, what, material, bearing_deg, away_m, electrodeId: null })

/** A house on its own electrode: a selective device above two others; the insulation of one circuit is low. */
export async function ttHouse(db: Database, kit: readonly Instrument[], now: number, who: People): Promise<void> {
  const [jobId, visitId, board] = [demoId(0x360), demoId(0x361), demoId(0x362)]
  await createJob(
    db,
    {
      id: jobId,
      visitId,
      number: '0620',
      name: 'Saltmarsh House',
      place: 'Saltmarsh Road, Nether Quill',
      people: who.people,
    },
    new Date(now),
  )
  const job = new DemoJob(db, jobId, visitId, kit, now)
  job.site(demoId(0x363), -8)
  job.part(demoId(0x364), ttSupply)
  job.part(board, { kind: 'board', tag: 'DB1', name: 'House board', boardId: null, phases: 1 })
  const [main, sockets, lights] = [rcdId(0xb000), rcdId(0xb100), rcdId(0xb200)]
  job.part(main, rcd('RCD0', board, { delay: 'selective', rated_mA: 100 }))
  job.part(sockets, rcd('RCD1', board, { upstreamId: main }))
  job.part(lights, rcd('RCD2', board, { upstreamId: main }))
  const on = (tag: string, feeds: string, own: Partial<CircuitData>, fault?: CircuitFault): string =>
    job.part(circuitId(0xb300 + 64 * Number(tag), fault), circuit(tag, feeds, board, own))
  on('1', 'Sockets, ground floor', { rcdId: sockets, layout: 'ring', rating_A: 32, length_m: 52 })
  on('2', 'Sockets, upper floor', { rcdId: sockets, rating_A: 20, length_m: 41 }, 'low-insulation')
  on('3', 'Cooker', { rcdId: sockets, rating_A: 32, line_mm2: 6, protective_mm2: 2.5, length_m: 12 })
  on('4', 'Lights', { rcdId: lights, rating_A: 6, line_mm2: 1.5, protective_mm2: 1, length_m: 38 })
  on('5', 'Heat pump', { rcdId: lights, device: 'C', rating_A: 16, line_mm2: 4, length_m: 17 })
  job.part(demoId(0x365), {
    kind: 'electrode',
    tag: 'E1',
    rods: 2,
    length_m: 2.4,
    diameter_mm: 16,
    spacing_m: 3,
    place: 'north gable, 2 m from the wall',
  })
  job.part(demoId(0x366), service('W1', 'water', 'metal', 300, 2.4))
  job.part(demoId(0x367), service('T1', 'telecom', 'plastic', 165, 4))
  await job.save(who.author)
}

/** A workshop with three phases: two boards, a device that opens too slowly. */
export async function workshop(db: Database, kit: readonly Instrument[], now: number, who: People): Promise<void> {
  const [jobId, visitId, origin, hall] = [demoId(0x370), demoId(0x371), demoId(0x372), demoId(0x373)]
  await createJob(
    db,
    {
      id: jobId,
      visitId,
      number: '0621',
      name: 'Alder Yard workshop',
      place: 'Alder Yard 7, Halewick',
      people: who.people,
    },
    new Date(now),
  )
  const job = new DemoJob(db, jobId, visitId, kit, now)
  job.site(demoId(0x374), -8)
  job.part(demoId(0x375), {
    kind: 'supply',
    tag: 'Supply',
    arrangement: 'TN-C-S',
    phases: 3,
    nominal_V: 230,
    declaredZe_ohm: 0.35,
    faultLevel_kA: 16,
    earthing_mm2: 16,
    bonding_mm2: 10,
  })
  job.part(origin, { kind: 'board', tag: 'DB1', name: 'Origin', boardId: null, phases: 3 })
  job.part(hall, { kind: 'board', tag: 'DB2', name: 'Hall', boardId: origin, phases: 3 })
  const [tools, office] = [rcdId(0xb500, 'slow'), rcdId(0xb600)]
  job.part(tools, rcd('RCD1', hall))
  job.part(office, rcd('RCD2', hall))
  const on = (tag: string, feeds: string, boardId: string, own: Partial<CircuitData>): string =>
    job.part(circuitId(0xb700 + 64 * Number(tag)), circuit(tag, feeds, boardId, { breaking_kA: 10, ...own }))
  on('1', 'Feed to the hall', origin, {
    role: 'distribution',
    phases: 3,
    device: 'gG',
    rating_A: 32,
    line_mm2: 10,
    protective_mm2: 10,
    length_m: 22,
  })
  on('2', 'Compressor', hall, { phases: 3, device: 'C', rating_A: 16, line_mm2: 4, protective_mm2: 4, length_m: 14 })
  on('3', 'Bench sockets', hall, { rcdId: tools, rating_A: 16, length_m: 18 })
  on('4', 'Office sockets', hall, { rcdId: office, rating_A: 16, length_m: 26 })
  on('5', 'Hall lights', hall, { rating_A: 10, line_mm2: 1.5, length_m: 44 })
  await job.save(who.author)
}

const DAY_ms = 86_400_000

/** Three spike places of one visit to the cottage's electrode, with the spikes where they always stand. */
const spikes = (soil: 'soil-dry' | 'soil-damp' | 'soil-frozen', read: readonly [number, number, number]) => ({
  'electrode-method': { choice: 'three-lead' },
  'electrode-lead': { choice: 'taken-off' },
  soil: { choice: soil },
  'spike-distance': readValueOf(40, 'm', 0),
  'spike-bearing': readValueOf(120, 'deg', 0),
  're-1': readValueOf(read[0], 'ohm', 1),
  're-2': readValueOf(read[1], 'ohm', 1),
  're-3': readValueOf(read[2], 'ohm', 1),
})

/**
 * A cottage whose electrode is read every autumn. One winter it was read in frozen ground and had risen, and its clamp was
 * found loose; the clamp was made anew, and the next autumn told what the frost had done and what the clamp.
 */
export async function cottage(db: Database, kit: readonly Instrument[], now: number, who: People): Promise<void> {
  const [jobId, visitId, board, main] = [demoId(0x380), demoId(0x381), demoId(0x382), demoId(0x383)]
  const place = { number: '0622', name: 'Quay Cottage', place: 'Quay Lane, Lower Fenwick', people: who.people }
  const before = (days: number): number => now - days * DAY_ms
  await createJob(db, { id: jobId, visitId, ...place }, new Date(before(1106)))
  const job = new DemoJob(db, jobId, visitId, kit, before(1106))
  const supply = demoId(0x384)
  job.site(demoId(0x385), -6)
  job.part(supply, ttSupply)
  job.part(board, { kind: 'board', tag: 'DB1', name: 'Under the stairs', boardId: null, phases: 1 })
  job.part(main, rcd('RCD1', board, { rated_mA: 100, delay: 'selective' }))
  const electrode = job.part(demoId(0x386), {
    kind: 'electrode',
    tag: 'E1',
    form: 'rods',
    rods: 2,
    length_m: 2.4,
    diameter_mm: 16,
    spacing_m: 3,
    depth_m: null,
  })
  job.part(demoId(0x387), service('W1', 'water', 'metal', 80, 3.5))
  job.part(demoId(0x388), service('G1', 'gas', 'plastic', 210, 6))
  const readIt = (...read: Parameters<typeof spikes>): void => {
    job.take('prove-dead', supply)
    job.take('electrode', electrode, spikes(...read))
    job.take('electrode-back', electrode)
  }
  readIt('soil-damp', [52.6, 51.9, 53.2])
  await job.comeBack(demoId(0x389), before(741), 'Yearly')
  readIt('soil-damp', [53.4, 52.8, 54.1])
  await job.comeBack(demoId(0x38a), before(655), 'After a complaint, in frost')
  readIt('soil-frozen', [96.3, 95.1, 97.8])
  const snag = job.add(
    { kind: 'snag', v: 1, text: 'The clamp turns by hand, and its jaw is green' },
    electrode,
    'electrode',
  )
  await job.comeBack(demoId(0x38b), before(376), 'Yearly')
  const text = 'Clamp cut off and made anew, greased and taped'
  job.add({ kind: 'remedy', v: 1, snag, text, repeat: ['electrode'] }, electrode, 'electrode')
  job.wait(10 * 60_000)
  readIt('soil-damp', [47.8, 47.2, 48.5])
  await job.comeBack(demoId(0x38c), before(11), 'Yearly')
  readIt('soil-dry', [49.6, 48.9, 50.3])
  await job.save(who.author)
}
