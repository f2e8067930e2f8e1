/**
 * The one source of everything shown: facts in, evaluation out. Pure, linear in the number of entries; `now` decides
 * only what is due, never a verdict.
 */
import type { CurveToExplain } from './diagnosis/curveCauses'
import { type EntryIndex, ofKind } from './evaluation/entryIndex'
import { swappedNeighbour } from './evaluation/neighbour'
import { contextIn } from './evaluation/draft'
import { isOnSheet } from './evaluation/hunts'
import { judgeStep } from './evaluation/judge'
import { addedSince, wholeWith } from './evaluation/next'
import { ByKey } from './plant/onParts'
import { remember, type Whole, wholeBehind, wholeOf } from './evaluation/run'
import { questionsOf } from './evaluation/questions'
import { snagsOf } from './evaluation/snags'
import { stationsOf } from './evaluation/stations'
import { stepKey } from './evaluation/stepKey'
import { trendOf } from './evaluation/trend'
import type { Evaluation, Photo, Scope, Sisters, StepEvaluation } from './evaluation/types'
import type { Body } from './record/entry'
import type { Facts } from './record/facts'
import { correctedTime } from './record/order'
import { orLacking } from './regime/lacking'
import { signatureStates } from './record/signature'
import type { Part } from './plant/part'
import { pointTrips } from './steps/charge-point/pointTrips'
import { type TripPlan, tripPlanOf } from './steps/charge-point/tripPlan'
import type { Panel } from './steps/panel'
import type { Picture } from './steps/picture'
import { isRead, type KeptReading, type Reading, type StepContext } from './steps/step'
import type { Cause } from './verdict/cause'
import { overrulingLine, undecidedLines } from './verdict/judgement'
import { type Finding, type Verdict, worst } from './verdict/verdict'
import type { WorkingLine } from './verdict/working'

export {
  checkBody,
  type DraftEvaluation,
  evaluateDraft,
  heldAgainst,
  judgeBody,
  judgeFigure,
  sharedReadings,
} from './evaluation/draft'
export { type Known, knownOf } from './evaluation/knownAnswers'
export { type WithoutMeter, withoutMeter } from './evaluation/withoutMeter'
export type { Evaluation, StepEvaluation } from './evaluation/types'
export { stepKey } from './evaluation/types'

/**
 * @param now ms since 1970.
 * @param scope the visit whose readings count; without it each test's last visit.
 */
export function evaluate(facts: Facts, now: number, scope: Scope = {}): Evaluation {
  return evaluationOf(wholeOf(facts, scope), now)
}

/** The evaluation of facts that have a few entries more than those of another: only what they touch is evaluated. */
export function evaluateNext(before: Evaluation | null, facts: Facts, now: number): Evaluation {
  const whole = before && wholeBehind(before)
  const added = whole && addedSince(whole, facts)
  return whole && added ? evaluationOf(wholeWith(whole, facts, added), now) : evaluate(facts, now, before?.scope)
}

function evaluationOf(whole: Whole, now: number): Evaluation {
  const { facts, scope, parts, plant, entries, index, states, sisters } = whole
  const steps = whole.settled.all().filter(isOnSheet)
  let done = 0
  let next: string | null = null
  const verdicts = new Set<Verdict>()
  for (const one of steps) {
    verdicts.add(one.verdict)
    if (one.done) done++
    else if (!next && one.verdict !== 'held-back' && isRead(one.step)) next = one.key
  }
  const evaluation: Evaluation = {
    facts,
    scope,
    parts,
    plant,
    steps,
    byKey: new ByKey(whole.settled),
    stations: stationsOf(steps, plant),
    progress: { done, total: steps.length, worst: worst(verdicts) },
    next,
    states,
    sisters,
    snags: snagsOf(index, whole.settled),
    questions: questionsOf(index),
    photos: photosOf(index),
    signatures: ofKind(index, 'signature').length > 0 ? signatureStates(entries) : [],
    sinceSeal: countSinceSeal(facts),
    outOfDate: facts.instruments
      .filter((one) => one.calibrationDue !== null && Date.parse(`${one.calibrationDue}T23:59:59Z`) < now)
      .map((one) => one.id),
  }
  remember(evaluation, whole)
  return evaluation
}

function photosOf(index: EntryIndex): Photo[] {
  const photos: Photo[] = []
  for (const entry of ofKind(index, 'photo')) {
    if (index.voids.has(entry.id)) continue
    const { attachment, caption, takenAt } = entry.body
    const { step, partId, personId } = entry
    photos.push({ entryId: entry.id, attachment, caption, takenAt, step, partId, personId, at: correctedTime(entry) })
  }
  return photos
}

function countSinceSeal(facts: Facts): number {
  const last = facts.seals.at(-1)
  if (!last) return 0
  const covered = new Set(last.entryIds)
  return facts.entries.filter((entry) => !covered.has(entry.id)).length
}

/** How a step stands among its sisters, null where it has none. */
export const sistersOf = (evaluation: Evaluation, one: StepEvaluation): Sisters | null => evaluation.sisters.of(one)

/** The sum behind what a step comes to, its sisters included: the line that decides is that of its verdict. */
export function linesOf(evaluation: Evaluation, one: StepEvaluation): readonly WorkingLine[] {
  const { judgement } = one
  if (!judgement) return []
  const sisters = evaluation.sisters.line(one, evaluation.facts.regime)
  const { verdict } = one
  if (verdict === judgement.verdict || verdict === 'held-back' || verdict === 'left-out')
    return sisters ? [...judgement.lines, sisters] : judgement.lines
  const own = undecidedLines(judgement.lines)
  if (one.finding.code.startsWith('sisters.') && sisters) return [...own, { ...sisters, verdict, decides: true }]
  return [...own, ...(sisters ? [sisters] : []), overrulingLine(verdict, one.finding)]
}

/** Causes which explain a reading, likeliest first; a neighbour that is long by as much as this one is short is named. */
export function causes(evaluation: Evaluation, one: StepEvaluation): Cause[] {
  const { judgement, counting, step } = one
  if (!judgement || !step.causes) return []
  const context = contextIn(evaluation, one, counting?.entry.body ?? null, counting?.at)
  const found = step.causes(context, judgement)
  const swapped = swappedNeighbour(evaluation, one, found)
  return swapped ? [swapped, ...found] : found
}

/** What of a reading looks wrong and is not: only where it is within or close. It may look at readings of every step. */
export function soundOf(evaluation: Evaluation, one: StepEvaluation): readonly Finding[] {
  const { judgement, counting, step, verdict } = one
  if (!judgement || !counting || !isRead(step) || !step.sound) return []
  if (verdict !== 'within' && verdict !== 'close') return []
  return step.sound(lookedAt(evaluation, one, counting.entry.body), judgement)
}

/** What a step is judged in, before anything is read. */
export const contextOfStep = (evaluation: Evaluation, one: StepEvaluation): StepContext =>
  contextIn(evaluation, one, null)

/** A curve whose causes take a while to find, null where there is none. */
export function toExplain(evaluation: Evaluation, one: StepEvaluation): CurveToExplain | null {
  const { judgement, counting, step } = one
  if (!judgement || !counting || !step.explains) return null
  return step.explains(contextIn(evaluation, one, counting.entry.body), judgement)
}

/** What a step is looked at in, with what is answered so far: unlike a judgement it may ask for readings of any step. */
function lookedAt(
  evaluation: Evaluation,
  one: StepEvaluation,
  reading: Pick<Reading, 'slots'> & Partial<Reading>,
): ReturnType<typeof contextIn> {
  const counted = (step: string, partId: string) =>
    evaluation.byKey.get(stepKey(step, partId))?.counting?.entry.body ?? null
  return Object.create(contextIn(evaluation, one, reading), { counted: { value: counted, enumerable: true } })
}

/** The panel of a step with what is answered so far; it looks at readings of every step. Null where it has none. */
export function panelOf(
  evaluation: Evaluation,
  one: StepEvaluation,
  reading: Pick<Reading, 'slots'> & Partial<Reading>,
): Panel | null {
  if (!isRead(one.step) || !one.step.panel) return null
  const verdictOf = (step: string): Verdict =>
    step === one.step.id
      ? judgeStep(one.step, contextIn(evaluation, one, reading)).verdict
      : (evaluation.byKey.get(stepKey(step, one.part.id))?.verdict ?? 'not-yet')
  return one.step.panel(lookedAt(evaluation, one, reading), verdictOf)
}

/** The trips that somebody is led through at a charge point, and with which waveform. */
export const tripsOf = (evaluation: Evaluation, part: Part): TripPlan =>
  tripPlanOf(contextIn(evaluation, { step: pointTrips, part }, null) as StepContext as StepContext<'charge-point'>)

const nothing = (): readonly Picture[] => []

/** The pictures that a step wants beside its working, and its readings over time where there are several. */
export function picturesOf(
  evaluation: Evaluation,
  one: StepEvaluation,
  reading: Pick<Reading, 'slots'> & Partial<Reading>,
): readonly Picture[] {
  if (!isRead(one.step)) return []
  const { step } = one
  const looked = lookedAt(evaluation, one, reading)
  // A regime that lacks a figure which is drawn gives no picture, as it gives no verdict.
  const own = orLacking(() => step.pictures?.(looked) ?? [], nothing)
  const trend = trendOf(one)
  const all = step.pictureOfAll?.(looked, keptOf(one, reading))
  return [...own, ...(trend ? [trend] : []), ...(all ? [all] : [])]
}

/** Readings that were not taken back, without the one that is looked at. */
const keptOf = ({ readings }: StepEvaluation, { slots }: Pick<Reading, 'slots'>): KeptReading[] =>
  readings.flatMap(({ entry, ended }) =>
    ended?.by === 'void' || entry.body.slots === slots ? [] : [{ reading: entry.body, ended: ended !== null }],
  )

/** What an instrument must be set to for a reading as far as it is answered, by slot. */
export function askedFor(
  evaluation: Evaluation,
  one: StepEvaluation,
  slots: Body<'reading'>['slots'],
): Readonly<Record<string, string>> {
  return isRead(one.step) ? (one.step.asksFor?.(contextIn(evaluation, one, { slots })) ?? {}) : {}
}
