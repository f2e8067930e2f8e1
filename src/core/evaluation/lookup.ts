/**
 * What a reading is held against before it is kept, looked up when it is asked for: the plant, and of other tests the
 * reading that counts. A door takes one reading after another and shows nothing, so it needs no evaluation of the whole
 * job; a law in `tests/laws` holds that both check a reading alike.
 */
import type { Part } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { plantOfJob } from '../plant/projection'
import { checkReading, type ReadingCheck } from '../record/doubts'
import type { Body, Entry } from '../record/entry'
import type { Facts } from '../record/facts'
import { correctedTime, inOrder } from '../record/order'
import { stepById, steps, stepsOf } from '../steps'
import { missingSlots, type Slot } from '../steps/slot'
import { type AnyReadStep, type AnyStep, isAskedOf, isRead } from '../steps/step'
import { countingReading, judgeReadings } from './counting'
import { type EntryIndex, indexEntries, ofKind, withEntries } from './entryIndex'
import { type Counted, contextOf } from './judge'
import { LeadNulls } from './leadNulls'
import { touchOneStep } from './next'
import { PlantHistory } from './plantHistory'
import { OnParts } from '../plant/onParts'
import { runOf } from './run'
import type { Own, Readers, Run } from './runOf'
import { stepKey } from './stepKey'

const NOBODY_READS = OnParts.empty<Readers>()

/** What is made of the facts once somebody asks. */
type Made = {
  index: EntryIndex
  parts: ReadonlyMap<string, Part>
  plant: PlantIndex
  history: PlantHistory
}

function madeOf(facts: Facts): Made {
  const index = indexEntries(inOrder(facts.entries))
  const changes = ofKind(index, 'plant-change')
  const parts = plantOfJob(changes, facts.job.id)
  return { index, parts, plant: new PlantIndex(parts), history: new PlantHistory(changes, facts.job.id) }
}

export class Lookup {
  private readonly counting = new Map<string, Body<'reading'> | null>()
  private running: Run | null = null
  private order: ReadonlyMap<string, number> | null = null

  private constructor(
    readonly facts: Facts,
    private made: Made | null,
  ) {}

  /** Nothing is looked at before somebody asks: of a hundred parts that are entered in a row, only the last plant is. */
  static of(facts: Facts): Lookup {
    return new Lookup(facts, null)
  }

  private get all(): Made {
    this.made ??= madeOf(this.facts)
    return this.made
  }

  get parts(): ReadonlyMap<string, Part> {
    return this.all.parts
  }

  /** The same with entries that came since. */
  with(added: readonly Entry[]): Lookup {
    const facts = { ...this.facts, entries: [...this.facts.entries, ...added] }
    const { made } = this
    if (!made || !added.every((entry) => isLastOf(made.index, entry))) return new Lookup(facts, null)
    return new Lookup(facts, { ...made, index: withEntries(made.index, added) })
  }

  /** The same entries beside something else that is none: visits, the kit. */
  facing(facts: Facts): Lookup {
    const isSame = facts.regime === this.facts.regime && facts.entries === this.facts.entries
    return new Lookup(facts, isSame ? this.made : null)
  }

  /** What must be refused or asked about in a reading, and what it lacks. */
  check(step: AnyReadStep, part: Part, body: Body<'reading'>): { check: ReadingCheck; missing: readonly Slot[] } {
    const { slots, conditions, instrument, how, v } = body
    const reading = { slots, conditions, instrument, how, v }
    const context = contextOf(step, part, this.all.plant, this.facts, (of, partId) => this.counted(of, partId), reading)
    return { check: checkReading(step, context, body), missing: missingSlots(step, body, context) }
  }

  private get run(): Run {
    if (this.running) return this.running
    const nulls = new LeadNulls()
    const known = {
      ...this.all,
      facts: this.facts,
      scope: {},
      nulls,
      together: null,
      owns: OnParts.empty<Own>(),
      readers: NOBODY_READS,
    }
    this.running = { ...runOf(known), countedFor: (reader) => this.countedBefore(reader) }
    for (const step of steps) if (isRead(step) && step.nulls) this.takeNulls(nulls, step)
    return this.running
  }

  private placeOf(step: string): number | undefined {
    this.order ??= new Map(stepsOf(this.facts.regime).map((one, k) => [one.id, k]))
    return this.order.get(step)
  }

  private takeNulls(nulls: LeadNulls, step: AnyReadStep): void {
    for (const part of this.all.plant.ofKind(step.appliesTo)) nulls.take(step, this.readingsOf(step, part))
  }

  private readingsOf(step: AnyReadStep, part: Part) {
    const kept = this.all.index.readings.get(step.id, part.id)
    if (!kept) return []
    const counted = this.countedBefore(step)
    return judgeReadings(this.run, { step, part, counted }, kept)
  }

  /** A reading that was kept is judged beside those of steps before it in the working order. */
  private countedBefore(reader: AnyStep): Counted {
    const place = this.placeOf(reader.id) ?? 0
    return (step, partId) => ((this.placeOf(step) ?? place) < place ? this.counted(step, partId) : null)
  }

  private counted(stepId: string, partId: string): Body<'reading'> | null {
    const key = stepKey(stepId, partId)
    let body = this.counting.get(key)
    if (body === undefined) {
      body = this.countingBody(stepById(stepId), this.parts.get(partId))
      this.counting.set(key, body)
    }
    return body
  }

  private countingBody(step: AnyStep | null, part: Part | undefined): Body<'reading'> | null {
    if (!step || !isRead(step) || !part || part.retired || part.data.kind !== step.appliesTo) return null
    if (step.where && !step.where(this.all.plant)) return null
    if (!isAskedOf(step, part, this.all.plant, this.facts.regime)) return null
    const choice = this.all.index.choices.get(step.id, part.id)
    return countingReading(step, this.readingsOf(step, part), choice, {})?.entry.body ?? null
  }
}

/** Whether an entry touches one test only, and is the last of it. */
function isLastOf(index: EntryIndex, entry: Entry): boolean {
  const { kind } = entry.body
  if (!touchOneStep.has(kind) || index.voids.has(entry.id)) return false
  const before = entry.step && entry.partId ? index.readings.get(entry.step, entry.partId) : undefined
  const last = before?.at(-1)
  return kind !== 'reading' || !last || correctedTime(last) < correctedTime(entry)
}
