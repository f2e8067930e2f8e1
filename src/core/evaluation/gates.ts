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
  /** The verdict of a step on a part by now; undefined where the plant has no such step. */
  verdictOf(step: string, partId: string): Verdict | undefined
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

function gateState(
  view: GateView,
  step: AnyStep,
  gate: GateRule,
  part: Part,
  visitId: string | undefined,
  then: Moment | undefined,
): GateState {
  const subjects = gate.on === undefined ? { parts: [part], lacks: null } : subjectsOf(gate.on, part, view.plant)
  // A hard gate whose subject is missing, or one of several, is shut; a soft one has nothing to wait for.
  if (subjects.lacks && gate.hard) return lacking(gate, part, subjects.lacks)
  const state =
    'state' in gate ? byState(view, gate, part, subjects, visitId, then) : bySteps(view, gate, part, subjects)
  return passed(view, step, part, state)
}

/** A soft gate that somebody passed with a reason is met. */
function passed({ index }: GateView, step: AnyStep, part: Part, gate: GateState): GateState {
  if (gate.hard || index.overrides.size === 0) return gate
  const override = index.overrides.get(`${stepKey(step.id, part.id)}:${gate.id}`)
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

function byState(
  view: GateView,
  gate: StateGate,
  part: Part,
  subjects: Subjects,
  visitId: string | undefined,
  then: Moment | undefined,
): GateState {
  let shows: Part | null = null
  let unmet = 0
  for (const one of subjects.parts) {
    if (view.states.of(gate.state, one.id, visitId, then).stands) continue
    shows ??= one
    unmet++
  }
  const about = shows ?? subjects.parts[0] ?? null
  const beginner = about && view.beginnerOf(gate.state, about.id)
  const waitsFor = about && beginner ? stepKey(beginner, about.id) : null
  return {
    id: gate.id,
    hard: gate.hard,
    met: unmet === 0,
    why: unmet === 0 ? null : 'unmet',
    finding: waitingFor(gate, part, about, unmet),
    waitsFor,
    nowVerdict: (about && beginner && view.verdictOf(beginner, about.id)) || null,
    state: gate.state,
    overridden: null,
  }
}

function bySteps(view: GateView, gate: StepGate, part: Part, subjects: Subjects): GateState {
  let shows: Part | null = null
  let first: Part | null = null
  let unmet = 0
  for (const one of subjects.parts) {
    const verdict = view.verdictOf(gate.waitsFor, one.id)
    // A step that is not asked of a part holds nothing back softly; a hard gate wants it.
    if (verdict === undefined && !gate.hard) continue
    first ??= one
    if (verdict !== undefined && isMet(gate, verdict)) continue
    shows ??= one
    unmet++
  }
  const about = shows ?? first
  return {
    id: gate.id,
    hard: gate.hard,
    met: unmet === 0,
    why: unmet === 0 ? null : 'unmet',
    finding: waitingFor(gate, part, about, unmet),
    waitsFor: about ? stepKey(gate.waitsFor, about.id) : null,
    nowVerdict: (about && view.verdictOf(gate.waitsFor, about.id)) || null,
    state: null,
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
