/** A demo job of our own invention: two charge points of one model behind one load limit, one of them built badly. */
import type { PartData } from '@/core/plant/part'
import type { Instrument } from '@/core/record/instrument'
import { faultsOf, type PointFault } from '@/standin/chargePoint'
import { circuitFault } from '@/standin/installation'
import type { Database } from '../db/client'
import { createJob } from '../jobs/createJob'
import type { Author } from '../jobs/refusals'
import { sorrelPost } from './chargePoints'
import { type Answers, DemoJob } from './demoJob'
import { demoId } from './instruments'

type People = { author: Author; people: string[] }

/** An id whose simulated point was really built with these faults and no other. */
function pointId(from: number, faults: readonly PointFault[]): string {
  let n = from
  while (faultsOf(demoId(n)).join() !== faults.join()) n++
  return demoId(n)
}
function soundCircuit(from: number): string {
  let n = from
  while (circuitFault(demoId(n)) !== 'none') n++
  return demoId(n)
}

/** What is not there is left out with a word. */
export const LOOKED: Answers = Object.fromEntries(
  ['look-arc', 'look-special-places'].map((id) => [id, { choice: 'check-left-out', note: 'none here' }]),
)
/** Water comes in by a copper pipe, nothing else does. */
export const BONDED: Answers = {
  'earthing-whole': { choice: 'seen-throughout' },
  'bond-water': { choice: 'bonded' },
  'water-length': '9',
  'bond-gas': { choice: 'no-need' },
  'bond-steel': { choice: 'no-need' },
  'bond-other': { choice: 'no-need' },
  'bond-supplementary': { choice: 'not-wanted' },
  'lead-set': { choice: 'probes' },
}

export const chosen = (choices: Record<string, string>): Record<string, { choice: string }> =>
  Object.fromEntries(Object.entries(choices).map(([slot, choice]) => [slot, { choice }]))

/** Everything up to the plugs is proved; the charge points themselves wait for their tests. */
export async function mews(db: Database, kit: readonly Instrument[], now: number, who: People): Promise<void> {
  const [jobId, visitId, board, supply, site] = [0x390, 0x391, 0x392, 0x393, 0x394].map(demoId) as [
    string,
    string,
    string,
    string,
    string,
  ]
  const place = { number: '0623', name: 'Tolley Mews', place: 'Tolley Mews 2, Halewick', people: who.people }
  await createJob(db, { id: jobId, visitId, ...place }, new Date(now))
  const job = new DemoJob(db, jobId, visitId, kit, now)
  job.site(site, -8)
  job.part(supply, {
    kind: 'supply',
    tag: 'Supply',
    arrangement: 'TN-C-S',
    phases: 1,
    nominal_V: 230,
    declaredZe_ohm: 0.35,
    faultLevel_kA: 16,
    earthing_mm2: 16,
    bonding_mm2: 10,
    bondedTo: 'water',
  })
  job.part(board, { kind: 'board', tag: 'DB1', name: 'Car port', boardId: null, phases: 1 })
  const circuits = ['1', '2'].map((tag, k) =>
    job.part(soundCircuit(0xc000 + 64 * k), {
      kind: 'circuit',
      tag,
      feeds: `Charge point ${tag}`,
      boardId: board,
      rcdId: null,
      sockets: false,
      phases: 1,
      device: 'B',
      rating_A: 40,
      breaking_kA: 10,
      line_mm2: 6,
      protective_mm2: 6,
      length_m: k === 0 ? 14 : 19,
    }),
  )
  const point = (tag: string, where: string, circuitId: string): PartData => ({
    kind: 'charge-point',
    tag,
    place: where,
    model: sorrelPost,
    serial: '',
    circuitId,
    earthing: 'device-inside',
    setTo_A: null,
    load: { group: 'Mews', limit_A: 63 },
    ventilated: false,
  })
  const points = [
    job.part(pointId(0x100000, ['duty-over-cable', 'detector-blind']), point('CP1', 'Bay 1', circuits[0]!)),
    job.part(pointId(0x200000, []), point('CP2', 'Bay 2', circuits[1]!)),
  ]

  job.take('ac-inspection', site, LOOKED)
  for (const id of points) job.take('point-inspection', id)
  job.take('lead-null', site, chosen({ 'lead-set': 'probes' }))
  job.take('prove-dead', supply)
  job.take('bonding', supply, BONDED)
  const insulation = chosen({
    pairing: 'pair-by-pair',
    devices: 'all-on',
    earthing: 'earth-connected',
    electronics: 'electronics-out',
    surge: 'none-there',
    'set-voltage': 'v500',
  })
  for (const id of circuits) {
    job.take('r1r2', id, chosen({ 'lead-set': 'probes' }))
    job.take('ac-insulation', id, insulation)
    job.take('ac-polarity', id, chosen({ polarity: 'correct' }))
  }
  job.take('insulation-connected', board, chosen({ 'connected-at': 'v250' }))
  job.take('supply-polarity', supply)
  job.take('ze', supply, chosen({ 'earthing-conductor': 'earth-off' }))
  job.take('earth-back', supply)
  job.take('board-polarity', board)
  job.take('fault-current', board)
  for (const id of circuits) job.take('zs', id, chosen({ 'loop-method': 'non-trip' }))
  job.take('ac-functional', board)
  await job.save(who.author)
}
