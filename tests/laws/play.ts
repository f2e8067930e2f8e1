/**
 * A model of work at a site for tests of the core's laws: random plants, readings, bounds, lines left out, repeats,
 * visits, voids and mendings. What the model itself knows (how places stand) is written down beside the core, by a table
 * of its own.
 */
import fc from 'fast-check'
import { type Evaluation, evaluate, evaluateDraft, evaluateNext, linesOf, type StepEvaluation } from '@/core/evaluate'
import { contextOf, judgeStep, readingOf } from '@/core/evaluation/judge'
import type { Part, PartData } from '@/core/plant/part'
import { PlantIndex } from '@/core/plant/plantIndex'
import { plantOfJob } from '@/core/plant/projection'
import { Lookup } from '@/core/evaluation/lookup'
import type { Body, Entry, SlotValue } from '@/core/record/entry'
import { inOrder } from '@/core/record/order'
import type { Facts } from '@/core/record/facts'
import { defaultRegime, shippedRegimes } from '@/core/regime/shipped'
import { referenceOf } from '@/core/curve/reference'
import type { CurveValue } from '@/core/curve/curveValue'
import { currentAt } from '@/core/pv/singleDiode'
import { moduleModel } from '@/core/pv/stringModel'
import { choicesOf, isBesides, missingSlots, type Slot, slotsShown } from '@/core/steps/slot'
import { isRead, slotsOf } from '@/core/steps/step'
import {
  exampleBoard,
  exampleChargePoint,
  exampleCircuit,
  exampleElectrode,
  exampleModel,
  exampleRcd,
  exampleSite,
  exampleString,
  exampleSupply,
} from '@/core/steps/worked'
import { conditions, FactsBuilder, JOB, readingBody, START_ms, testId, VISIT } from '@/core/testing/factsBuilder'

const one = <T>(...values: readonly T[]): fc.Arbitrary<T> => fc.constantFrom(...values)

export const plants = fc.record({
  supplies: one(1, 1, 1, 1, 0, 2),
  arrangement: one('TN-S', 'TN-C-S', 'TT') as fc.Arbitrary<'TN-S' | 'TN-C-S' | 'TT'>,
  phases: one(1, 1, 3) as fc.Arbitrary<1 | 3>,
  rcds: one(0, 1, 2),
  rated_mA: one(30, 100, 300),
  circuits: fc.array(
    fc.record({
      device: one('B', 'C', 'gG', null) as fc.Arbitrary<'B' | 'C' | 'gG' | null>,
      rating_A: one(6, 16, 32, 40, 80),
      layout: one('radial', 'ring') as fc.Arbitrary<'radial' | 'ring'>,
      length_m: one(12, 54, null),
      breaking_kA: one(6, 10, null),
      rcdFor: one('additional', 'faults', null) as fc.Arbitrary<'additional' | 'faults' | null>,
    }),
    { minLength: 0, maxLength: 2 },
  ),
  points: fc.array(
    fc.record({
      outlet: one('socket', 'tethered') as fc.Arbitrary<'socket' | 'tethered'>,
      phases: one(1, 1, 3) as fc.Arbitrary<1 | 3>,
      dcDetector: fc.boolean(),
      rcdType: one('A', 'B', null) as fc.Arbitrary<'A' | 'B' | null>,
      circuit: one(0, 0, 1, null),
      earthing: one('device-inside', 'own-electrode', 'of-supply', null) as fc.Arbitrary<
        'device-inside' | 'own-electrode' | 'of-supply' | null
      >,
      ventilated: fc.boolean(),
      limit_A: one(null, 16),
    }),
    { minLength: 0, maxLength: 2 },
  ),
  electrode: one(null, 'spikes', 'loop') as fc.Arbitrary<'spikes' | 'loop' | null>,
  strings: one(0, 1, 2, 4),
  inverters: one(0, 1, 2),
  switches: one(0, 1, 2),
  array: fc.boolean(),
  regime: one(...shippedRegimes.map((regime) => regime.id)),
  /** How far the work went, everything sound, before the day that is played. */
  ahead: one(0, 0, 4, 8, 12, 16, 22, 30, 40),
})
export type PlantWish = typeof plants extends fc.Arbitrary<infer T> ? T : never

/** Builds what was wished for, in an order that makes sense. */
function built(wish: PlantWish): FactsBuilder {
  const build = new FactsBuilder(false)
  for (let k = 0; k < wish.supplies; k++)
    build.part({
      ...exampleSupply,
      tag: `S${k}`,
      arrangement: wish.arrangement,
      phases: wish.phases,
      declaredZe_ohm: null,
    })
  const board = build.part({ ...exampleBoard, phases: wish.phases })
  const rcds: string[] = []
  for (let k = 0; k < wish.rcds; k++) {
    const own = { tag: `RCD${k}`, boardId: board, rated_mA: wish.rated_mA, upstreamId: rcds[0] ?? null }
    rcds.push(build.part({ ...exampleRcd, ...own } as PartData))
  }
  const circuits: string[] = []
  for (const [k, own] of wish.circuits.entries()) {
    const id = build.part({
      ...exampleCircuit,
      ...own,
      tag: String(k),
      boardId: board,
      rcdId: rcds.at(-1) ?? null,
      phases: wish.phases,
    })
    circuits.push(id)
  }
  for (const [k, { circuit, earthing, ventilated, limit_A, ...own }] of wish.points.entries())
    build.part({
      ...exampleChargePoint,
      tag: `CP${k}`,
      circuitId: (circuit === null ? null : circuits[circuit]) ?? null,
      earthing,
      ventilated,
      load: limit_A === null ? null : { group: null, limit_A },
      model: {
        ...exampleModel,
        data: {
          ...exampleModel.data,
          ...own,
          cable_A: own.outlet === 'tethered' ? 32 : null,
          rcdRated_mA: own.rcdType === null ? null : 30,
        },
      },
    })
  if (wish.electrode) build.part({ ...exampleElectrode, testedBy: wish.electrode })
  for (let k = 0; k < wish.inverters; k++)
    build.part({
      kind: 'inverter',
      tag: `INV${k}`,
      maxInput_V: 1000,
      trackerMin_V: 250,
      trackerMax_V: 850,
      maxShortCircuit_A: 30,
    })
  for (let k = 0; k < wish.switches; k++)
    build.part({ kind: 'dc-switch', tag: `DC${k}`, ratedVoltage_V: 1000, rating_A: 32 })
  if (wish.array) build.part(exampleSite)
  const arrayId = wish.array
    ? build.part({ kind: 'array', tag: 'South', tilt_deg: 30, azimuth_deg: 180, mounting: 'open-rack' })
    : null
  for (let k = 0; k < wish.strings; k++) {
    const data = exampleString(10 + 15 * k)
    const moduleType = {
      ...data.moduleType,
      data: { ...data.moduleType.data, maxSystemVoltage_V: 1000, maxSeriesFuse_A: 20 },
    }
    build.part({ ...data, moduleType, tag: String(k), arrayId, input: wish.array ? 'A' : null })
  }
  if (wish.array) build.part({ kind: 'row', tag: 'R1', arrayId, conductor: { length_m: 20, area_mm2: 6, joints: 2 } })
  return build
}

const MAGNITUDES = [0, 0.02, 0.2, 0.5, 0.9, 1.4, 3, 12, 35, 90, 240, 390, 900, 2000, 6000] as const
export const answers = fc.record({
  /** Most answers are sound, or nothing would ever be proved. */
  sound: fc.array(
    fc.boolean().map((b) => b),
    { minLength: 12, maxLength: 12 },
  ),
  pick: fc.array(fc.nat(), { minLength: 12, maxLength: 12 }),
  magnitude: fc.array(fc.nat(), { minLength: 14, maxLength: 14 }),
  bound: fc.array(
    one('exact', 'exact', 'exact', 'exact', 'more-than', 'less-than') as fc.Arbitrary<
      'exact' | 'more-than' | 'less-than'
    >,
    { minLength: 14, maxLength: 14 },
  ),
  missing: fc.array(fc.nat(9), { minLength: 14, maxLength: 14 }),
  good: fc.boolean(),
  uncertain_pct: one(0, 2, 20),
  /** Whether there was a light meter. */
  lit: one(true, true, true, false),
})
export type Answers = typeof answers extends fc.Arbitrary<infer T> ? T : never

/** Ohms of the circuits' own conductors, 2.5 and 1.5 mm2 copper. */
const conductors = (length_m: number) => ({ line: 0.00741 * length_m, protective: 0.0121 * length_m })

/** A figure that a sound installation would show, so that the live tests are ever reached. */
function soundFigure(slot: Slot & { kind: 'number' }, { data }: Part): number {
  const length_m = data.kind === 'circuit' ? (data.length_m ?? 20) : 20
  const { line, protective } = conductors(length_m)
  const isRing = data.kind === 'circuit' && data.layout === 'ring'
  const both = (line + protective) / (isRing ? 4 : 1)
  if (slot.id === 'nulled') return 0.01
  const own = SOUND_AT[slot.id]
  if (own !== undefined) return own
  if (slot.id === 'ring-r1' || slot.id === 'ring-rn') return line
  if (slot.id === 'ring-r2') return protective
  if (slot.id.startsWith('cross-l-n')) return line / 2
  if (slot.id.startsWith('cross-l-pe') || slot.measures === 'continuity') return both
  if (slot.id.startsWith('zs')) return 0.2 + both
  return (slot.measures && SOUND[slot.measures]) ?? 40
}
const SOUND_AT: Readonly<Record<string, number>> = {
  'level-a': 12,
  'level-b': 9,
  'level-c': 6,
  'level-d': 3,
  'duty-full': 53.3,
  'duty-lower': 21.6,
  'v-n-pe': 1,
}
const SOUND: Readonly<Record<string, number>> = {
  'ac-voltage': 235,
  proximity: 220,
  'dc-residual-current': 4.5,
  'dc-residual-time': 900,
  'disconnection-time': 600,
  'loop-impedance': 0.2,
  insulation: 300,
  'earth-resistance': 40,
  'fault-current': 900,
  'rcd-time': 25,
  'rcd-current': 22,
  'dc-current': 0,
  'dc-voltage': 370,
}

/** The slots of a reading as somebody might answer them; `good` as somebody would on a sound installation. */
function slotsFor(at: StepEvaluation, { plant, facts }: Evaluation, wish: Answers): Record<string, SlotValue> {
  const { step, part } = at
  if (!isRead(step)) return {}
  const slots: Record<string, SlotValue> = {}
  for (let k = 0; k < 40; k++) {
    const open = slotsShown(step, choicesOf({ slots }), { part, plant, regime: facts.regime }).find(
      (slot) => !(slot.id in slots),
    )
    if (!open) break
    const value = answerOf(open, part, k, wish)
    if (value) slots[open.id] = value
    else if (open.kind !== 'number') break
    else slots[open.id] = EMPTY
  }
  return Object.fromEntries(Object.entries(slots).filter(([, value]) => value !== EMPTY))
}
const EMPTY: SlotValue = { choice: '' }
const ALL_SOUND: Answers = {
  sound: [true],
  pick: [0],
  magnitude: [0],
  bound: ['exact'],
  missing: [1],
  good: true,
  uncertain_pct: 0,
  lit: true,
}

function answerOf(slot: Slot, part: Part, k: number, wish: Answers): SlotValue | null {
  const at = <T>(list: readonly T[]): T => list[k % list.length]!
  if (slot.kind === 'lead-set') return { choice: 'A' }
  if (slot.kind === 'check') {
    if (wish.good || at(wish.sound)) return { choice: 'as-it-should' }
    return at(wish.pick) % 2 === 0
      ? { choice: 'check-left-out', note: 'not today' }
      : { choice: 'not-as-it-should', note: 'broken' }
  }
  if (slot.kind === 'choice') {
    const from = wish.good || at(wish.sound) ? slot.sound : slot.options
    const usual = USUAL[slot.id] ?? from
    return { choice: usual[at(wish.pick) % usual.length]! }
  }
  if (slot.kind === 'curve') return wish.good || at(wish.missing) !== 0 ? { curve: soundCurve(part) } : null
  if (!wish.good && at(wish.missing) === 0) return null
  // At half the current nothing trips: the display runs to its end.
  if (wish.good && slot.of?.multiple === 0.5) return { text: '>2000', value: 2000, bound: 'more-than', unit: slot.unit }
  const value = wish.good ? soundFigure(slot, part) : MAGNITUDES[at(wish.magnitude) % MAGNITUDES.length]!
  const bound = wish.good ? 'exact' : at(wish.bound)
  const sign = bound === 'more-than' ? '>' : bound === 'less-than' ? '<' : ''
  return { text: `${sign}${value}`, value, bound, unit: slot.unit }
}

/** What a sound string gives at the light and warmth of `conditions`. */
function soundCurve({ data }: Part): CurveValue {
  if (data.kind !== 'string') throw new Error('soundCurve: expected a string')
  const module = data.moduleType.data
  const { parameters } = moduleModel(module)
  const { irradiance, cell } = conditions()
  const { diode, voc_V } = referenceOf(
    parameters!,
    module,
    data.modulesInSeries,
    irradiance.read.value,
    cell.read.value,
  )
  const voltages_V = Array.from({ length: 60 }, (_, k) => (1.001 * voc_V * k) / 59)
  return { voltages_V, currents_A: voltages_V.map((voltage) => currentAt(diode, voltage)) }
}

const USUAL: Readonly<Record<string, readonly string[]>> = {
  'set-voltage': ['v500', 'v1000'],
  'cable-full': ['cable-32', 'cable-63'],
  'cable-lower': ['cable-13', 'cable-20'],
}

export const bodyOf = (at: StepEvaluation, evaluation: Evaluation, wish: Answers): Body<'reading'> =>
  readingBody({
    slots: slotsFor(at, evaluation, wish),
    conditions: isRead(at.step) && at.step.needsConditions && wish.lit ? conditions() : null,
    instrument: {
      id: testId(0x77),
      tag: '77',
      name: 'Tester',
      calibrationDue: null,
      standIn: false,
      accuracy: { ofReading_pct: wish.uncertain_pct, digits: 0 },
      most: 1e6,
    },
    plantRevision: at.part.revision,
  })

/** What a reading does to places, told beside the core: by the step, with what it needs for it. */
const BEGINS: Readonly<Record<string, readonly [state: string, lines: readonly string[]]>> = {
  'prove-dead': ['dead', ['locked-off', 'other-sources-off', 'tester-proved', 'all-pairs-dead', 'tester-proved-again']],
  'earth-back': ['earth-on', ['earthing-conductor-back']],
  'electrode-back': ['electrode-on', ['electrode-conductor-back']],
  'electrode-loop-back': ['electrode-on', ['electrode-conductor-back']],
  'safe-isolation': ['isolated', ['ac-off', 'dc-switch-off']],
  'circuit-off': ['kept-off', ['off-locked', 'off-line-out', 'off-tagged']],
}
/** Tests for which a circuit is taken in hand: it is not off any more then. */
const HANDLES = new Set(['ring-ends', 'r1r2', 'ac-insulation', 'ac-polarity', 'zs'])
/** Tests at a plug with the supply on, in their order: nothing but the first is asked before that one stands. */
const AT_PLUG = [
  'point-pretest',
  'point-states',
  'point-pilot-short',
  'point-earth-lost',
  'point-current',
  'point-voltages',
  'point-zs',
  'point-trips',
  'point-detector',
  'point-lost-pen',
]
const LIVE_ON_AC = new Set(['zs', 'fault-current', 'rcd-trips', 'rcd-button', 'ac-functional', ...AT_PLUG])
const PER_VISIT = new Set(['dead', 'isolated', 'kept-off'])

/** The same list each time: another one would be another kit. */
const NO_KIT: Facts['instruments'] = []

/** A site in play: facts so far, and the evaluation that went from one to the next. */
export class Play {
  readonly build: FactsBuilder
  readonly visits = [{ id: VISIT, startsAt: new Date(START_ms).toISOString(), title: '' }]
  private readonly regimeId: string
  evaluation: Evaluation
  /** The last entry was made before others that were there already: it may touch everything. */
  cameLate = false

  constructor(wish: PlantWish) {
    this.build = built(wish)
    this.regimeId = wish.regime
    this.evaluation = evaluate(this.facts, 0)
    for (let k = 0; k < wish.ahead; k++) this.goOn()
  }

  /** Takes what is next as a sound installation shows it. */
  private goOn(): void {
    const at = this.evaluation.next ? this.evaluation.byKey.get(this.evaluation.next) : null
    if (!at) return
    const body = bodyOf(at, this.evaluation, ALL_SOUND)
    this.build.reading(at.step.id, at.part.id, body, { visitId: this.visitId })
    const before = at.key
    this.evaluation = evaluate(this.facts, 0)
    // What stays next although it was read sound is left out, as a tester would who cannot go on.
    if (this.evaluation.next === before)
      this.build.add(
        { kind: 'left-out', v: 1, reason: 'not now' },
        { step: at.step.id, partId: at.part.id, visitId: this.visitId },
      )
    this.evaluation = evaluate(this.facts, 0)
  }

  get facts(): Facts {
    const regime = shippedRegimes.find((found) => found.id === this.regimeId) ?? defaultRegime
    const instruments = NO_KIT
    return { ...this.build.facts({ visits: [...this.visits], regime, instruments }), entries: [...this.build.entries] }
  }

  private looked: Lookup | null = null
  /** What a door holds a reading against, gone on from the last time as a door does. */
  lookup(): Lookup {
    const { facts } = this
    const known = this.looked?.facts
    const isOlder = known && known.regime === facts.regime && known.entries.every((one, k) => one === facts.entries[k])
    this.looked = isOlder ? this.looked!.with(facts.entries.slice(known.entries.length)) : Lookup.of(facts)
    return this.looked
  }

  get visitId(): string {
    return this.visits.at(-1)!.id
  }

  /** Goes on from the last evaluation, and holds every law. */
  settle(): void {
    const facts = this.facts
    const fresh = evaluate(facts, 0)
    const alone = evaluateNext(this.evaluation, facts, 0)
    same(shape(alone), shape(fresh), 'one more entry evaluated alone equals anew')
    // The law says nothing where all was evaluated anew: after a reading much stays the very same.
    const last = facts.entries.at(-1)!
    const isOneMore = facts.entries.length === this.evaluation.facts.entries.length + 1 && last.body.kind === 'reading'
    const known = new Set(this.evaluation.steps)
    // Without a light meter every reading may move what the others are held against: all is judged anew.
    const isDull = [this.evaluation, fresh].some(({ steps }) =>
      steps.some(({ step, part, readings }) =>
        readings.some(({ entry, ended }) => !ended && isRead(step) && step.asRead?.(part, entry.body) != null),
      ),
    )
    if (
      isOneMore &&
      !isDull &&
      !this.cameLate &&
      facts.visits.length === this.evaluation.facts.visits.length &&
      known.size > 8
    )
      if (!alone.steps.some((at) => known.has(at))) throw new Error('one more entry was evaluated alone')
    const turned = { ...facts, entries: [...facts.entries].reverse() }
    same(shape(evaluate(turned, 0)), shape(fresh), 'the order of arrival does not matter')
    this.cameLate = false
    // It goes on from what was evaluated alone: what was wrong once would stay so.
    this.evaluation = alone
    for (const at of fresh.steps) holdsAt(at, fresh)
    const entries = inOrder(this.build.entries)
    changesAreSaid(fresh, entries)
    plugsAreSafe(fresh, this.visitId)
    gatesHold(fresh, entries, this.visitId)
  }
}

/** What of an evaluation must not depend on how it came about. */
function shape(evaluation: Evaluation): unknown {
  return {
    steps: evaluation.steps.map((at) => ({
      key: at.key,
      verdict: at.verdict,
      finding: at.finding,
      flags: [...at.flags],
      done: at.done,
      counting: at.counting?.entry.id ?? null,
      readings: at.readings.map((reading) => [reading.entry.id, reading.judgement.verdict, reading.ended]),
      gates: at.gates.map((gate) => [gate.id, gate.met, gate.why, gate.waitsFor]),
    })),
    next: evaluation.next,
    progress: evaluation.progress,
    snags: evaluation.snags.map((snag) => [snag.entryId, snag.state]),
  }
}

function same(a: unknown, b: unknown, law: string): void {
  const [left, right] = [JSON.stringify(a), JSON.stringify(b)]
  if (left === right) return
  let k = 0
  while (left[k] === right[k]) k++
  throw new Error(
    `${law}: ${left.slice(Math.max(0, k - 120), k + 160)} against ${right.slice(Math.max(0, k - 120), k + 160)}`,
  )
}

function must(holds: boolean, law: string, at: StepEvaluation, more: unknown = ''): void {
  if (!holds)
    throw new Error(
      `${law}: ${at.step.id} of ${at.part.data.tag}, ${at.verdict} ${at.finding.code} ${JSON.stringify(more)}`,
    )
}

/** The laws of one step: what within promises, and that verdict and working are one. */
function holdsAt(at: StepEvaluation, evaluation: Evaluation): void {
  const { judgement, step, part, counting } = at
  if (!judgement) return
  const deciding = linesOf(evaluation, at).filter((line) => line.decides)
  must(deciding.length === 1, 'one line decides', at, deciding)
  if (at.verdict === judgement.verdict)
    must(deciding[0]!.verdict === at.verdict, 'verdict and deciding line agree', at, deciding)
  if (judgement.verdict !== 'within') return
  must(Number.isFinite(judgement.rule?.measured?.value ?? 0), 'within is a figure', at)
  if (!isRead(step) || !counting) {
    must(
      judgement.limits.every((limit) => Number.isFinite(limit.value)),
      'within is held against something',
      at,
    )
    return
  }
  const { body } = counting.entry
  const missing = missingSlots(step, body, { part, regime: evaluation.facts.regime, plant: evaluation.plant })
  must(
    missing.length === 0,
    'nothing is within while something asked is missing',
    at,
    missing.map((slot) => slot.id),
  )
  const figures = step.slots.filter((slot) => slot.kind === 'number' && !slot.optional && slot.id in body.slots)
  if (figures.length > 0) must(judgement.limits.length > 0, 'within is held against something', at, body.slots)
}

/** A reading that comes to something else by the plant of its time says that the plant was changed. */
function changesAreSaid(evaluation: Evaluation, entries: readonly Entry[]): void {
  const { facts, plant } = evaluation
  const counted = (step: string, partId: string) =>
    evaluation.byKey.get(`${step}:${partId}`)?.counting?.entry.body ?? null
  for (const at of evaluation.steps) {
    const { step, part, counting, flags } = at
    if (!counting || !isRead(step) || at.verdict === 'left-out') continue
    const { entry } = counting
    const seen = entries.slice(0, entries.indexOf(entry))
    const then = new PlantIndex(plantOfJob(seen, JOB))
    const partThen = then.parts.get(part.id)
    if (!partThen || partThen.retired) continue
    const confirmed = entries.some(
      ({ body, partId, step: of }) => body.kind === 'confirmation' && partId === part.id && of === step.id,
    )
    if (confirmed) continue
    const comesTo = (one: Part, index: PlantIndex): string => {
      const { verdict, limits } = judgeStep(step, contextOf(step, one, index, facts, counted, readingOf(entry.body)))
      return JSON.stringify([verdict, limits])
    }
    if (comesTo(partThen, then) !== comesTo(part, plant))
      must(flags.includes('plant-changed'), 'what a verdict rests on and was changed is said', at)
  }
}

/**
 * At a plug: nothing is asked before its earth was found without potential, nothing is sound whose outlet stays live where
 * it must be off, and no fault simulated from a dead outlet proves anything.
 */
function plugsAreSafe(evaluation: Evaluation, visitId: string): void {
  for (const at of evaluation.steps) {
    if (at.part.data.kind !== 'charge-point' || !AT_PLUG.includes(at.step.id)) continue
    const pretest = evaluation.byKey.get(`point-pretest:${at.part.id}`)!
    if (at.step.id !== 'point-pretest' && !at.gates.some((gate) => gate.hard && !gate.met)) {
      must(['within', 'close'].includes(pretest.verdict), 'nothing at a plug before its earth was felt', at)
      const isToday = pretest.readings.some(({ entry, ended }) => !ended && entry.visitId === visitId)
      must(isToday, 'nothing at a plug whose earth was felt on another day', at)
    }
    const body = at.counting?.entry.body
    if (!body || (at.verdict !== 'within' && at.verdict !== 'close')) continue
    const isLiveAt = (id: string): boolean => choiceOf(body, id) === 'outlet-live'
    const wrong = ['adapter-a', 'adapter-b', 'adapter-a-again', 'adapter-f', 'outlet-after'].filter(isLiveAt)
    must(wrong.length === 0, 'no point is sound whose outlet stays live', at, wrong)
    const begun = choiceOf(body, 'begun-from')
    must(begun === null || begun === 'from-c-live', 'no fault is simulated from a dead outlet', at)
    const lamps = Object.entries(body.slots).filter(([, value]) => 'choice' in value && value.choice === 'lamp-lit')
    must(lamps.length === 0, 'no lamp is let pass', at)
  }
}

/** No hard gate is open unless its state stands, and nothing live is asked before its conductor was proved. */
function gatesHold(evaluation: Evaluation, entries: readonly Entry[], visitId: string): void {
  const ended = new Set(entries.flatMap(({ body }) => (body.kind === 'void' ? [body.target] : [])))
  const stands = (state: string, placeId: string): boolean => {
    let on = false
    for (const entry of entries) {
      const { body, step } = entry
      if (body.kind !== 'reading' || !step || ended.has(entry.id)) continue
      const [begins, lines] = BEGINS[step] ?? [null, []]
      const answered = lines.every((id) => {
        const value = body.slots[id]
        return value && 'choice' in value && value.choice === 'as-it-should'
      })
      const inTime = !PER_VISIT.has(state) || entry.visitId === visitId
      if (begins === state && entry.partId === placeId) on = on || (answered && inTime)
      if (state === 'kept-off' && HANDLES.has(step) && entry.partId === placeId) on = false
      if (state === 'dead' && LIVE_ON_AC.has(step) && isLive(body)) on = false
      if (
        state === 'earth-on' &&
        step === 'ze' &&
        entry.partId === placeId &&
        choiceOf(body, 'earthing-conductor') === 'earth-off'
      )
        on = false
    }
    return on
  }
  const supplies = evaluation.plant.ofKind('supply')
  for (const at of evaluation.steps) {
    for (const gate of at.gates) {
      if (!gate.hard || !gate.met || (gate.state !== 'dead' && gate.state !== 'earth-on' && gate.state !== 'isolated'))
        continue
      const places =
        gate.state === 'isolated' ? [evaluation.plant.site?.id ?? JOB] : supplies.map((supply) => supply.id)
      must(
        places.length > 0 && places.some((id) => stands(gate.state!, id)),
        `no hard gate is open unless it stands: ${gate.id}`,
        at,
      )
    }
    if (!LIVE_ON_AC.has(at.step.id) || at.gates.some((gate) => gate.hard && !gate.met)) continue
    const circuits = at.part.data.kind === 'circuit' ? [at.part] : evaluation.plant.circuitsOf(at.part)
    for (const circuit of circuits) {
      const path = evaluation.byKey.get(`r1r2:${circuit.id}`)
      // Beside others, one that is not sound may stay off; for itself it cannot.
      const isOff = ['board', 'rcd'].includes(at.part.data.kind) && stands('kept-off', circuit.id)
      must(
        path?.verdict === 'within' || path?.verdict === 'close' || isOff,
        'nothing live while its conductor is unproved',
        at,
        circuit.data.tag,
      )
    }
  }
}

const choiceOf = (body: Body<'reading'>, id: string): string | null => {
  const value = body.slots[id]
  return value && 'choice' in value ? value.choice : null
}
const isLive = (body: Body<'reading'>): boolean => choiceOf(body, 'loop-method') !== 'calculated'

type Model = Record<string, never>
type Command = fc.Command<Model, Play>
const command = (name: string, run: (play: Play) => void): Command => ({
  check: () => true,
  run: (_, play) => {
    run(play)
    play.settle()
  },
  toString: () => name,
})

const stepAt = (play: Play, n: number): StepEvaluation | null => {
  const read = play.evaluation.steps.filter((at) => isRead(at.step))
  return read[n % Math.max(1, read.length)] ?? null
}
const GRAVITY = ['within', 'close', 'not-yet', 'outside']
const rank = (verdict: string): number => GRAVITY.indexOf(verdict)

/** A reading as it is drafted, doubted in every way that the laws speak of, and kept. */
function takeReading(play: Play, at: StepEvaluation, wish: Answers): void {
  const body = bodyOf(at, play.evaluation, wish)
  if (Object.keys(body.slots).length === 0) return
  const at_ms = START_ms + play.build.entries.length * 1000
  const draft = evaluateDraft(play.evaluation, at, body, at_ms)
  if (isRead(at.step)) {
    const { check, missing } = play.lookup().check(at.step, at.part, body)
    same(
      [check, missing.map((slot) => slot.id)],
      [draft.check, draft.missing.map((slot) => slot.id)],
      'doors check alike',
    )
  }
  const worse = evaluateDraft(play.evaluation, at, moreUncertain(body), at_ms)
  must(
    !(draft.judgement.verdict === 'close' && worse.judgement.verdict === 'within'),
    'more uncertainty never turns close into within',
    at,
    body.slots,
  )
  for (const bad of worsened(at, body)) {
    const then = evaluateDraft(play.evaluation, at, bad, at_ms)
    const isBetter = draft.judgement.verdict === 'outside' && rank(then.judgement.verdict) < rank('not-yet')
    must(!isBetter, 'a worse reading never makes a better verdict', at, [body.slots, bad.slots])
  }
  const deviceTime = new Date(at_ms).toISOString()
  const id = play.build.reading(at.step.id, at.part.id, body, { visitId: play.visitId, deviceTime })
  const kept = evaluate(play.facts, 0)
    .byKey.get(at.key)!
    .readings.find((reading) => reading.entry.id === id)
  must(kept !== undefined, 'a reading is kept', at)
  same(
    [kept!.judgement.verdict, kept!.judgement.finding],
    [draft.judgement.verdict, draft.judgement.finding],
    `draft and kept agree on ${at.step.id}`,
  )
}

const moreUncertain = (body: Body<'reading'>): Body<'reading'> => ({
  ...body,
  instrument: body.instrument && { ...body.instrument, accuracy: { ofReading_pct: 60, digits: 0 } },
})

/** Where worse is plainly more, or plainly less. */
const WORSE: Readonly<Record<string, number>> = { zs: 3, ze: 3, r1r2: 3, 're-1': 3, insulation: 1 / 3, electrode: 3 }
function worsened(at: StepEvaluation, body: Body<'reading'>): Body<'reading'>[] {
  const id = at.step.id.includes('insulation') ? 'insulation' : at.step.id
  const factor = WORSE[id]
  if (!factor) return []
  // More volts, or another loop beside the test's own, are not plainly worse.
  const beside = new Set(slotsOf(at.step).flatMap((slot) => (isBesides(slot) ? [slot.id] : [])))
  const slots = Object.fromEntries(
    Object.entries(body.slots).map(([slot, value]) =>
      'value' in value &&
      !beside.has(slot) &&
      !['spike-distance', 'spike-bearing', 're-single', 'applied'].includes(slot)
        ? [slot, { ...value, value: value.value * factor, text: String(value.value * factor) }]
        : [slot, value],
    ),
  )
  return [{ ...body, slots }]
}

/** Every kind of move at a site. */
const moves: fc.Arbitrary<Command>[] = [
  ...[1, 2, 3].map(() =>
    fc.record({ n: fc.nat(), wish: answers }).map(({ n, wish }) =>
      command(`take ${n} ${JSON.stringify(wish)}`, (play) => {
        const at = stepAt(play, n)
        if (at) takeReading(play, at, wish)
      }),
    ),
  ),
  // Somebody who goes on with what is next gets somewhere.
  ...[1, 2, 3].map(() =>
    answers.map((wish) =>
      command(`take next ${JSON.stringify(wish)}`, (play) => {
        const at = play.evaluation.next ? play.evaluation.byKey.get(play.evaluation.next) : null
        if (at) takeReading(play, at, { ...wish, good: true })
      }),
    ),
  ),
  fc.record({ n: fc.nat(), wish: answers, back_s: fc.integer({ min: 1, max: 30 }) }).map(({ n, wish, back_s }) =>
    command(`take ${n} late by ${back_s} s ${JSON.stringify(wish)}`, (play) => {
      const at = stepAt(play, n)
      const body = at && bodyOf(at, play.evaluation, wish)
      if (!body || Object.keys(body.slots).length === 0) return
      const deviceTime = new Date(START_ms + Math.max(1, play.build.entries.length - back_s) * 1000 + 500).toISOString()
      play.build.reading(at.step.id, at.part.id, body, { visitId: play.visitId, deviceTime })
      play.cameLate = true
    }),
  ),
  fc.constant(
    command('another visit', (play) => {
      const id = testId(0xc100 + play.visits.length)
      const startsAt = new Date(START_ms + (play.build.entries.length + 1) * 1000).toISOString()
      play.visits.push({ id, startsAt, title: '' })
      play.evaluation = evaluate(play.facts, 0)
    }),
  ),
  fc.nat().map((n) =>
    command(`leave out ${n}`, (play) => {
      const at = stepAt(play, n)
      if (at)
        play.build.add(
          { kind: 'left-out', v: 1, reason: 'not today' },
          { step: at.step.id, partId: at.part.id, visitId: play.visitId },
        )
    }),
  ),
  fc.nat().map((n) =>
    command(`void ${n}`, (play) => {
      const readings = play.build.entries.filter((entry) => entry.body.kind === 'reading')
      const target = readings[n % Math.max(1, readings.length)]
      if (target)
        play.build.add({ kind: 'void', v: 1, target: target.id, reason: 'wrong part' }, { visitId: play.visitId })
    }),
  ),
  fc.nat().map((n) =>
    command(`go past ${n}`, (play) => {
      const shut = play.evaluation.steps.flatMap((at) =>
        at.gates.filter((gate) => !gate.met).map((gate) => ({ at, gate })),
      )
      const found = shut[n % Math.max(1, shut.length)]
      if (found)
        play.build.add(
          { kind: 'override', v: 1, gate: found.gate.id, reason: 'in a hurry' },
          { step: found.at.step.id, partId: found.at.part.id, visitId: play.visitId },
        )
    }),
  ),
  fc.nat().map((n) =>
    command(`mend ${n}`, (play) => {
      const bad = play.evaluation.steps.filter((at) => at.counting && at.verdict === 'outside')
      const at = bad[n % Math.max(1, bad.length)]
      if (at)
        play.build.add(
          { kind: 'remedy', v: 1, snag: at.counting!.entry.id, text: 'put right', repeat: [at.step.id] },
          { step: at.step.id, partId: at.part.id, visitId: play.visitId },
        )
    }),
  ),
  fc.record({ n: fc.nat({ max: 9 }), what: one('supply', 'board') }).map(({ n, what }) =>
    command(`add ${what} ${n}`, (play) => {
      const data = what === 'supply' ? { ...exampleSupply, tag: `S${n}` } : { ...exampleBoard, tag: `DB${n}` }
      play.build.part(data as PartData)
    }),
  ),
  fc.record({ n: fc.nat(), how: one('retire', 'retire the device', 'TT', 'device') }).map(({ n, how }) =>
    command(`change ${how} ${n}`, (play) => {
      const kind = how === 'TT' ? 'supply' : how === 'device' ? 'circuit' : how === 'retire' ? null : 'rcd'
      const parts = [...play.evaluation.parts.values()].filter(
        (part) => !part.retired && part.id !== JOB && (kind === null || part.data.kind === kind),
      )
      const part = parts[n % Math.max(1, parts.length)]
      if (!part) return
      const change = how === 'TT' ? { arrangement: 'TT' } : { device: 'C', breaking_kA: 3 }
      const after = how.startsWith('retire') ? null : ({ ...part.data, ...change } as PartData)
      play.build.add(
        { kind: 'plant-change', v: 1, before: part.data, after, base: part.revision },
        { partId: part.id, visitId: play.visitId },
      )
    }),
  ),
]

/** Any plant, and what somebody does there: every law holds after each move. */
export const anyDay = fc.property(plants, fc.commands(moves, { maxCommands: 14 }), (wish, commands) => {
  fc.modelRun(() => ({ model: {}, real: new Play(wish) }), commands)
})
