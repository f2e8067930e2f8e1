/** Builds bundles of facts for tests and benchmarks: ids and times count up, so a bundle is the same every time. */
import type { PartData } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { plantFrom } from '../plant/projection'
import { readValueOf } from '../quantity/readValue'
import { type Body, type Conditions, type Entry, type EntryBody, READING_VERSION } from '../record/entry'
import type { Facts } from '../record/facts'
import { defaultRegime } from '../regime/shipped'
import { exampleModule, exampleSite } from '../steps/worked'

export const testId = (n: number): string => `00000000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`

export const START_ms = Date.parse('2026-05-14T10:00:00.000Z')
export const people = { wren: testId(0xa1), ada: testId(0xa2) }
export const JOB = testId(0xb1)
export const VISIT = testId(0xc1)

export class FactsBuilder {
  readonly entries: Entry[] = []
  private count = 0x1000
  private readonly revisions = new Map<string, string>()

  /** Plugs are parted on a site that was isolated, unless a test says otherwise. */
  constructor(isolated = true) {
    if (isolated) this.isolate(JOB)
  }

  isolate(siteId: string, about: Partial<Omit<Entry, 'body'>> = {}): string {
    const slots = {
      'ac-off': { choice: 'as-it-should' },
      'dc-switch-off': { choice: 'as-it-should' },
      'clamp-current': readValueOf(0, 'A', 2),
    }
    return this.reading('safe-isolation', siteId, { slots }, about)
  }

  /** Adds an entry one second after the last and gives its id. */
  add(body: EntryBody, about: Partial<Omit<Entry, 'body'>> = {}): string {
    const id = testId(this.count++)
    if (body.kind === 'plant-change' && about.partId) this.revisions.set(about.partId, id)
    const deviceTime = new Date(START_ms + this.entries.length * 1000).toISOString()
    this.entries.push({
      id,
      jobId: JOB,
      visitId: VISIT,
      partId: null,
      step: null,
      deviceTime,
      clockOffset_ms: 0,
      personId: people.wren,
      receivedAt: deviceTime,
      ...about,
      body,
    })
    return id
  }

  part(data: PartData, partId = testId(this.count++)): string {
    this.add({ kind: 'plant-change', v: 1, before: null, after: data, base: null }, { partId })
    if (data.kind === 'site') this.isolate(partId)
    return partId
  }

  string(tag: string, modulesInSeries = 11): string {
    return this.part({
      kind: 'string',
      tag,
      arrayId: null,
      modulesInSeries,
      moduleType: { id: testId(1), make: 'Example', name: 'Sixty', data: exampleModule },
    })
  }

  /** The id of the last change of a part. */
  revisionOf(partId: string): string {
    return this.revisions.get(partId) ?? ''
  }

  reading(
    step: string,
    partId: string,
    body: Partial<Body<'reading'>>,
    about: Partial<Omit<Entry, 'body'>> = {},
  ): string {
    return this.add(readingBody({ plantRevision: this.revisionOf(partId), ...body }), { step, partId, ...about })
  }

  polarity(partId: string, choice: 'correct' | 'reversed' = 'correct'): string {
    return this.reading('pv-polarity', partId, { slots: { polarity: { choice } } })
  }

  /** Nulls a set of leads; without a site one comes with it. */
  nulled(set: string, sitePart?: string): string {
    const slots = { 'lead-set': { choice: set }, nulled: readValueOf(0, 'ohm', 2) }
    return this.reading('lead-null', sitePart ?? this.part(exampleSite), { slots })
  }

  voltage(
    partId: string,
    volts: number,
    about: Partial<Omit<Entry, 'body'>> = {},
    body: Partial<Body<'reading'>> = {},
  ): string {
    const slots = { voltage: readValueOf(volts, 'V', 1) }
    return this.reading('pv-voc', partId, { slots, conditions: conditions(), ...body }, about)
  }

  current(partId: string, amperes: number, irradiance_Wm2 = 742): string {
    const slots = { current: readValueOf(amperes, 'A', 2) }
    return this.reading('pv-isc', partId, { slots, conditions: conditions(irradiance_Wm2) })
  }

  facts(rest: Partial<Facts> = {}): Facts {
    return {
      job: { id: JOB, number: '0001', name: 'Test roof', place: '', timeZone: 'UTC', company: 'Test' },
      visits: [{ id: VISIT, startsAt: new Date(START_ms).toISOString(), title: '' }],
      entries: this.entries,
      instruments: [],
      people: [
        { id: people.wren, name: 'Wren' },
        { id: people.ada, name: 'Ada' },
      ],
      regime: defaultRegime,
      seals: [],
      ...rest,
    }
  }
}

export function readingBody(body: Partial<Body<'reading'>>): Body<'reading'> {
  return {
    kind: 'reading',
    v: READING_VERSION,
    slots: {},
    conditions: null,
    how: 'typed',
    instrument: null,
    place: 'plugs',
    plantRevision: '',
    confirmed: [],
    note: null,
    ...body,
  }
}

/** Light and cell temperature, the latter read at the back of an insulated module so that it is the cell's own. */
export function conditions(irradiance_Wm2 = 742, cell_C = 43.6, at = new Date(START_ms).toISOString()): Conditions {
  const accuracy = { ofReading_pct: 2, digits: 1 }
  const instrument = {
    id: testId(0xd1),
    tag: '02',
    name: 'Light meter',
    calibrationDue: null,
    standIn: false,
    accuracy,
    most: 1600,
  }
  return {
    irradiance: { read: readValueOf(irradiance_Wm2, 'Wm2', 0), instrument },
    cell: { way: 'back', read: readValueOf(cell_C, 'degC', 1), mounting: 'insulated-back', instrument: null },
    at,
    how: 'typed',
  }
}

/** A plant of parts alone, nothing isolated and nothing read. */
export function plantOf(make: (builder: FactsBuilder) => void): PlantIndex {
  const builder = new FactsBuilder(false)
  make(builder)
  return new PlantIndex(plantFrom(builder.entries))
}
