import type { Part } from '../plant/part'
import type { Entry } from '../record/entry'
import type { InstrumentCopy } from '../record/instrument'
import { correctedTime } from '../record/order'
import type { AnyStep, StepContext } from '../steps/step'
import type { Flag, Verdict } from '../verdict/verdict'
import { worst } from '../verdict/verdict'
import { type EntryIndex, endedBy } from './entryIndex'
import type { LeadNulls } from './leadNulls'
import type { ReadingEvaluation } from './types'

/** Every reading of one step on one part, judged at its own time and conditions. */
export function judgeReadings(
  step: AnyStep,
  context: StepContext,
  key: string,
  index: EntryIndex,
  nulls: LeadNulls,
): ReadingEvaluation[] {
  return (index.readings.get(key) ?? []).map((kept) => {
    const entry = withJoined(kept, index)
    const judgement = step.judge(context, entry.body)
    const at = correctedTime(entry)
    return {
      entry,
      at,
      judgement,
      verdict: judgement.verdict,
      flags: [...judgement.flags, ...flagsOfReading(step, context, entry, at, index, nulls)],
      ended: endedBy(index, key, entry),
    }
  })
}

/** A reading with the light and warmth that were joined to it later; what it was taken with stays in its entry. */
function withJoined(entry: Entry<'reading'>, index: EntryIndex): Entry<'reading'> {
  const joined = index.joined.get(entry.id)
  return joined ? { ...entry, body: { ...entry.body, conditions: joined.body.conditions } } : entry
}

function flagsOfReading(
  step: AnyStep,
  context: StepContext,
  entry: Entry<'reading'>,
  at: number,
  index: EntryIndex,
  nulls: LeadNulls,
): Flag[] {
  const { body } = entry
  const flags: Flag[] = []
  const { conditions, instrument } = body
  const light = conditions?.irradiance.instrument ?? null
  const warmth = conditions?.cell.instrument ?? null
  if (body.how === 'stand-in' || instrument?.standIn || light?.standIn || warmth?.standIn) flags.push('stand-in')
  if (isOutOfDate(instrument, at) || isOutOfDate(light, at) || isOutOfDate(warmth, at))
    flags.push('instrument-out-of-date')
  const most = instrument?.most ?? null
  if (most !== null) {
    const over = Object.values(body.slots).some((slot) => 'value' in slot && Math.abs(slot.value) > most)
    if (over) flags.push('over-instrument-range')
  }
  if (conditions && step.needsConditions) {
    const taken = correctedTime(entry) - entry.clockOffset_ms
    const apart_s = Math.abs(Date.parse(conditions.at) - taken) / 1000
    if (apart_s > context.regime.limits['conditions.apart'].value) flags.push('conditions-apart')
  }
  if (step.nulled && !nulls.before(step, entry, at)) flags.push('leads-not-nulled')
  if (index.joined.has(entry.id)) flags.push('conditions-from-file')
  if (body.confirmed.length > 0) flags.push('unlikely-confirmed')
  return flags
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

/** Which reading counts, as the step declares; a person's choice among readings before it decides. */
export function countingReading(
  step: AnyStep,
  readings: readonly ReadingEvaluation[],
  choice: Entry<'choice'> | undefined,
): ReadingEvaluation | null {
  const may = readings.filter((reading) => !reading.ended)
  const last = may.at(-1)
  if (!last) return null
  if (choice && correctedTime(choice) >= last.at) {
    const chosen = may.find((reading) => reading.entry.id === choice.body.target)
    if (chosen) return chosen
  }
  if (step.counts === 'worst') {
    const verdict = worst(may.map((reading) => reading.verdict))
    return may.find((reading) => reading.verdict === verdict) ?? last
  }
  return last
}

/** True where two people read unlike values on one step in one visit, and nobody has chosen yet. */
export function peopleDisagree(readings: readonly ReadingEvaluation[], choice: Entry<'choice'> | undefined): boolean {
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

/** True where a plant change after the reading touched what its judgement takes in, and nobody confirmed it since. */
export function plantChangedSince(
  step: AnyStep,
  part: Part,
  reading: ReadingEvaluation,
  index: EntryIndex,
  confirmation: Entry<'confirmation'> | undefined,
): boolean {
  if (reading.entry.body.plantRevision === part.revision) return false
  const changes = index.plantChanges.get(part.id) ?? []
  const seen = changes.findIndex((change) => change.id === reading.entry.body.plantRevision)
  const later = changes.slice(seen + 1)
  const touching = later.filter((change) => {
    const { before, after } = change.body
    if (!before || !after) return before !== after && seen >= 0
    return step.inputs({ ...part, data: before }) !== step.inputs({ ...part, data: after })
  })
  const lastTouch = touching.at(-1)
  if (!lastTouch) return false
  return !confirmation || correctedTime(confirmation) < correctedTime(lastTouch)
}

export function verdictWithFlags(verdict: Verdict, flags: readonly Flag[]): Verdict {
  if (flags.includes('plant-changed') && verdict !== 'outside') return 'not-yet'
  if (flags.includes('two-people') && verdict === 'within') return 'close'
  return verdict
}
