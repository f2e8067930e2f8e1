/** A demo job of our own invention: a joinery of fourteen circuits, its dead tests done and the live ones half way. */
import type { CircuitData } from '@/core/plant/part'
import type { Instrument } from '@/core/record/instrument'
import { shippedRegimes } from '@/core/regime/shipped'
import type { Database } from '../db/client'
import { createJob } from '../jobs/createJob'
import { DemoJob } from './demoJob'
import { circuit, circuitId, type People, rcd, rcdId } from './installations'
import { demoId } from './instruments'
import { BONDED, chosen, LOOKED } from './mews'

const regime = shippedRegimes.find(({ id }) => id === 'bs7671-three-multiple')!

export const INSULATION = {
  pairing: 'pair-by-pair',
  devices: 'all-on',
  earthing: 'earth-connected',
  electronics: 'electronics-out',
  surge: 'none-there',
  'set-voltage': 'v500',
  'tested-from': 'beyond-rcd',
}
/** How many circuits of the board were read live before everybody went to eat. */
const READ_LIVE = 7

export async function joinery(db: Database, kit: readonly Instrument[], now: number, who: People): Promise<void> {
  const [jobId, visitId, board, supply, site] = [0x3b0, 0x3b1, 0x3b2, 0x3b3, 0x3b4].map(demoId) as [
    string,
    string,
    string,
    string,
    string,
  ]
  const place = { number: '0631', name: 'Rowan Joinery', place: 'Rowan Lane 12, Halewick', people: who.people }
  await createJob(
    db,
    { id: jobId, visitId, ...place, regime: { id: regime.id, version: regime.version } },
    new Date(now),
  )
  const job = new DemoJob(db, jobId, visitId, kit, now, regime)
  job.site(site, -8)
  job.part(supply, {
    kind: 'supply',
    tag: 'Supply',
    arrangement: 'TN-S',
    phases: 3,
    nominal_V: 230,
    declaredZe_ohm: 0.8,
    faultLevel_kA: 16,
    earthing_mm2: 16,
    bonding_mm2: 10,
    bondedTo: 'water',
  })
  job.part(board, { kind: 'board', tag: 'DB1', name: 'Joinery', boardId: null, phases: 3 })
  const devices = {
    north: job.part(rcdId(0x30000), rcd('RCD1', board, { form: 'rcbo' })),
    south: job.part(rcdId(0x31000, 'slow'), rcd('RCD2', board, { form: 'rcbo' })),
    lights: job.part(rcdId(0x32000), rcd('RCD3', board)),
    office: job.part(rcdId(0x33000), rcd('RCD4', board, { form: 'rcbo' })),
    small: job.part(rcdId(0x34000), rcd('RCD5', board)),
  }
  const on = (tag: string, feeds: string, own: Partial<CircuitData>): string =>
    job.part(circuitId(0x38000 + 256 * Number(tag)), circuit(tag, feeds, board, { breaking_kA: 10, ...own }))
  const three = { phases: 3, device: 'C', sockets: false } as const
  const fixed = { sockets: false } as const
  const all = [
    on('1', 'Panel saw', { ...three, rating_A: 32, line_mm2: 6, protective_mm2: 6, length_m: 16 }),
    on('2', 'Compressor', { ...three, rating_A: 20, line_mm2: 4, protective_mm2: 4, length_m: 21 }),
    on('3', 'Sockets, north', { rcdId: devices.north, layout: 'ring', rating_A: 32, length_m: 48 }),
    on('4', 'Sockets, south', { rcdId: devices.south, layout: 'ring', rating_A: 32, length_m: 54 }),
    on('5', 'Planer', { ...three, rating_A: 20, line_mm2: 4, protective_mm2: 4, length_m: 18 }),
    on('6', 'Dust extract', { ...three, rating_A: 16, line_mm2: 2.5, protective_mm2: 2.5, length_m: 31 }),
    on('7', 'Lights, bay 1', { ...fixed, rcdId: devices.lights, rating_A: 10, line_mm2: 1.5, length_m: 36 }),
    on('8', 'Lights, bay 2', { ...fixed, rcdId: devices.lights, rating_A: 10, line_mm2: 1.5, length_m: 41 }),
    on('9', 'Lights, yard', { ...fixed, rcdId: devices.lights, rating_A: 6, line_mm2: 1.5, length_m: 58 }),
    on('10', 'Office sockets', { rcdId: devices.office, rating_A: 16, length_m: 22 }),
    on('11', 'Water heater', { ...fixed, rcdId: devices.small, rating_A: 16, length_m: 13 }),
    on('12', 'Roller door', { ...fixed, rcdId: devices.small, device: 'C', rating_A: 10, length_m: 26 }),
    on('13', 'Alarm', { ...fixed, rcdId: devices.small, rating_A: 6, line_mm2: 1.5, length_m: 17 }),
    on('14', 'Glue heater', { ...fixed, rcdId: devices.small, rating_A: 16, length_m: 15 }),
  ]
  const rings = new Set([all[2]!, all[3]!])
  const behindRcd = new Set(all.filter((_, k) => k > 1 && k !== 4 && k !== 5))
  const leads = chosen({ 'lead-set': 'probes' })
  job.take('ac-inspection', site, LOOKED)
  job.take('lead-null', site, leads)
  job.take('prove-dead', supply)
  job.take('bonding', supply, BONDED)
  for (const id of all) {
    if (rings.has(id)) job.take('ring-ends', id, leads)
    job.take('r1r2', id, leads)
    const { 'tested-from': from, ...rest } = INSULATION
    job.take('ac-insulation', id, chosen(behindRcd.has(id) ? { ...rest, 'tested-from': from } : rest))
    job.take('ac-polarity', id, chosen({ polarity: 'correct' }))
  }
  job.take('insulation-connected', board, chosen({ 'connected-at': 'v250' }))
  job.take('supply-polarity', supply, chosen({ 'supply-rotation': 'rotation-right' }))
  job.take('ze', supply, chosen({ 'earthing-conductor': 'earth-off' }))
  job.take('earth-back', supply)
  job.take('board-polarity', board, chosen({ 'supply-rotation': 'rotation-right' }))
  job.take('fault-current', board)
  for (const id of all.slice(0, READ_LIVE)) job.take('zs', id, chosen({ 'loop-method': 'non-trip' }))
  for (const id of [devices.north, devices.south]) job.take('rcd-trips', id)
  job.take('rcd-button', devices.north)
  await job.save(who.author)
}
