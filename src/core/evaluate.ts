/**
 * The one source of everything shown: facts in, evaluation out. Pure, linear in the number of entries; `now` decides
 * only what is due, never a verdict.
 */
import { type EntryIndex, indexEntries } from './evaluation/entryIndex'
import { type Evaluated, gateStates } from './evaluation/gates'
import {
  countingReading,
  judgeReadings,
  peopleDisagree,
  plantChangedSince,
  verdictWithFlags,
} from './evaluation/judgeReadings'
import { swappedNeighbour } from './evaluation/neighbour'
import { LeadNulls } from './evaluation/leadNulls'
import { compareSisters } from './evaluation/sisters'
import { snagsOf } from './evaluation/snags'
import { trendOf } from './evaluation/trend'
import { type Evaluation, type Photo, type StationState, type StepEvaluation, stepKey } from './evaluation/types'
import type { Part } from './plant/part'
import { PlantIndex } from './plant/plantIndex'
import { plantFrom } from './plant/projection'
import { ModelCache } from './pv/stringModel'
import { type Body, type Entry, isKind } from './record/entry'
import type { Facts } from './record/facts'
import { correctedTime, inOrder } from './record/order'
import { signatureStates } from './record/signature'
import { stepsOf } from './steps'
import type { Picture } from './steps/picture'
import { type AnyStep, type Cause, type StepContext, slotsAsked } from './steps/step'
import type { Finding } from './verdict/verdict'
import { worst } from './verdict/verdict'
import type { WorkingLine } from './verdict/working'

export type { Evaluation, StepEvaluation } from './evaluation/types'
export { stepKey } from './evaluation/types'

const sharedModels = new ModelCache()

/** @param now ms since 1970. */
export function evaluate(facts: Facts, now: number): Evaluation {
  const entries = inOrder(facts.entries)
  const index = indexEntries(entries)
  const parts = plantFrom(entries)
  const plant = new PlantIndex(parts)
  const all: StepEvaluation[] = []
  const byKey = new Map<string, StepEvaluation>()
  const evaluated = new Map<string, Map<string, StepEvaluation>>()
  const contexts = new Map<string, StepContext>()
  const nulls = new LeadNulls()
  const counted: Counted = (step, partId) => evaluated.get(step)?.get(partId)?.counting?.entry.body ?? null
  const contextAt = (part: Part): StepContext => {
    const known = contexts.get(part.id) ?? contextOf(part, facts, plant, counted)
    contexts.set(part.id, known)
    return known
  }
  for (const step of stepsOf(facts.regime)) {
    if (step.where && !step.where(plant)) continue
    const ofStep = partsOf(step, plant).map((part) => readingsOf(step, contextAt(part), index, nulls))
    compareSisters(ofStep, facts.regime)
    if (step.nulls) for (const evaluation of ofStep) nulls.take(evaluation)
    const byPart = new Map<string, StepEvaluation>()
    for (const evaluation of ofStep) {
      settle(evaluation, contextAt(evaluation.part), facts, evaluated, index)
      byKey.set(evaluation.key, evaluation)
      byPart.set(evaluation.part.id, evaluation)
      all.push(evaluation)
    }
    evaluated.set(step.id, byPart)
  }
  const verdictList = all.map((one) => one.verdict)
  return {
    parts,
    plant,
    steps: all,
    byKey,
    stations: stationsOf(all, plant),
    progress: { done: all.filter((one) => one.done).length, total: all.length, worst: worst(verdictList) },
    next: all.find((one) => !one.done && one.verdict !== 'held-back' && !one.step.compute)?.key ?? null,
    snags: snagsOf(entries, index, byKey),
    photos: photosOf(entries, index),
    signatures: signatureStates(entries),
    sinceSeal: countSinceSeal(facts),
    outOfDate: facts.instruments
      .filter((one) => one.calibrationDue !== null && Date.parse(`${one.calibrationDue}T23:59:59Z`) < now)
      .map((one) => one.id),
  }
}

type Counted = StepContext['counted']

const partsOf = (step: AnyStep, plant: PlantIndex): readonly Part[] =>
  plant.ofKind(step.appliesTo).filter((part) => !step.of || step.of(part, plant))

function contextOf(part: Part, facts: Facts, plant: PlantIndex, counted: Counted): StepContext {
  return { part, plant, instruments: facts.instruments, regime: facts.regime, models: sharedModels, counted }
}

/** The context of a step in an evaluation that is whole. */
function contextIn(evaluation: Evaluation, one: StepEvaluation, facts: Facts): StepContext {
  const counted: Counted = (step, partId) => evaluation.byKey.get(stepKey(step, partId))?.counting?.entry.body ?? null
  return contextOf(one.part, facts, evaluation.plant, counted)
}

/** The step's own readings, judged, or its verdict from the plant alone; gates and sisters come after. */
function readingsOf(step: AnyStep, context: StepContext, index: EntryIndex, nulls: LeadNulls): StepEvaluation {
  const { part } = context
  const key = stepKey(step.id, part.id)
  const readings = judgeReadings(step, context, key, index, nulls)
  const choice = index.choices.get(key)
  const counting = countingReading(step, readings, choice)
  const computed = step.compute?.(context) ?? null
  const leftOut = index.leftOut.get(key)
  const judgement = computed ?? counting?.judgement ?? null
  const evaluation: StepEvaluation = {
    key,
    step,
    part,
    verdict: computed?.verdict ?? counting?.verdict ?? 'not-yet',
    finding: judgement?.finding ?? { code: 'not-yet.no-reading', figures: { tag: part.data.tag } },
    flags: counting ? [...counting.flags] : [...(computed?.flags ?? [])],
    gates: [],
    readings,
    computed,
    counting,
    sisters: null,
    leftOut: leftOut ? { reason: leftOut.body.reason, personId: leftOut.personId, at: correctedTime(leftOut) } : null,
    repeatAsked: false,
    done: false,
  }
  if (counting) {
    if (peopleDisagree(readings, choice)) evaluation.flags.push('two-people')
    const confirmation = index.confirmations.get(`${key}:plant-changed`)
    if (plantChangedSince(step, part, counting, index, confirmation)) evaluation.flags.push('plant-changed')
    evaluation.verdict = verdictWithFlags(evaluation.verdict, evaluation.flags)
    if (evaluation.verdict !== counting.verdict) evaluation.finding = flaggedFinding(evaluation)
  } else askForRepeat(evaluation)
  return evaluation
}

/** A remedy ended the say of the last reading: the step waits to be done again, and says why. */
function askForRepeat(evaluation: StepEvaluation): void {
  const ended = evaluation.readings.at(-1)?.ended
  if (ended?.by !== 'remedy') return
  evaluation.repeatAsked = true
  evaluation.finding = {
    code: 'repeat-after-remedy',
    figures: { tag: evaluation.part.data.tag, reason: ended.reason },
  }
}

function flaggedFinding(evaluation: StepEvaluation): Finding {
  const code = evaluation.flags.includes('plant-changed') ? 'plant-changed' : 'two-people'
  return { code, figures: { ...evaluation.finding.figures, tag: evaluation.part.data.tag } }
}

/** Gates, left out, and what follows for the verdict. A fact is never refused because of a gate. */
function settle(
  evaluation: StepEvaluation,
  context: StepContext,
  facts: Facts,
  evaluated: Evaluated,
  index: EntryIndex,
): void {
  const { part, counting, leftOut } = evaluation
  evaluation.gates = gateStates(evaluation, context, facts, evaluated, index)
  const shut = evaluation.gates.find((gate) => !gate.met)
  const leftOutLast = leftOut !== null && (!counting || leftOut.at > counting.at)
  if (leftOutLast) {
    evaluation.verdict = 'left-out'
    evaluation.finding = { code: 'left-out', figures: { tag: part.data.tag, reason: leftOut.reason } }
    evaluation.flags = []
  } else if (!counting && shut) {
    evaluation.verdict = 'held-back'
    evaluation.finding = { code: `held-back.${shut.id}`, figures: shut.figures }
  } else if (counting && shut) {
    evaluation.flags.push('while-held-back')
  }
  const { verdict } = evaluation
  evaluation.done = verdict === 'within' || verdict === 'close' || verdict === 'left-out'
}

/** Stations in the order in which current flows; only those whose parts are entered. */
const stationParts = [
  { station: 'modules', kinds: ['array', 'row'] },
  { station: 'strings', kinds: ['string', 'combiner'] },
  { station: 'dc-switch', kinds: ['dc-switch', 'surge-protection'] },
  { station: 'inverter', kinds: ['inverter'] },
  { station: 'supply', kinds: ['supply'] },
  { station: 'board', kinds: ['board', 'circuit'] },
  { station: 'rcd', kinds: ['rcd'] },
  { station: 'electrode', kinds: ['electrode'] },
] as const

function stationsOf(all: readonly StepEvaluation[], plant: PlantIndex): StationState[] {
  const entered = stationParts.filter(({ kinds }) => kinds.some((kind) => plant.ofKind(kind).length > 0))
  // What is asked of the site stands at the modules, or where there are none at whatever comes first.
  const first = entered[0] ?? stationParts[0]
  const isThere = (station: string): boolean => entered.some((one) => one.station === station)
  const shown = entered.length > 0 ? entered : plant.site ? [first] : []
  return shown.map(({ station }) => {
    const own = all.filter(
      (one) => one.step.station === station || (station === first.station && !isThere(one.step.station)),
    )
    const verdict = own.length === 0 ? null : worst(own.map((one) => one.verdict))
    return { station, verdict, done: own.filter((one) => one.done).length, total: own.length }
  })
}

function photosOf(entries: readonly Entry[], index: EntryIndex): Photo[] {
  const photos: Photo[] = []
  for (const entry of entries) {
    if (!isKind(entry, 'photo') || index.voids.has(entry.id)) continue
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

/** The sum behind a step, of a kept reading or of one that is being typed. Computed only for what is looked at. */
export function working(
  facts: Facts,
  evaluation: Evaluation,
  one: StepEvaluation,
  reading: Pick<Body<'reading'>, 'slots' | 'conditions' | 'instrument'>,
): WorkingLine[] {
  const lines: WorkingLine[] = one.step.working(contextIn(evaluation, one, facts), reading)
  const { sisters } = one
  if (!sisters || reading !== one.counting?.entry.body) return lines
  return [
    ...lines,
    {
      code: 'sisters.gap',
      figures: { count: sisters.count, allowed_pct: sisters.allowed_pct },
      result: { value: sisters.deviation_pct, unit: 'pct', decimals: 1, signed: true },
      source: facts.regime.limits[one.step.sisterLimit ?? 'pv.sisters'].source,
    },
  ]
}

/** Causes which explain a reading, likeliest first; a neighbour that is long by as much as this one is short is named. */
export function causes(facts: Facts, evaluation: Evaluation, one: StepEvaluation): Cause[] {
  const { counting } = one
  if (!counting || !one.step.causes) return []
  const context = contextIn(evaluation, one, facts)
  const found = one.step.causes(context, counting.entry.body, counting.judgement)
  const swapped = swappedNeighbour(evaluation, one, found)
  return swapped ? [swapped, ...found] : found
}

/** The pictures that a step wants beside its working, and its readings over time where there are several. */
export function picturesOf(
  facts: Facts,
  evaluation: Evaluation,
  one: StepEvaluation,
  reading: Pick<Body<'reading'>, 'slots'>,
): readonly Picture[] {
  const own = one.step.pictures?.(contextIn(evaluation, one, facts), reading) ?? []
  const trend = trendOf(one)
  return trend ? [...own, trend] : own
}

/** What is wrong with the set-up of a reading that is being taken, before its figures are read; null where nothing is. */
export function trapIn(
  facts: Facts,
  evaluation: Evaluation,
  one: StepEvaluation,
  reading: Pick<Body<'reading'>, 'slots'>,
): Finding | null {
  return one.step.trap?.(contextIn(evaluation, one, facts), reading) ?? null
}

/** Judges a reading that is being typed, as if it were kept now: what the bench shows while the tester types. */
export function judgeDraft(facts: Facts, evaluation: Evaluation, one: StepEvaluation, body: Body<'reading'>) {
  return one.step.judge(contextIn(evaluation, one, facts), body)
}

/** What a step should read in these conditions, null where nothing can be expected. */
export function expectedNow(
  facts: Facts,
  evaluation: Evaluation,
  one: StepEvaluation,
  conditions: Body<'reading'>['conditions'],
) {
  return one.step.expect?.(contextIn(evaluation, one, facts), conditions) ?? null
}

/** What a reading is kept as on other parts that it speaks for: the same, without what those are not asked. */
export function sharedReadings(
  facts: Facts,
  evaluation: Evaluation,
  one: StepEvaluation,
  body: Body<'reading'>,
): { part: Part; body: Body<'reading'> }[] {
  const others = one.step.sharedWith?.(contextIn(evaluation, one, facts), body) ?? []
  return others.map((part) => {
    const asked = new Set(slotsAsked(one.step, { part, regime: facts.regime }).map((slot) => slot.id))
    const slots = Object.fromEntries(Object.entries(body.slots).filter(([id]) => asked.has(id)))
    return { part, body: { ...body, slots, plantRevision: part.revision } }
  })
}
