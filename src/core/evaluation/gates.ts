import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Facts } from '../record/facts'
import { type AnyStep, type GateRule, isRead, type StateGate, type StepGate } from '../steps/step'
import type { Finding, Verdict } from '../verdict/verdict'
import type { EntryIndex } from './entryIndex'
import { kitGate } from './kitGate'
import type { Moment, States } from './states'
import { type Subjects, subjectsOf } from './subjects'
import { type GateState, stepKey } from './types'

/** What a gate is looked at with. */
export type GateView = {
  facts: Facts
  plant: PlantIndex
  index: EntryIndex
  states: States
  /** What several parts were found to have done already, by gate: a board's tests wait for the same circuits. */
  met: Map<GateRule, Set<readonly Part[]>>
  /** The verdict of a step on a part by now; undefined where the plant has no such step. */
  verdictOf(step: string, partId: string): Verdict | undefined
  /** Whether a step was read, and is open only because nobody read the light. */
  isReadWithoutLight(step: string, partId: string): boolean
  /** The step on a place that begins a state of it, so that one is led to it. */
  beginnerOf(state: StateGate['state'], placeId: string): string | null
}

/**
 * How each gate before a step stands: now, for what would be read next; or, for a reading that was kept, as it stood when
 * that was taken. Only states can have been otherwise then; a step that is not right now holds back whatever came before.
 */
export function gateStates(
  view: GateView,
  step: AnyStep,
  part: Part,
  visitId: string | undefined,
  then?: Moment,
): GateState[] {
  const gates: GateState[] = []
  for (const gate of step.gates) {
    if (gate.only && !gate.only(part, view.plant)) continue
    gates.push(gateState(view, step, gate, part, visitId, then))
  }
  const kit = isRead(step) ? kitGate(step, part, view) : null
  if (kit) gates.push(passed(view, step, part, kit))
  return gates
}

/** Whether any gate is shut: the same question as `gateStates`, answered without a sentence for each. */
export function isHeldBack(
  view: GateView,
  step: AnyStep,
  part: Part,
  visitId: string | undefined,
  then?: Moment,
): boolean {
  for (const gate of step.gates) {
    if (gate.only && !gate.only(part, view.plant)) continue
    if (gate.on === undefined || gate.on === 'part') {
      if (isOpenBy(view, gate, part, part, visitId, then)) continue
    } else {
      const subjects = subjectsOf(gate.on, part, view.plant)
      if (subjects.lacks && gate.hard) return true
      if (!isAnyShut(view, gate, part, subjects, visitId, then)) continue
    }
    if (!isPassed(view, step, part, gate)) return true
  }
  const kit = isRead(step) ? kitGate(step, part, view) : null
  return kit !== null && !isPassed(view, step, part, kit)
}

function isAnyShut(
  view: GateView,
  gate: GateRule,
  part: Part,
  { parts }: Subjects,
  visitId: string | undefined,
  then: Moment | undefined,
): boolean {
  const met = parts.length > 1 && !('state' in gate) ? metOf(view, gate) : null
  if (met?.has(parts)) return false
  for (const one of parts) if (!isOpenBy(view, gate, part, one, visitId, then)) return true
  // What stays off stays off for a visit; what is met by its verdicts is met for every test that waits for the same.
  if (met && !('state' in gate) && parts.every((one) => isMetBy(view, gate, one))) met.add(parts)
  return false
}

/** Of a gate on several parts, those which are met, as long as nothing is judged anew. */
function metOf({ met }: GateView, gate: GateRule): Set<readonly Part[]> {
  const known = met.get(gate) ?? new Set()
  met.set(gate, known)
  return known
}

const isMetBy = (view: GateView, gate: StepGate, { id }: Part): boolean => {
  const verdict = view.verdictOf(gate.waitsFor, id)
  return verdict !== undefined && isMet(gate, verdict)
}

/** Keys of the steps that begin what a part's state gates still wait for. */
export function awaitedBy(view: GateView, step: AnyStep, part: Part, visitId: string | undefined): string[] {
  const keys: string[] = []
  for (const gate of step.gates) {
    if (!('state' in gate) || (gate.only && !gate.only(part, view.plant))) continue
    const subjects = subjectsIn(view, gate, part)
    if (subjects.lacks && gate.hard) continue
    const shut = subjects.parts.find((one) => !isOpenBy(view, gate, part, one, visitId, undefined))
    const opener = shut && view.beginnerOf(gate.state, shut.id)
    if (opener && !isPassed(view, step, part, gate)) keys.push(stepKey(opener, shut.id))
  }
  return keys
}

const subjectsIn = ({ plant }: GateView, { on }: GateRule, part: Part): Subjects =>
  on === undefined ? { parts: [part], lacks: null } : subjectsOf(on, part, plant)

/** Whether one subject of a gate is as the gate wants it. A step that a part does not have holds back a hard gate only. */
function isOpenBy(
  view: GateView,
  gate: GateRule,
  part: Part,
  subject: Part,
  visitId: string | undefined,
  then: Moment | undefined,
): boolean {
  if ('state' in gate) return view.states.stand(gate.state, subject.id, visitId, then)
  if (gate.spares && isAmongOthers(part) && view.states.stand(gate.spares, subject.id, visitId, then)) return true
  const verdict = view.verdictOf(gate.waitsFor, subject.id)
  if (verdict === undefined) return !gate.hard
  // What was read without a light meter and can be held against nothing holds up nothing that waits softly for it.
  return (
    isMet(gate, verdict) || (!gate.hard && verdict === 'not-yet' && view.isReadWithoutLight(gate.waitsFor, subject.id))
  )
}

/** What is switched on with a board or a device is several circuits: one of them can stay off. A circuit cannot for itself. */
const isAmongOthers = ({ data }: Part): boolean => data.kind === 'board' || data.kind === 'rcd'

function gateState(
  view: GateView,
  step: AnyStep,
  gate: GateRule,
  part: Part,
  visitId: string | undefined,
  then?: Moment,
): GateState {
  const subjects = subjectsIn(view, gate, part)
  // A hard gate whose subject is missing, or one of several, is shut; a soft one has nothing to wait for.
  if (subjects.lacks && gate.hard) return lacking(gate, part, subjects.lacks)
  const shut = subjects.parts.filter((one) => !isOpenBy(view, gate, part, one, visitId, then))
  const about = shut[0] ?? shownOf(view, gate, subjects)
  const opener = about && ('state' in gate ? view.beginnerOf(gate.state, about.id) : gate.waitsFor)
  return passed(view, step, part, {
    id: gate.id,
    hard: gate.hard,
    met: shut.length === 0,
    why: shut.length === 0 ? null : 'unmet',
    finding: waitingFor(gate, part, about, shut.length),
    waitsFor: about && opener ? stepKey(opener, about.id) : null,
    nowVerdict: (about && opener && view.verdictOf(opener, about.id)) || null,
    state: 'state' in gate ? gate.state : null,
    overridden: null,
  })
}

/** The subject that an open gate names: the first that has the step. */
const shownOf = (view: GateView, gate: GateRule, { parts }: Subjects): Part | null =>
  ('state' in gate ? parts[0] : parts.find((one) => gate.hard || view.verdictOf(gate.waitsFor, one.id))) ?? null

const overrideOf = ({ index }: GateView, step: AnyStep, part: Part, gate: { id: string; hard: boolean }) =>
  gate.hard || index.overrides.size === 0 ? undefined : index.overrides.get(`${stepKey(step.id, part.id)}:${gate.id}`)

/** A soft gate that somebody passed with a reason is met. */
const isPassed = (...of: Parameters<typeof overrideOf>): boolean => overrideOf(...of) !== undefined

function passed(view: GateView, step: AnyStep, part: Part, gate: GateState): GateState {
  const override = overrideOf(view, step, part, gate)
  if (!override) return gate
  return { ...gate, met: true, why: null, overridden: { reason: override.body.reason, personId: override.personId } }
}

function lacking(gate: GateRule, part: Part, why: 'missing' | 'ambiguous'): GateState {
  const finding: Finding = { code: `held-back.${why}.${gate.on}`, figures: { tag: part.data.tag } }
  return {
    id: gate.id,
    hard: gate.hard,
    met: false,
    why,
    finding,
    waitsFor: null,
    nowVerdict: null,
    state: 'state' in gate ? gate.state : null,
    overridden: null,
  }
}

const waitingFor = (gate: GateRule, part: Part, other: Part | null, count: number): Finding => ({
  code: `held-back.${gate.id}`,
  figures: { tag: part.data.tag, other: other?.data.tag ?? '', count },
})

function isMet(gate: StepGate, verdict: Verdict): boolean {
  if (gate.until === 'not-outside') return verdict !== 'outside'
  return verdict === 'within' || verdict === 'close' || (verdict === 'left-out' && !gate.hard)
}
