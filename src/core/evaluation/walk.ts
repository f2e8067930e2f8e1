/**
 * In which order the sheet is walked: by test (all voltages, then all currents) or by place (all tests of one string
 * before the leads move). Only what gates allow is brought together; what is left to do is counted for each way.
 */
import type { Part, PartKind } from '../plant/part'
import { type AnyStep, type GateRule, isRead } from '../steps/step'
import type { Evaluation, StepEvaluation } from './types'

export const ways = ['by-test', 'by-place'] as const
export type Way = (typeof ways)[number]

/** What one line of the sheet stands for: a test on all its parts, or a part with all its tests. */
export type WalkGroup = { id: string; step: AnyStep | null; part: Part | null; steps: StepEvaluation[] }
export type Walk = { way: Way; groups: WalkGroup[]; steps: StepEvaluation[]; minutesLeft: number; leadChanges: number }

/** Moving the leads to another part, or wiring them another way, minutes (house rule 11). */
export const LEAD_CHANGE_min = 1

export function walkOf(evaluation: Evaluation, way: Way): Walk {
  const groups = way === 'by-test' ? byTest(evaluation.steps) : byPlace(evaluation.steps)
  const steps = groups.flatMap((group) => group.steps)
  const left = steps.filter((one) => !one.done && isRead(one.step))
  const leadChanges = left.filter((one, k) => k === 0 || wiring(one) !== wiring(left[k - 1]!)).length
  const minutes = left.reduce((sum, one) => sum + one.step.minutes, 0)
  return { way, groups, steps, minutesLeft: minutes + LEAD_CHANGE_min * leadChanges, leadChanges }
}

/** Where the leads are, and how: the same wiring on the same part needs no hand on them. */
export const wiring = ({ step, part }: StepEvaluation): string =>
  `${step.hookup.wiring ?? step.hookup.drawing} ${part.id}`

function byTest(steps: readonly StepEvaluation[]): WalkGroup[] {
  return [...groupBy(steps, (one) => one.step.id)].map(([id, own]) => ({
    id,
    step: own[0]!.step,
    part: null,
    steps: own,
  }))
}

/** Steps on one kind of part that no other part holds up are walked together, part by part. */
function byPlace(steps: readonly StepEvaluation[]): WalkGroup[] {
  return segmentsOf([...new Set(steps.map((one) => one.step))]).flatMap((segment) => {
    const own = steps.filter((one) => segment.includes(one.step))
    if (segment.length === 1) return byTest(own)
    return [...groupBy(own, (one) => one.part.id)].map(([id, ofPart]) => ({
      id,
      step: null,
      part: ofPart[0]!.part,
      steps: ofPart,
    }))
  })
}

type Segment = { kind: PartKind; steps: AnyStep[] }

/** A step joins the last segment of its kind and chapter unless it waits for another part's step that comes no earlier than that. */
function segmentsOf(steps: readonly AnyStep[]): AnyStep[][] {
  const segments: Segment[] = []
  for (const step of steps) {
    const last = segments.findLastIndex(
      ({ kind, steps: [first] }) => kind === step.appliesTo && first!.order[0] === step.order[0],
    )
    const mayJoin = last >= 0 && isRead(step) && !waitsForLater(step, segments.slice(last))
    if (mayJoin && isRead(segments[last]!.steps[0]!)) segments[last]!.steps.push(step)
    else segments.push({ kind: step.appliesTo, steps: [step] })
  }
  return segments.map((segment) => segment.steps)
}

function waitsForLater(step: AnyStep, from: readonly Segment[]): boolean {
  return step.gates.some(
    (gate) =>
      (gate.on ?? 'part') !== 'part' && from.some((segment) => segment.steps.some((other) => opens(other, gate))),
  )
}

/** Whether a gate waits for this step, or for a state that it begins. */
const opens = (step: AnyStep, gate: GateRule): boolean =>
  'state' in gate
    ? isRead(step) && step.effects?.some((one) => one.state === gate.state && one.does === 'begin') === true
    : step.id === gate.waitsFor

function groupBy<T>(list: readonly T[], key: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const one of list) {
    const known = groups.get(key(one))
    if (known) known.push(one)
    else groups.set(key(one), [one])
  }
  return groups
}
