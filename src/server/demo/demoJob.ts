/** A demo job as it is made: entries as a device would send them, readings from the stand-ins' own physics. */
import { watchedUntil } from '@/core/record/watch'
import { v7 as uuid } from 'uuid'
import { curveOf } from '@/core/curve/curveValue'
import { acKinds, type PartData } from '@/core/plant/part'
import { type FeedSample, type LiveSample, liveSample } from '@/core/record/feed'
import { type Body, type Conditions, type EntryBody, READING_VERSION, type SlotValue } from '@/core/record/entry'
import { copyForReading, type Instrument, type Measurable } from '@/core/record/instrument'
import { readValueOf } from '@/core/quantity/readValue'
import { PlantIndex } from '@/core/plant/plantIndex'
import type { Place } from '@/core/pv/sky'
import { defaultRegime } from '@/core/regime/shipped'
import { stepById } from '@/core/steps'
import { CHECK_SOUND, type Slot, slotsShown } from '@/core/steps/slot'
import { type AnyStep, isRead, wantsConditions } from '@/core/steps/step'
import { pressStandIn, wasBuiltSound } from '@/standin/press'
import { asBuilt, type Fault } from '@/standin/roof'
import { sensorReading } from '@/standin/sensors'
import { skyOver } from '@/standin/sky'
import type { Database } from '../db/client'
import { appendEntries, readBatch } from '../jobs/appendEntries'
import type { Author } from '../jobs/refusals'
import { beginVisit } from '../jobs/visits'
import { demoId } from './instruments'

/** Ids of strings that were really built with these faults, and with sound insulation. */
export function partIds(faults: readonly Fault[], from: number, modules: number): string[] {
  let n = from
  return faults.map((fault) => {
    while (asBuilt(demoId(n), modules).fault !== fault || !wasBuiltSound('insulation', demoId(n))) n++
    return demoId(n++)
  })
}

/** Ids of rows whose bonding was really made well. */
export function rowIds(count: number, from: number): string[] {
  let n = from
  return Array.from({ length: count }, () => {
    while (!wasBuiltSound('bonding', demoId(n))) n++
    return demoId(n++)
  })
}

/** Light that moved less than this share in ten seconds is steady. */
const STEADY = 0.01
const LOOK_BACK_ms = 10_000
const MOST_WAITS = 60
/** A curve is swept where its translation is relied on, W/m2; until then somebody has a cup of tea. */
const BRIGHT_Wm2 = 720
const OPEN_SEA: Place = { latitude_deg: 53.6, longitude_deg: 1.9 }
const TEA_ms = 120_000
const MOST_TEA = 150

/** The parts of a sweep as one curve. */
function curveFrom(samples: readonly FeedSample[]): SlotValue {
  const parts = samples.flatMap(({ sweep }) => sweep ?? [])
  const { sweep_s, endIrradiance_Wm2 } = parts.at(-1)!
  const curve = curveOf(
    parts.flatMap(({ points }) => points),
    { ...(sweep_s ? { sweep_s } : {}), ...(endIrradiance_Wm2 ? { endIrradiance_Wm2 } : {}) },
  )
  return { curve, how: 'stand-in' }
}

export type Answers = Record<string, SlotValue | string>

/** Whose it is, who answers for it, and when it is looked at again. */
type SiteParticulars = Partial<Omit<Extract<PartData, { kind: 'site' }>, 'kind' | 'tag'>>

export class DemoJob {
  private readonly entries: object[] = []
  private readonly revisions = new Map<string, string>()
  private readonly parts = new Map<string, PartData>()
  private readonly sky: string

  constructor(
    private readonly db: Database,
    private readonly jobId: string,
    private visitId: string,
    private readonly kit: readonly Instrument[],
    /** Time of the next entry, ms since 1970. */
    private at: number,
    private readonly regime = defaultRegime,
  ) {
    this.sky = skyOver(jobId)
  }

  add(body: EntryBody, partId: string | null = null, step: string | null = null): string {
    const id = uuid({ msecs: this.at })
    const deviceTime = new Date(this.at).toISOString()
    const about = { jobId: this.jobId, visitId: this.visitId, partId, step }
    this.entries.push({ id, ...about, deviceTime, clockOffset_ms: 0, body })
    return id
  }

  /** Comes back at a later time, ms since 1970, for a further visit. */
  async comeBack(visitId: string, at: number, title: string): Promise<void> {
    this.at = at
    const visit = await beginVisit(this.db, this.jobId, { id: visitId, title }, new Date(at))
    this.visitId = visit.id
  }

  wait(ms: number): void {
    this.at += ms
  }

  part(partId: string, data: PartData): string {
    this.revisions.set(partId, this.add({ kind: 'plant-change', v: 1, before: null, after: data, base: null }, partId))
    this.parts.set(partId, data)
    this.wait(2000)
    return partId
  }

  /** @param place in open sea, for the places of the demo are nobody's; null where nobody entered it yet. */
  site(
    partId: string,
    lowestTemperature_C: number,
    place: Place | null = OPEN_SEA,
    particulars: SiteParticulars = {},
  ): string {
    const warmth = { lowestTemperature_C, highestCellTemperature_C: 70 }
    return this.part(partId, { kind: 'site', tag: 'Site', ...warmth, ...place, ...particulars })
  }

  private conditions(): Conditions {
    const meter = this.kit[1]!
    const read = (kind: 'irradiance' | 'module-back-temperature') => {
      const value = sensorReading(kind, this.sky, meter.id, this.at)
      const unit = kind === 'irradiance' ? 'Wm2' : 'degC'
      const sample = { quantity: kind, value, bound: 'exact' as const, unit, at: new Date(this.at).toISOString() }
      return { read: (liveSample(meter, sample) as LiveSample).read, instrument: copyForReading(meter, kind) }
    }
    const back = read('module-back-temperature')
    return {
      irradiance: read('irradiance'),
      cell: { way: 'back', mounting: 'open-rack', ...back },
      at: new Date(this.at).toISOString(),
      how: 'stand-in',
    }
  }

  /** Waits for steady light, as a tester does who reads a current: at a cloud's edge sensor and string disagree. */
  private settle(): void {
    const light = (at: number): number => sensorReading('irradiance', this.sky, this.kit[1]!.id, at)
    for (let k = 0; k < MOST_WAITS; k++) {
      const [before, now] = [light(this.at - LOOK_BACK_ms), light(this.at)]
      if (Math.abs(now / before - 1) < STEADY) return
      this.wait(LOOK_BACK_ms)
    }
  }

  /** Waits for light that a curve is worth sweeping in. */
  private brighten(): void {
    const light = (): number => sensorReading('irradiance', this.sky, this.kit[1]!.id, this.at)
    for (let k = 0; k < MOST_TEA && light() < BRIGHT_Wm2; k++) this.wait(TEA_ms)
  }

  /** Takes a reading: checks as they should be, figures from the simulated tester, the rest as answered. */
  take(stepId: string, partId: string, answers: Answers = {}): string | null {
    const step = stepById(stepId)
    const data = this.parts.get(partId)
    if (!step || !isRead(step) || !data)
      throw new Error(`demo data: expected a step and a part, got ${stepId} on ${partId}`)
    const choices = Object.fromEntries(
      Object.entries(answers).flatMap(([id, value]) =>
        typeof value === 'object' && 'choice' in value ? [[id, value.choice]] : [],
      ),
    )
    if (stepId === 'pv-curve') this.brighten()
    const hasLight = wantsConditions(step, { data })
    if (hasLight) this.settle()
    const slots: Record<string, SlotValue> = {}
    const measured: Measurable[] = []
    for (const slot of slotsShown(step, choices, {
      part: { id: partId, data },
      regime: this.regime,
      plant: this.plant(),
    })) {
      const value = this.valueOf(slot, answers[slot.id], { id: partId, data }, step, choices)
      if (value === 'refused') return null
      if (value) slots[slot.id] = value
      if (slot.measures && value && answers[slot.id] === undefined) measured.push(slot.measures)
    }
    const body: Body<'reading'> = {
      kind: 'reading',
      v: READING_VERSION,
      slots,
      conditions: hasLight ? this.conditions() : null,
      how: 'typed',
      instrument: measured[0]
        ? copyForReading(this.toolFor(data, measured[0], choices['lead-set']), measured[0], measured)
        : null,
      place: data.kind === 'string' ? 'plugs' : null,
      plantRevision: this.revisions.get(partId) ?? '',
      confirmed: [],
      note: null,
    }
    const id = this.add(body, partId, stepId)
    this.wait(40_000)
    return id
  }

  private plant(): PlantIndex {
    return new PlantIndex(
      new Map([...this.parts].map(([id, data]) => [id, { id, data, revision: '', retired: false }])),
    )
  }

  private valueOf(
    slot: Slot,
    given: SlotValue | string | undefined,
    part: { id: string; data: PartData },
    step: AnyStep,
    choices: Record<string, string>,
  ): SlotValue | 'refused' | null {
    if (typeof given === 'string') return slot.kind === 'number' ? readValueOf(Number(given), slot.unit, 0) : null
    if (given) return given
    if (slot.kind === 'check') return { choice: CHECK_SOUND }
    if (slot.measures === null || slot.optional) return null
    const loaded = step.tag === 'live'
    const tool = this.toolFor(part.data, slot.measures, choices['lead-set'])
    const pressed = pressStandIn(tool, slot.measures, part, this.sky, this.at, {
      loaded,
      setting: { step: step.id, slot: slot.id, choices },
      others: [...this.parts].map(([id, data]) => ({ id, data })),
    })
    if (pressed.state === 'refused') return 'refused'
    const samples = pressed.state === 'swept' ? pressed.samples : [pressed.sample]
    if (slot.kind === 'curve') return curveFrom(samples)
    const all = samples.map((sample) => liveSample(tool, sample) as LiveSample)
    const last = all.at(-1)!
    const { read } = last
    const how = 'stand-in'
    const watched = watchedUntil(all, last, null)
    if (slot.kind === 'number') return { ...read, how, ...(watched ? { watched } : {}) }
    return slot.kind === 'choice' && slot.told ? { choice: slot.told(read.value), how } : null
  }

  /** The instrument of the kit for a quantity: the one with those leads, else on the AC side the one that knows it all. */
  private toolFor(data: PartData, measures: Measurable, leadSet?: string): Instrument {
    const able = this.kit.filter((tool) => tool.ranges.some((range) => range.measures === measures))
    const own = able.find((tool) => tool.leadSets?.some(({ id }) => id === leadSet))
    if (own) return own
    const hasStrings = [...this.parts.values()].some(({ kind }) => kind === 'string')
    const isAc = acKinds.has(data.kind) || (data.kind === 'site' && !hasStrings)
    return (isAc ? able.at(-1) : able[0]) ?? this.kit[0]!
  }

  async save(author: Author): Promise<void> {
    const kit = new Map(this.kit.map((tool) => [tool.id, tool]))
    for (let from = 0; from < this.entries.length; from += 100) {
      const batch = readBatch(this.entries.slice(from, from + 100))
      const fates = await appendEntries(this.db, this.jobId, author, batch, kit)
      const bad = fates.find((fate) => fate.fate !== 'kept')
      if (bad) throw new Error(`demo data: expected every entry to be kept, got ${JSON.stringify(bad)}`)
    }
    this.entries.length = 0
  }
}
