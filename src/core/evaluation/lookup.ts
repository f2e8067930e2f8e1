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
import { type EntryIndex, indexEntries, withEntries } from './entryIndex'
import { type Counted, contextOf } from './judge'
import { LeadNulls } from './leadNulls'
import { touchOneStep } from './next'
import { PlantHistory } from './plantHistory'
import { runOf } from './run'
import type { Run } from './runOf'
import { stepKey } from './stepKey'

const NOBODY_READS = new Map<string, Set<string>>()

export class Lookup {
  private readonly counting = new Map<string, Body<'reading'> | null>()
  private readonly run: Run
  private readonly placeOf: ReadonlyMap<string, number>

  private constructor(
    readonly facts: Facts,
    private readonly index: EntryIndex,
    readonly parts: ReadonlyMap<string, Part>,
    private readonly plant: PlantIndex,
    private readonly history: PlantHistory,
  ) {
    this.placeOf = new Map(stepsOf(facts.regime).map((step, k) => [step.id, k]))
    const nulls = new LeadNulls()
    const known = { facts, scope: {}, plant, index, history, nulls, owns: new Map(), readers: NOBODY_READS }
    this.run = { ...runOf(known), countedFor: (reader) => this.countedBefore(reader) }
    for (const step of steps) if (isRead(step) && step.nulls) this.takeNulls(nulls, step)
  }

  static of(facts: Facts): Lookup {
    const entries = inOrder(facts.entries)
    const parts = plantOfJob(entries, facts.job.id)
    const history = new PlantHistory(entries, facts.job.id)
    return new Lookup(facts, indexEntries(entries), parts, new PlantIndex(parts), history)
  }

  /** The same with entries that came since. */
  with(added: readonly Entry[]): Lookup {
    const facts = { ...this.facts, entries: [...this.facts.entries, ...added] }
    const index = added.every((entry) => this.isLast(entry)) ? withEntries(this.index, added) : null
    return index ? new Lookup(facts, index, this.parts, this.plant, this.history) : Lookup.of(facts)
  }

  /** The same facts but for what is no entry. */
  facing(facts: Facts): Lookup {
    return facts.regime === this.facts.regime && facts.entries === this.facts.entries
      ? new Lookup(facts, this.index, this.parts, this.plant, this.history)
      : Lookup.of(facts)
  }

  /** What must be refused or asked about in a reading, and what it lacks. */
  check(step: AnyReadStep, part: Part, body: Body<'reading'>): { check: ReadingCheck; missing: readonly Slot[] } {
    const { slots, conditions, instrument, how, v } = body
    const reading = { slots, conditions, instrument, how, v }
    const context = contextOf(step, part, this.plant, this.facts, (of, partId) => this.counted(of, partId), reading)
    return { check: checkReading(step, context, body), missing: missingSlots(step, body, context) }
  }

  /** Touches one test only, and is the last of it. */
  private isLast(entry: Entry): boolean {
    const { kind } = entry.body
    if (!touchOneStep.has(kind) || this.index.voids.has(entry.id)) return false
    const before = entry.step && entry.partId ? this.index.readings.get(stepKey(entry.step, entry.partId)) : undefined
    const last = before?.at(-1)
    return kind !== 'reading' || !last || correctedTime(last) < correctedTime(entry)
  }

  private takeNulls(nulls: LeadNulls, step: AnyReadStep): void {
    for (const part of this.plant.ofKind(step.appliesTo)) nulls.take(step, this.readingsOf(step, part))
  }

  private readingsOf(step: AnyReadStep, part: Part) {
    const key = stepKey(step.id, part.id)
    if (!this.index.readings.has(key)) return []
    const counted = this.countedBefore(key)
    const judging = { step, part, plant: this.plant, given: this.run.given, counted, changedAt: this.history.lastAt }
    return judgeReadings(this.run, judging, key)
  }

  /** A reading that was kept is judged beside those of steps before it in the working order. */
  private countedBefore(reader: string): Counted {
    const place = this.placeOf.get(reader.slice(0, reader.indexOf(':'))) ?? 0
    return (step, partId) => ((this.placeOf.get(step) ?? place) < place ? this.counted(step, partId) : null)
  }

  private counted(stepId: string, partId: string): Body<'reading'> | null {
    const key = stepKey(stepId, partId)
    let body = this.counting.get(key)
    if (body === undefined) {
      body = this.countingBody(key, stepById(stepId), this.parts.get(partId))
      this.counting.set(key, body)
    }
    return body
  }

  private countingBody(key: string, step: AnyStep | null, part: Part | undefined): Body<'reading'> | null {
    if (!step || !isRead(step) || !part || part.retired || part.data.kind !== step.appliesTo) return null
    if (step.where && !step.where(this.plant)) return null
    if (!isAskedOf(step, part, this.plant, this.facts.regime)) return null
    return countingReading(step, this.readingsOf(step, part), this.index.choices.get(key), {})?.entry.body ?? null
  }
}
