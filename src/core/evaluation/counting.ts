import type { Part } from '../plant/part'
import type { Entry } from '../record/entry'
import { type InstrumentCopy, rangeFor } from '../record/instrument'
import { correctedTime } from '../record/order'
import { measuredIn } from '../steps/reading'
import type { AnyReadStep } from '../steps/step'
import { gravest, type Flag, type Verdict } from '../verdict/verdict'
import { type EntryIndex, endedBy } from './entryIndex'
import { type Counted, contextOf, judgeStep, readingOf } from './judge'
import type { LeadNulls } from './leadNulls'
import type { Run } from './runOf'
import type { ReadingEvaluation, Scope } from './types'

/** Every reading of one step on one part, judged at its own time and conditions. */
export function judgeReadings(
  run: Run,
  step: AnyReadStep,
  part: Part,
  key: string,
  counted: Counted,
): ReadingEvaluation[] {
  const kept = run.index.readings.get(key)
  if (!kept) return []
  return kept.map((one) => judgeEntry(run, step, part, withJoined(one, run.index), key, counted))
}

/** One reading judged; `key` is that of its step, so that what ended it is found. */
export function judgeEntry(
  run: Run,
  step: AnyReadStep,
  part: Part,
  entry: Entry<'reading'>,
  key: string,
  counted: Counted,
): ReadingEvaluation {
  const judgement = judgeStep(step, contextOf(step, part, run.plant, run.facts, counted, readingOf(entry.body)))
  const at = correctedTime(entry)
  const flags = flagsOfReading(
    step,
    entry,
    at,
    run.index,
    run.nulls,
    run.facts.regime.limits['conditions.apart']?.value,
  )
  return {
    entry,
    at,
    judgement,
    verdict: judgement.verdict,
    flags: judgement.flags.length > 0 ? [...judgement.flags, ...flags] : flags,
    ended: endedBy(run.index, key, entry),
  }
}

/** A reading with the light and warmth that were joined to it later; what it was taken with stays in its entry. */
function withJoined(entry: Entry<'reading'>, index: EntryIndex): Entry<'reading'> {
  const joined = index.joined.get(entry.id)
  return joined ? { ...entry, body: { ...entry.body, conditions: joined.body.conditions } } : entry
}

function flagsOfReading(
  step: AnyReadStep,
  entry: Entry<'reading'>,
  at: number,
  index: EntryIndex,
  nulls: LeadNulls,
  apart_s: number | undefined,
): Flag[] {
  const { body } = entry
  const flags: Flag[] = []
  const { conditions, instrument } = body
  const light = conditions?.irradiance.instrument ?? null
  const warmth = conditions?.cell.instrument ?? null
  if (isSimulated(body)) flags.push('stand-in')
  if (isOutOfDate(instrument, at) || isOutOfDate(light, at) || isOutOfDate(warmth, at))
    flags.push('instrument-out-of-date')
  if (instrument && isOverRange(step, body, instrument)) flags.push('over-instrument-range')
  if (conditions && step.needsConditions && apart_s !== undefined) {
    const taken = correctedTime(entry) - entry.clockOffset_ms
    if (Math.abs(Date.parse(conditions.at) - taken) / 1000 > apart_s) flags.push('conditions-apart')
  }
  if (step.nulled && !nulls.before(step, entry, at)) flags.push('leads-not-nulled')
  if (index.joined.has(entry.id)) flags.push('conditions-from-file')
  if (body.confirmed.length > 0) flags.push('unlikely-confirmed')
  if (body.v === 1 && step.slots.some((slot) => slot.since && !(slot.id in body.slots))) flags.push('earlier-questions')
  return flags
}

/** Whether any of its figures came from a stand-in: each says so for itself, or its reading does. */
function isSimulated({ slots, how, conditions }: Entry<'reading'>['body']): boolean {
  if (conditions?.how === 'stand-in') return true
  for (const id in slots) {
    const value = slots[id]!
    if ((value.how ?? how) === 'stand-in' && ('value' in value || value.how)) return true
  }
  return false
}

/** Each figure against the range of its own quantity: volts are no amperes. */
function isOverRange(step: AnyReadStep, body: Entry<'reading'>['body'], instrument: InstrumentCopy): boolean {
  const takenFor = measuredIn(step.slots, body)
  return step.slots.some((slot) => {
    const value = body.slots[slot.id]
    if (!slot.measures || !value || !('value' in value)) return false
    const most = rangeFor(instrument, slot.measures, takenFor)?.most ?? null
    return most !== null && Math.abs(value.value) > most
  })
}

const dueTimes = new Map<string, number>()

/** Whether an instrument's calibration had run out at a time; it holds to the end of its last day. */
function isOutOfDate(instrument: InstrumentCopy | null, at: number): boolean {
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
 * Which reading counts: of those in scope, as the step declares, and a person's choice among readings before it decides.
 * Without a scope the last visit in which the test was read counts; earlier visits are there to compare with.
 */
export function countingReading(
  step: Pick<AnyReadStep, 'counts'>,
  readings: readonly ReadingEvaluation[],
  choice: Entry<'choice'> | undefined,
  scope: Scope,
): ReadingEvaluation | null {
  if (readings.length === 0) return null
  const last = readings.findLast((one) => !one.ended && (!scope.visitId || one.entry.visitId === scope.visitId))
  if (!last) return null
  if (readings.length === 1) return last
  const may = readings.filter((one) => !one.ended && one.entry.visitId === last.entry.visitId)
  if (choice && correctedTime(choice) >= last.at) {
    const chosen = may.find((reading) => reading.entry.id === choice.body.target)
    if (chosen) return chosen
  }
  if (step.counts !== 'worst') return last
  const verdict = gravest(may.map((reading) => reading.verdict))
  return may.findLast((reading) => reading.verdict === verdict) ?? last
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
