/**
 * Demo data of our own invention: a small company, three people, jobs in different states. Readings come from the
 * stand-ins' physics through the same door as everybody's.
 */
import type { StringData } from '@/core/plant/part'
import type { Instrument } from '@/core/record/instrument'
import { coverHash } from '@/core/record/signature'
import type { Fault } from '@/standin/roof'
import type { Database } from '../db/client'
import { chargePointModel, company, instrument, moduleType } from '../db/schema'
import { createJob } from '../jobs/createJob'
import { entriesOf } from '../jobs/facts'
import type { Author } from '../jobs/refusals'
import { addPerson, demoPassword } from '../people/people'
import { addShippedRegimes } from '../jobs/regimes'
import { sealJob } from '../seal/sealJob'
import { demoChargePoints } from './chargePoints'
import { DemoJob, partIds, rowIds } from './demoJob'
import { demoId, demoInstruments } from './instruments'
import type { Letterhead } from '@/core/record/company'
import { drizzle } from './drizzle'
import { fennel } from './fennel'
import { hazelbank } from './hazelbank'
import { joinery } from './joinery'
import { cottage, ttHouse, workshop } from './installations'
import { mews } from './mews'
import { corvane, demoModules, inverter, tarnlight } from './modules'
import { demoPeople } from './people'

const [tam, isolde, ness] = demoPeople
const byTam: Author = { id: tam.id, name: tam.name, right: 'tester' }

const MINUTE_ms = 60_000

type Firm = { name: string; address: string; demo: boolean; letterhead?: Letterhead }

export async function seedBasics(db: Database, firm: Firm): Promise<void> {
  await db.insert(company).values({ id: 1, ...firm, timeZone: 'Europe/London', language: 'en' })
  await addShippedRegimes(db)
}

export async function seedDemo(db: Database, now: number): Promise<void> {
  await seedBasics(db, {
    name: 'Halewick Array Works',
    address: '2 Tollgate Yard, Halewick',
    demo: true,
    letterhead: {
      address: '2 Tollgate Yard\nHalewick',
      phone: '01632 960 118',
      email: 'office@halewick.invalid',
      registration: 'Register of array works, entry 4471\nInsured for work at height and on electrical installations',
      paper: 'A4',
    },
  })
  for (const one of demoPeople) await addPerson(db, { ...one, password: demoPassword(one.email) })
  for (const one of demoModules) await db.insert(moduleType).values({ id: one.id, data: one })
  for (const one of demoChargePoints) await db.insert(chargePointModel).values({ id: one.id, data: one })
  const kit = demoInstruments(now)
  await openRoof(db, kit, now)
  await millRoof(db, kit, now)
  await sealedChapel(db, kit, now)
  await barnRoof(db, kit, now)
  await glasshouse(db, kit, now)
  const who = { author: byTam, people: [tam.id, ness.id] }
  await ttHouse(db, kit, now - 26 * MINUTE_ms, who)
  await workshop(db, kit, now - 22 * MINUTE_ms, who)
  await cottage(db, kit, now - 20 * MINUTE_ms, who)
  await mews(db, kit, now - 40 * MINUTE_ms, who)
  await joinery(db, kit, now - 190 * MINUTE_ms, who)
  await hazelbank(db, kit, now, { tester: byTam, checker: { ...isolde, right: 'supervisor' } })
  await fennel(db, kit, now, { tester: byTam, checker: { ...isolde, right: 'supervisor' } })
  await drizzle(db, kit, now - 35 * MINUTE_ms, who)
  await createJob(
    db,
    {
      id: demoId(0x340),
      visitId: demoId(0x341),
      number: '0615',
      name: 'Gorse Cottage',
      place: 'Gorse Lane 3, Nether Quill',
      people: [tam.id, ness.id],
    },
    new Date(now - 90 * MINUTE_ms),
  )
}

const DAY_ms = 24 * 60 * MINUTE_ms
/** A day so many after today, as 2026-03-07. */
const dayAfter = (now: number, days: number): string => new Date(now + days * DAY_ms).toISOString().slice(0, 10)

const stringOf = (tag: string, arrayId: string, modulesInSeries: number, type = tarnlight): StringData => ({
  kind: 'string',
  tag,
  arrayId,
  modulesInSeries,
  moduleType: type,
  /** Each string has an input of its own, named after it. */
  input: tag,
})

/** How the demo's testers set the insulation test up. */
const DRY_AT_500 = {
  method: { choice: 'each-to-earth' },
  'set-voltage': { choice: 'v500' },
  behaviour: { choice: 'risen-to-it' },
  surface: { choice: 'dry' },
  surge: { choice: 'none-there' },
}

/** Three strings half way through: one done, one to read next, one with a module left out. */
async function openRoof(db: Database, kit: readonly Instrument[], now: number): Promise<void> {
  const [jobId, visitId, arrayId] = [demoId(0x310), demoId(0x311), demoId(0x312)]
  await createJob(
    db,
    {
      id: jobId,
      visitId,
      number: '0612',
      name: 'Quern House',
      place: 'Quern Hill, Nether Quill',
      people: [tam.id, ness.id],
      dueOn: dayAfter(now, 0),
    },
    new Date(now - 55 * MINUTE_ms),
  )
  for (const one of kit) {
    await db
      .insert(instrument)
      .values({ id: one.id, data: one, standIn: true, pairedJobId: ['02', '07'].includes(one.tag) ? jobId : null })
  }
  const job = new DemoJob(db, jobId, visitId, kit, now - 50 * MINUTE_ms)
  const siteId = job.site(demoId(0x315), -8)
  job.part(arrayId, { kind: 'array', tag: 'South roof', tilt_deg: 35, azimuth_deg: 170, mounting: 'open-rack' })
  const strings = partIds(['none', 'none', 'module-left-out'], 0x1000, 11).map((id, k) => ({
    id,
    data: stringOf(`${k + 1}`, arrayId, 11),
  }))
  for (const one of strings) job.part(one.id, one.data)
  job.part(demoId(0x313), { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 32 })
  job.part(demoId(0x314), inverter)
  job.wait(10 * MINUTE_ms)
  job.take('inspection', siteId)
  job.take('safe-isolation', siteId)
  job.take('sensors', arrayId, { tilt: '35', azimuth: '171' })
  for (const one of strings) job.take('pv-polarity', one.id)
  job.take('pv-voc', strings[0]!.id)
  job.take('pv-voc', strings[2]!.id)
  job.take('pv-isc', strings[0]!.id)
  await job.save(byTam)
}

/** A 40-string roof, more than half read. */
async function millRoof(db: Database, kit: readonly Instrument[], now: number): Promise<void> {
  const [jobId, visitId, arrayId] = [demoId(0x320), demoId(0x321), demoId(0x322)]
  const start = now - 26 * 60 * MINUTE_ms
  await createJob(
    db,
    {
      id: jobId,
      visitId,
      number: '0608',
      name: 'Tolling Mill',
      place: 'Mill Road, Halewick',
      people: [tam.id],
      dueOn: dayAfter(now, -3),
    },
    new Date(start),
  )
  const job = new DemoJob(db, jobId, visitId, kit, start)
  job.part(arrayId, { kind: 'array', tag: 'Sawtooth', tilt_deg: 15, azimuth_deg: 185, mounting: 'open-rack' })
  const siteId = job.site(demoId(0x325), -12, null)
  const faults: Fault[] = Array.from({ length: 40 }, (_, k) => (k === 16 ? 'soiled' : 'none'))
  const strings = partIds(faults, 0x4000, 18).map((id, k) => ({ id, data: stringOf(`${k + 1}`, arrayId, 18, corvane) }))
  for (const one of strings) job.part(one.id, one.data)
  job.part(demoId(0x323), { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 63 })
  job.part(demoId(0x324), { ...inverter, maxShortCircuit_A: 630 })
  for (const step of ['inspection', 'safe-isolation']) job.take(step, siteId)
  job.take('sensors', arrayId, { tilt: '15', azimuth: '184' })
  for (const one of strings) job.take('pv-polarity', one.id)
  for (const one of strings.slice(0, 26)) job.take('pv-voc', one.id)
  for (const one of strings.slice(0, 20)) job.take('pv-isc', one.id)
  await job.save(byTam)
}

/** Two strings, all read, signed and sealed. */
async function sealedChapel(db: Database, kit: readonly Instrument[], now: number): Promise<void> {
  const [jobId, visitId, arrayId] = [demoId(0x330), demoId(0x331), demoId(0x332)]
  const start = new Date(now - 8 * 24 * 60 * MINUTE_ms).setUTCHours(9, 40, 0, 0)
  await createJob(
    db,
    { id: jobId, visitId, number: '0601', name: 'Fernsea Chapel', place: 'Strand 1, Fernsea', people: [tam.id] },
    new Date(start),
  )
  const job = new DemoJob(db, jobId, visitId, kit, start)
  const siteId = job.site(demoId(0x334), -5, undefined, {
    client: 'Trustees of Fernsea Chapel, Strand 1, Fernsea',
    extent: 'Two strings of nine modules on the nave roof, their cables, inverter and its AC circuit up to the board.',
    work: 'new',
    departures: 'none',
    designer: `${isolde.name}, Halewick Array Works`,
    builder: 'Halewick Array Works',
    installedOn: dayAfter(start, -1),
    nextOn: dayAfter(start, 5 * 365),
    callWhom: 'Halewick Array Works, 01632 960 118',
    lightning: 'none',
  })
  const [rowId] = rowIds(1, 0x8800) as [string]
  job.part(arrayId, {
    kind: 'array',
    tag: 'Nave roof',
    tilt_deg: 40,
    azimuth_deg: 160,
    mounting: 'open-rack',
    stringCable: '6 mm², class II for solar',
    mainCable: 'none',
  })
  const strings = partIds(['none', 'none'], 0x8000, 9).map((id, k) => ({ id, data: stringOf(`${k + 1}`, arrayId, 9) }))
  for (const one of strings) job.part(one.id, one.data)
  job.part(rowId, { kind: 'row', tag: 'R1', arrayId, conductor: { length_m: 22, area_mm2: 6, joints: 3 } })
  const plate = {
    make: 'Tallowmere',
    model: 'TM-8',
    serial: 'TM8-0042117',
    rated_W: 8000,
    isolator: '32 A, in the vestry board',
    reconnect_s: 60,
  }
  job.part(demoId(0x333), { ...inverter, ...plate })
  for (const step of ['inspection', 'safe-isolation']) job.take(step, siteId)
  job.take('lead-null', siteId, { 'lead-set': { choice: 'reel-30' } })
  job.take('sensors', arrayId, { tilt: '40', azimuth: '158' })
  job.take('earth-continuity', rowId, { 'lead-set': { choice: 'reel-30' } })
  for (const step of ['pv-polarity', 'pv-voc', 'pv-isc']) for (const one of strings) job.take(step, one.id)
  for (const one of strings) job.take('pv-insulation', one.id, DRY_AT_500)
  for (const one of strings) job.take('plugs-locked', one.id)
  job.take('ac-proved', demoId(0x333))
  job.take('reconnect', demoId(0x333))
  for (const one of strings) job.take('operating', one.id)
  job.take('grid-watch', demoId(0x333), { 'reconnect-wait': '74' })
  job.take('close-out', siteId)
  await job.save(byTam)
  for (const [who, role, right] of [
    [tam, 'tested', 'tester'],
    [isolde, 'checked', 'supervisor'],
  ] as const) {
    const coversHash = coverHash(await entriesOf(db, jobId))
    const statement =
      role === 'tested' ? 'I took these readings and they are as they were shown.' : 'I checked this record.'
    job.wait(5 * MINUTE_ms)
    job.add({ kind: 'signature', v: 1, role, printedName: who.name, statement, coversHash })
    await job.save({ ...who, right })
  }
  await sealJob(db, jobId, isolde, new Date(start + 3 * 60 * MINUTE_ms))
}

/** Six strings on two faces, entered and not yet begun: one has a module left out, and one row a joint never tightened. */
async function barnRoof(db: Database, kit: readonly Instrument[], now: number): Promise<void> {
  const [jobId, visitId, east, west] = [demoId(0x350), demoId(0x351), demoId(0x352), demoId(0x353)]
  const start = now - 30 * MINUTE_ms
  await createJob(
    db,
    {
      id: jobId,
      visitId,
      number: '0617',
      name: 'Larkspur Barn',
      place: 'Larkspur Farm, Halewick',
      people: [tam.id, ness.id],
      dueOn: dayAfter(now, 5),
    },
    new Date(start),
  )
  const job = new DemoJob(db, jobId, visitId, kit, start)
  job.site(demoId(0x354), -10)
  job.part(east, { kind: 'array', tag: 'East', tilt_deg: 22, azimuth_deg: 95, mounting: 'close-roof' })
  job.part(west, { kind: 'array', tag: 'West', tilt_deg: 22, azimuth_deg: 275, mounting: 'close-roof' })
  const faults: Fault[] = ['none', 'none', 'none', 'module-left-out', 'none', 'none']
  partIds(faults, 0xa000, 12).forEach((id, k) => {
    const input = k < 3 ? 'A' : 'B'
    job.part(id, {
      ...stringOf(`${k + 1}`, k < 3 ? east : west, 12),
      inverterId: demoId(0x356),
      input: `${input}${(k % 3) + 1}`,
    })
  })
  rowIds(2, 0xa800).forEach((id, k) => {
    const conductor = { length_m: 18 + 6 * k, area_mm2: 6, joints: 4 }
    job.part(id, { kind: 'row', tag: `R${k + 1}`, arrayId: k === 0 ? east : west, conductor })
  })
  job.part(demoId(0x355), { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 32 })
  job.part(demoId(0x356), { ...inverter, maxShortCircuit_A: 25 })
  await job.save(byTam)
}

/** Eight strings tested to category 2, each with its curve: four have a fault, and each another one. */
async function glasshouse(db: Database, kit: readonly Instrument[], now: number): Promise<void> {
  const [jobId, visitId, arrayId] = [demoId(0x3a0), demoId(0x3a1), demoId(0x3a2)]
  const start = now - 9 * 60 * MINUTE_ms
  await createJob(
    db,
    {
      id: jobId,
      visitId,
      number: '0619',
      name: 'Saltmarsh Glasshouse',
      place: 'Saltmarsh Lane 9, Fernsea',
      people: [tam.id, ness.id],
    },
    new Date(start),
  )
  const job = new DemoJob(db, jobId, visitId, kit, start)
  const siteId = job.site(demoId(0x3a5), -6)
  job.part(arrayId, {
    kind: 'array',
    tag: 'Packing shed',
    tilt_deg: 30,
    azimuth_deg: 178,
    mounting: 'open-rack',
    category: 2,
  })
  const faults: Fault[] = ['none', 'shaded', 'none', 'bad-joint', 'none', 'leaky-cells', 'module-turned', 'none']
  const strings = partIds(faults, 0xd000, 14).map((id, k) => ({ id, data: stringOf(`${k + 1}`, arrayId, 14) }))
  for (const one of strings) job.part(one.id, one.data)
  job.part(demoId(0x3a3), { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 32 })
  job.part(demoId(0x3a4), { ...inverter, maxShortCircuit_A: 150 })
  for (const step of ['inspection', 'safe-isolation']) job.take(step, siteId)
  job.take('sensors', arrayId, { tilt: '30', azimuth: '178' })
  for (const step of ['pv-polarity', 'pv-voc', 'pv-isc']) for (const one of strings) job.take(step, one.id)
  for (const one of strings) job.take('pv-insulation', one.id, DRY_AT_500)
  for (const one of strings) job.take('pv-curve', one.id)
  await job.save(byTam)
}
