/**
 * A demo job of our own invention, done and sealed: a house whose two strings have a converter on every module, its board,
 * and the circuit that feeds back. Both sides stand in one record.
 */
import type { Instrument } from '@/core/record/instrument'
import type { Database } from '../db/client'
import { createJob } from '../jobs/createJob'
import { type Answers, DemoJob, partIds } from './demoJob'
import { circuit, circuitId, rcd, rcdId } from './installations'
import { demoId } from './instruments'
import { INSULATION } from './joinery'
import { BONDED, chosen, LOOKED } from './mews'
import { corvane } from './modules'
import { type Firm, signAndSeal } from './signing'

const MINUTE_ms = 60_000
const YEARS_5_days = 5 * 365
const [JOB, VISIT, SITE, ARRAY, SWITCH, INVERTER, SUPPLY, BOARD] = Array.from({ length: 8 }, (_, k) =>
  demoId(0x3d0 + k),
) as [string, string, string, string, string, string, string, string, string]

const converters = { acts: 'converts', held_V: 1.2, most_V: 480, most_A: 15, insulation_V: 1000 } as const
const leads = chosen({ 'lead-set': 'probes' })
const DC_INSULATION = chosen({
  method: 'each-to-earth',
  'set-voltage': 'v1000',
  behaviour: 'risen-to-it',
  surface: 'dry',
  surge: 'none-there',
})

const dayAfter = (at: number, days: number): string =>
  new Date(at + days * 24 * 60 * MINUTE_ms).toISOString().slice(0, 10)

/** What is there, as it was entered; the ids of what is tested many times. */
export function hazelbankPlant(job: DemoJob, start: number, designer: string) {
  job.site(SITE, -9, undefined, {
    client: 'The owners of Hazelbank, Quern Hill 8, Nether Quill',
    extent: 'Two strings with a converter on each module, their inverter, a new board and all its circuits.',
    work: 'new',
    departures: 'none',
    designer,
    builder: 'Halewick Array Works',
    installedOn: dayAfter(start, -2),
    nextOn: dayAfter(start, YEARS_5_days),
    callWhom: 'Halewick Array Works, 01632 960 118',
    lightning: 'none',
  })
  job.part(ARRAY, {
    kind: 'array',
    tag: 'Roof',
    tilt_deg: 32,
    azimuth_deg: 195,
    mounting: 'close-roof',
    stringCable: '4 mm², class II for solar',
    mainCable: 'none',
  })
  job.part(SWITCH, { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 32, place: 'beside the inverter' })
  job.part(SUPPLY, {
    kind: 'supply',
    tag: 'Supply',
    arrangement: 'TN-S',
    phases: 1,
    nominal_V: 230,
    declaredZe_ohm: 0.8,
    faultLevel_kA: 16,
    earthing_mm2: 16,
    bonding_mm2: 10,
    bondedTo: 'water',
    frequency_Hz: 50,
    fuse: 'BS 1361 type 2',
    fuse_A: 80,
    demand_A: 62,
    mainSwitch: 'two-pole switch',
    mainSwitch_A: 100,
  })
  job.part(BOARD, {
    kind: 'board',
    tag: 'DB1',
    name: 'House board',
    place: 'hall',
    make: 'Tallowmere 12-way',
    surge: 'type 2, 20 kA',
    boardId: null,
    phases: 1,
  })
  const devices = {
    inverter: job.part(rcdId(0x40000), rcd('RCD1', BOARD, { type: 'B', form: 'rcbo', direction: 'both-ways' })),
    sockets: job.part(rcdId(0x41000), rcd('RCD2', BOARD, { form: 'rcbo' })),
    lights: job.part(rcdId(0x42000), rcd('RCD3', BOARD, { form: 'rcbo' })),
  }
  const laid = {
    wiring: 'flat twin and earth',
    method: 'C',
    breaking_kA: 10,
    deviceStandard: '61009',
    arcDevice: false,
  } as const
  const circuits = [
    ['1', 'Inverter', { rcdId: devices.inverter, sockets: false, rating_A: 20, line_mm2: 4, length_m: 9, points: 1 }],
    ['2', 'Sockets', { rcdId: devices.sockets, rating_A: 20, length_m: 24, points: 14, arcDevice: true }],
    ['3', 'Lights', { rcdId: devices.lights, sockets: false, rating_A: 6, line_mm2: 1.5, length_m: 31, points: 18 }],
  ] as const
  const circuitIds = circuits.map(([tag, feeds, own]) =>
    job.part(circuitId(0x48000 + 256 * Number(tag)), circuit(tag, feeds, BOARD, { ...laid, ...own })),
  )
  job.part(INVERTER, {
    kind: 'inverter',
    tag: 'INV',
    maxInput_V: 500,
    trackerMin_V: 200,
    trackerMax_V: 480,
    maxShortCircuit_A: 45,
    reconnect_s: 60,
    circuitId: circuitIds[0]!,
    make: 'Tallowmere',
    model: 'TM-4 with converters',
    serial: 'TM4-0017306',
    rated_W: 4000,
    isolator: '20 A, beside the inverter',
  })
  const strings = partIds(['none', 'none'], 0x4a000, 7).map((id, k) =>
    job.part(id, {
      kind: 'string',
      tag: `${k + 1}`,
      arrayId: ARRAY,
      modulesInSeries: 7,
      moduleType: corvane,
      inverterId: INVERTER,
      input: `${k + 1}`,
      electronics: converters,
    }),
  )
  return { strings, circuits: circuitIds, devices: Object.values(devices) }
}

/** Everything in its order, as two people took it in a morning. */
export function hazelbankDone(job: DemoJob, { strings, circuits, devices }: ReturnType<typeof hazelbankPlant>): void {
  const each = (step: string, parts: readonly string[], answers: Answers = {}): void => {
    for (const id of parts) job.take(step, id, answers)
  }
  each('inspection', [SITE])
  each('ac-inspection', [SITE], { 'look-special-places': LOOKED['look-special-places']! })
  each('lead-null', [SITE], leads)
  each('safe-isolation', [SITE])
  each('prove-dead', [SUPPLY])
  each('sensors', [ARRAY], { tilt: '32', azimuth: '194' })
  each('bonding', [SUPPLY], BONDED)
  each('pv-polarity', strings)
  each('pv-voc', strings)
  each('pv-insulation', strings, DC_INSULATION)
  each('plugs-locked', strings)
  for (const id of circuits) {
    job.take('r1r2', id, leads)
    job.take('ac-insulation', id, chosen(INSULATION))
    job.take('ac-polarity', id, chosen({ polarity: 'correct' }))
  }
  each('insulation-connected', [BOARD], chosen({ 'connected-at': 'v250' }))
  each('supply-polarity', [SUPPLY])
  each('ze', [SUPPLY], chosen({ 'earthing-conductor': 'earth-off' }))
  each('earth-back', [SUPPLY])
  each('board-polarity', [BOARD])
  each('fault-current', [BOARD])
  each('zs', circuits, chosen({ 'loop-method': 'non-trip' }))
  each('rcd-trips', devices)
  each('rcd-button', devices)
  each('ac-functional', [BOARD])
  each('reconnect', [INVERTER])
  each('operating', strings)
  each('grid-watch', [INVERTER], { 'reconnect-wait': '72' })
  each('close-out', [SITE])
}

export async function hazelbank(db: Database, kit: readonly Instrument[], now: number, who: Firm): Promise<void> {
  const start = new Date(now - 3 * 24 * 60 * MINUTE_ms).setUTCHours(9, 12, 0, 0)
  const place = { number: '0628', name: 'Hazelbank', place: 'Quern Hill 8, Nether Quill', people: [who.tester.id] }
  await createJob(db, { id: JOB, visitId: VISIT, ...place }, new Date(start))
  const job = new DemoJob(db, JOB, VISIT, kit, start)
  hazelbankDone(job, hazelbankPlant(job, start, `${who.checker.name}, Halewick Array Works`))
  await job.save(who.tester)
  await signAndSeal(db, job, JOB, who, new Date(start + 8 * 60 * MINUTE_ms), () => 'nothing to add')
}
