/**
 * A demo job of our own invention, done and sealed: an old flat looked at again. One thing was dangerous and was made safe
 * at once, the rest is classed; the report says that it may not go on in use as it was found.
 */
import type { FoundClass } from '@/core/record/entry'
import type { Instrument } from '@/core/record/instrument'
import type { Database } from '../db/client'
import { createJob } from '../jobs/createJob'
import { type Answers, DemoJob } from './demoJob'
import { circuit, circuitId, rcd, rcdId } from './installations'
import { demoId } from './instruments'
import { INSULATION } from './joinery'
import { BONDED, chosen, LOOKED } from './mews'
import { type Firm, signAndSeal } from './signing'

const MINUTE_ms = 60_000
const DAY_ms = 24 * 60 * MINUTE_ms
const YEARS_5_days = 5 * 365
const [JOB, VISIT, SITE, SUPPLY, BOARD] = Array.from({ length: 5 }, (_, k) => demoId(0x3e0 + k)) as [
  string,
  string,
  string,
  string,
  string,
]
const leads = chosen({ 'lead-set': 'probes' })
const wrong = (note: string) => ({ choice: 'not-as-it-should', note })

/** What is old and not as it would be built now. */
const OLD: Answers = {
  'look-special-places': LOOKED['look-special-places']!,
  'look-arc': LOOKED['look-arc']!,
  'look-surge': wrong('none fitted'),
  'look-chart': wrong('no list of circuits at the board'),
  'look-joints': wrong('a joint box above the ceiling of the bath that nobody can reach'),
}

const dayAfter = (at: number, days: number): string => new Date(at + days * DAY_ms).toISOString().slice(0, 10)

/** What is there, as it was found; ids of what is tested many times. */
export function fennelPlant(job: DemoJob, start: number) {
  job.site(SITE, -8, null, {
    client: 'The owner of Fennel Court 4',
    extent: 'The whole flat; nothing was lifted or taken down.',
    work: 'periodic',
    departures: 'none',
    nextOn: dayAfter(start, YEARS_5_days),
    inspectedFor: 'a new tenant moves in; wanted by the owner',
    builtAbout: 'about 1985, its board 2006',
    lastOn: dayAfter(start, -2 * YEARS_5_days),
    lastRecord: 'seen, without schedules',
    changedSince: 'circuit of the balcony, by somebody unknown',
    limitations: 'behind the built-in kitchen; agreed with the owner beforehand',
    callWhom: 'Halewick Array Works, 01632 960 118',
  })
  job.part(SUPPLY, {
    kind: 'supply',
    tag: 'Supply',
    arrangement: 'TN-S',
    phases: 1,
    nominal_V: 230,
    declaredZe_ohm: 0.8,
    faultLevel_kA: 6,
    earthing_mm2: 16,
    bonding_mm2: 10,
    bondedTo: 'water',
    frequency_Hz: 50,
    fuse: 'BS 1361 type 2',
    fuse_A: 60,
    demand_A: 45,
    mainSwitch: 'two-pole switch',
    mainSwitch_A: 80,
  })
  job.part(BOARD, {
    kind: 'board',
    tag: 'DB1',
    name: 'Board of the flat',
    place: 'hall cupboard',
    make: 'Tallowmere 8-way',
    surge: 'none',
    boardId: null,
    phases: 1,
  })
  const device = job.part(rcdId(0x50000, 'slow'), rcd('RCD1', BOARD))
  const laid = { wiring: 'flat twin and earth', method: 'C', arcDevice: false } as const
  const circuits = [
    ['1', 'Sockets', { rcdId: device, rating_A: 20, length_m: 22, points: 9 }],
    [
      '2',
      'Lights',
      { rcdId: device, sockets: false, rating_A: 6, line_mm2: 1, protective_mm2: 1, length_m: 26, points: 8 },
    ],
    ['4', 'Balcony', { rcdId: device, length_m: 14, points: 2 }],
    [
      '3',
      'Cooker',
      { rcdId: device, sockets: false, rating_A: 32, line_mm2: 6, protective_mm2: 2.5, length_m: 14, points: 1 },
    ],
  ] as const
  const circuitIds = circuits.map(([tag, feeds, own]) =>
    job.part(circuitId(0x58000 + 256 * Number(tag)), circuit(tag, feeds, BOARD, { ...laid, ...own })),
  )
  return { circuits: circuitIds, device }
}

/** Everything in its order; what was found is classed where it was found. */
export function fennelDone(job: DemoJob, { circuits, device }: ReturnType<typeof fennelPlant>): void {
  const classed = (as: FoundClass, step: string, partId: string, target: string | null, line: string | null = null) =>
    job.add({ kind: 'class', v: 1, target, line, as }, partId, step)
  const open = wrong('a blank is missing: a finger reaches what is live')
  const first = job.take('ac-inspection', SITE, { ...OLD, 'look-board': open })!
  classed('danger', 'ac-inspection', SITE, first, 'look-board')
  const made = 'Main switch off at once, the owner told and written to; blank fitted before anything else.'
  job.add({ kind: 'remedy', v: 1, snag: first, text: made, repeat: ['ac-inspection'] }, SITE, 'ac-inspection')
  job.wait(10 * MINUTE_ms)
  const again = job.take('ac-inspection', SITE, OLD)!
  classed('improve', 'ac-inspection', SITE, again, 'look-surge')
  classed('improve', 'ac-inspection', SITE, again, 'look-chart')
  classed('look-further', 'ac-inspection', SITE, again, 'look-joints')
  job.take('lead-null', SITE, leads)
  job.take('prove-dead', SUPPLY)
  job.take('bonding', SUPPLY, BONDED)
  for (const id of circuits) {
    job.take('r1r2', id, leads)
    job.take('ac-insulation', id, chosen(INSULATION))
    job.take('ac-polarity', id, chosen({ polarity: 'correct' }))
  }
  job.take('supply-polarity', SUPPLY)
  job.take('ze', SUPPLY, chosen({ 'earthing-conductor': 'earth-off' }))
  job.take('earth-back', SUPPLY)
  job.take('board-polarity', BOARD)
  job.take('fault-current', BOARD)
  for (const id of circuits) job.take('zs', id, chosen({ 'loop-method': 'non-trip' }))
  const slow = job.take('rcd-trips', device)
  classed('could-be', 'rcd-trips', device, slow)
  job.add({ kind: 'left-out', v: 1, reason: 'The device is slow: it is changed first.' }, device, 'rcd-button')
  job.take('ac-functional', BOARD)
  job.take('close-out-ac', SITE)
}

export async function fennel(db: Database, kit: readonly Instrument[], now: number, who: Firm): Promise<void> {
  const start = new Date(now - 5 * DAY_ms).setUTCHours(9, 20, 0, 0)
  const place = { number: '0629', name: 'Fennel Court', place: 'Fennel Court 4, Halewick', people: [who.tester.id] }
  await createJob(db, { id: JOB, visitId: VISIT, ...place }, new Date(start))
  const job = new DemoJob(db, JOB, VISIT, kit, start)
  fennelDone(job, fennelPlant(job, start))
  await job.save(who.tester)
  await signAndSeal(
    db,
    job,
    JOB,
    who,
    new Date(start + 6 * 60 * MINUTE_ms),
    () => 'Classed, and told to the owner in writing.',
  )
}
