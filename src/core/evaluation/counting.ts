import { type Entry, type How, READING_VERSION } from '../record/entry'
import { type InstrumentCopy, rangeFor } from '../record/instrument'
import { correctedTime } from '../record/order'
import { measuredIn } from '../steps/reading'
import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import { isLater } from '../steps/slot'
import { type AnyReadStep, wantsConditions } from '../steps/step'
import { type Judgement, overruled } from '../verdict/judgement'
import { type Decided, gravest, type Flag, type Verdict } from '../verdict/verdict'
import { type EntryIndex, endedBy } from './entryIndex'
import { type Counted, contextOf, judgeStep, readingOf } from './judge'
import { listeningTo, lookAt } from './listening'
import { isMeterElsewhere } from './meterPlaces'
import type { Judging, Run } from './runOf'
import type { ReadingEvaluation, Scope } from './types'

const NO_FLAGS: readonly Flag[] = []

/** Every reading of one step on one part, judged at its own time and conditions. */
export const judgeReadings = (
  run: Run,
  judging: Judging,
  kept: readonly Entry<'reading'>[],
): readonly ReadingEvaluation[] => kept.map((one) => judgeEntry(run, judging, withJoined(one, run.index)))

/** One reading judged. */
export function judgeEntry(run: Run, judging: Judging, entry: Entry<'reading'>): ReadingEvaluation {
  const { step, part, counted } = judging
  const { index, plant, given } = run
  const at = correctedTime(entry)
  const isNulled = !step.nulled || run.nulls.before(step, entry, at)
  const isJoined = index.joined.size > 0 && index.joined.has(entry.id)
  const isElsewhere =
    wantsConditions(step, part) &&
    !isJoined &&
    isMeterElsewhere({ index, plant, instruments: given.instruments, part, entry, at })
  const marks = isNulled && !isJoined && !isElsewhere ? UNMARKED : { isJoined, isNulled, isElsewhere }
  const one = new KeptReading(run, step, part, counted, entry, at, endedBy(index, step.id, part.id, entry), marks)
  // What takes in readings of other steps is judged beside them; any other comes to the same whenever it is looked at.
  if (step.readsOthers) void one.verdict
  return one
}

/** How a reading was taken: with light from a file, with leads that were nulled, with the light meter in another plane. */
type Marks = { readonly isJoined: boolean; readonly isNulled: boolean; readonly isElsewhere: boolean }
/** As nearly all are taken. */
const UNMARKED: Marks = { isJoined: false, isNulled: true, isElsewhere: false }

/**
 * A reading that was kept. It is judged when its verdict is asked for, and of the judgement only what lists need stays: of
 * thousands few are looked at. Whoever looks has it judged again, by the same function from the same things.
 */
class KeptReading implements ReadingEvaluation {
  asked: readonly string[] | undefined
  private known: Decided | null = null
  private compared: number | null = null
  private flagged: readonly Flag[] = NO_FLAGS
  private judged: Judgement | null = null

  constructor(
    private readonly run: Run,
    private readonly step: AnyReadStep,
    private readonly part: Part,
    private readonly counted: Counted,
    readonly entry: Entry<'reading'>,
    readonly at: number,
    readonly ended: ReadingEvaluation['ended'],
    private readonly marks: Marks,
  ) {}

  get judgement(): Judgement {
    this.judged ??= this.judge(this.run.plant)
    return this.judged
  }

  get verdict(): Decided {
    return this.known ?? this.weigh()
  }

  get comparable(): number | null {
    if (this.known === null) this.weigh()
    return this.compared
  }

  get flags(): readonly Flag[] {
    if (this.known === null) this.weigh()
    return this.flagged
  }

  private judge(plant: PlantIndex): Judgement {
    const { step, part, counted } = this
    const { given, together } = this.run
    const beside = together ? together.beside(step, part, this.entry.body, this.at) : null
    const own = judgeStep(
      step,
      contextOf(step, part, plant, given, counted, beside ? readingOf(this.entry.body, beside) : this.entry.body),
    )
    if (this.marks.isNulled || own.verdict !== 'within') return own
    return overruled(own, 'close', { code: 'leads-not-nulled', figures: {}, also: [own.finding] })
  }

  /** Judges, and keeps what lists need of it. */
  private weigh(): Decided {
    const { plant, changedAt } = this.run
    // Only of a plant that was changed since does anybody want to know what it was asked.
    const listening = this.at < changedAt ? listeningTo(plant) : null
    listening?.asked.clear()
    const judgement = this.judge(listening?.plant ?? plant)
    if (listening) {
      lookAt(judgement)
      this.asked = [...listening.asked]
    }
    const own = this.ownFlags()
    const { flags, comparable, verdict } = judgement
    this.flagged = flags.length === 0 ? own : own.length === 0 ? flags : [...flags, ...own]
    this.compared = comparable
    this.known = verdict
    return verdict
  }

  private ownFlags(): readonly Flag[] {
    const { entry, at, marks, step } = this
    const { body } = entry
    const flags: Flag[] = []
    const { conditions, instrument } = body
    if (isSimulated(body)) flags.push('stand-in')
    if (
      isOutOfDate(instrument, at) ||
      isOutOfDate(conditions?.irradiance.instrument, at) ||
      isOutOfDate(conditions?.cell.instrument, at)
    )
      flags.push('instrument-out-of-date')
    if (instrument && isOverRange(step, body, instrument)) flags.push('over-instrument-range')
    if (conditions && this.isApart()) flags.push('conditions-apart')
    if (!marks.isNulled) flags.push('leads-not-nulled')
    if (marks.isElsewhere) flags.push('meter-elsewhere')
    if (marks.isJoined) flags.push('conditions-from-file')
    if (entry.clockMoved_ms !== undefined) flags.push('clock-moved')
    if (body.confirmed.length > 0) flags.push('unlikely-confirmed')
    if (isAskedMoreNow(step, body)) flags.push('earlier-questions')
    return flags.length === 0 ? NO_FLAGS : flags
  }

  /** Whether light and warmth were taken at another moment than the reading. */
  private isApart(): boolean {
    const { entry, at } = this
    const { conditions } = entry.body
    const apart_s = this.run.given.regime.limits['conditions.apart']?.value
    if (!conditions || apart_s === undefined) return false
    return Math.abs(Date.parse(conditions.at) - (at - entry.clockOffset_ms)) / 1000 > apart_s
  }
}

/** Whether a test asks for more by now than when it was read. */
const isAskedMoreNow = (step: AnyReadStep, body: Entry<'reading'>['body']): boolean =>
  body.v < READING_VERSION && step.slots.some((slot) => isLater(slot, body) && !(slot.id in body.slots))

/** A reading with the light and warmth that were joined to it later; what it was taken with stays in its entry. */
function withJoined(entry: Entry<'reading'>, index: EntryIndex): Entry<'reading'> {
  const joined = index.joined.size > 0 ? index.joined.get(entry.id) : undefined
  return joined ? { ...entry, body: { ...entry.body, conditions: joined.body.conditions } } : entry
}

/**
 * Whether any of its figures came from a stand-in: each says so for itself, or its reading does. What a stand-in fed is
 * simulated whatever was said of the way; what somebody typed beside one is typed.
 */
function isSimulated({ slots, how, conditions, instrument }: Entry<'reading'>['body']): boolean {
  if (conditions) {
    const { how: way, irradiance, cell } = conditions
    if (came(way, irradiance.instrument) || came(way, cell.instrument)) return true
  }
  for (const id in slots) {
    const value = slots[id]!
    if (came(value.how ?? how, instrument) && (!('choice' in value) || value.how)) return true
  }
  return false
}

const came = (way: How, from: InstrumentCopy | null | undefined): boolean =>
  way === 'stand-in' || (way === 'feed' && from?.standIn === true)

/** Each figure against the range of its own quantity: volts are no amperes. */
function isOverRange(step: AnyReadStep, body: Entry<'reading'>['body'], instrument: InstrumentCopy): boolean {
  const takenFor = measuredIn(step.slots, body)
  return step.slots.some((slot) => {
    const value = body.slots[slot.id]
    if (!slot.measures || !value || 'choice' in value) return false
    const most = rangeFor(instrument, slot.measures, takenFor)?.most ?? null
    if (most === null) return false
    return 'curve' in value ? value.curve.voltages_V.some((volts) => volts > most) : Math.abs(value.value) > most
  })
}

const dueTimes = new Map<string, number>()

/** Whether an instrument's calibration had run out at a time; it holds to the end of its last day. */
function isOutOfDate(instrument: InstrumentCopy | null | undefined, at: number): boolean {
  const due = instrument?.calibrationDue
  if (!due) return false
  let until = dueTimes.get(due)
  if (until === undefined) {
    until = Date.parse(`${due}T23:59:59Z`)
    dueTimes.set(due, until)
  }
  return until < at
}

/**
 * Whether a reading tells something that a later one does not take back: one whose set-up decided nothing is simply read
 * again, and one that may lie beyond its limit stays.
 */
const tells = (one: ReadingEvaluation): boolean => one.verdict !== 'not-yet' || one.judgement.isUndecided

/**
 * Which reading counts: of those in scope, as the step declares, and a person's choice among readings before it decides.
 * Without a scope the last visit in which the test was read counts; earlier visits are there to compare with.
 */
export function countingReading(
  step: Pick<AnyReadStep, 'counts'>,
  readings: readonly ReadingEvaluation[],
  choice: Entry<'choice'> | undefined,
  scope: Scope,
): ReadingEvaluation | null {
  const isInScope = (one: ReadingEvaluation): boolean =>
    !one.ended && (!scope.visitId || one.entry.visitId === scope.visitId)
  if (readings.length === 1) return isInScope(readings[0]!) ? readings[0]! : null
  const last = readings.findLast(isInScope)
  if (!last) return null
  const may = readings.filter((one) => !one.ended && one.entry.visitId === last.entry.visitId)
  if (choice && correctedTime(choice) >= last.at) {
    const chosen = may.find((reading) => reading.entry.id === choice.body.target)
    if (chosen) return chosen
  }
  if (step.counts !== 'worst') return last
  const telling = may.filter((reading) => reading === last || tells(reading))
  const verdict = gravest(telling.map((reading) => reading.verdict))
  return telling.findLast((reading) => reading.verdict === verdict) ?? last
}

/** True where two people read unlike values on one step in one visit, and nobody has chosen yet. */
export function peopleDisagree(readings: readonly ReadingEvaluation[], choice: Entry<'choice'> | undefined): boolean {
  if (readings.length < 2) return false
  const may = readings.filter((reading) => !reading.ended)
  const last = may.at(-1)
  if (!last || (choice && correctedTime(choice) >= last.at)) return false
  const ofVisit = may.filter((reading) => reading.entry.visitId === last.entry.visitId)
  const byPerson = new Map(ofVisit.map((reading) => [reading.entry.personId, reading]))
  for (const other of byPerson.values()) if (other !== last && unlike(other, last)) return true
  return false
}

function unlike(a: ReadingEvaluation, b: ReadingEvaluation): boolean {
  if (a.verdict !== b.verdict) return true
  const ar = a.judgement.referred
  const br = b.judgement.referred
  if (!ar || !br) return false
  const room = relativeWhisker(a) * ar.value + relativeWhisker(b) * br.value
  return Math.abs(ar.value - br.value) > room
}

/** Whisker and bracket together, as a share of the reading: light moves between two people's readings. */
function relativeWhisker({ judgement }: ReadingEvaluation): number {
  const { rule } = judgement
  if (!rule?.measured || !rule.expected) return 0
  return (
    rule.measured.whisker / Math.abs(rule.measured.value) + rule.expected.uncertainty / Math.abs(rule.expected.value)
  )
}

export function verdictWithFlags(verdict: Verdict, flags: readonly Flag[]): Verdict {
  if (flags.includes('plant-changed') && verdict !== 'outside') return 'not-yet'
  if (flags.includes('two-people') && verdict === 'within') return 'close'
  return verdict
}
