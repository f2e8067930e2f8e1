/** A tester's automatic sequence on one part: which tests it can take by itself, and one reading after another. */
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Body, Conditions } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { LiveSample } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import { slotsShown } from '@/core/steps/slot'
import { isRead } from '@/core/steps/step'
import { type Flag, isDone } from '@/core/verdict/verdict'
import type { Judgement } from '@/core/verdict/judgement'
import { carriedInto, type Draft, emptyDraft, readDraft, withSample } from '../bench/draft'

export type Taken = { one: StepEvaluation; body: Body<'reading'>; judgement: Judgement; flags: readonly Flag[] }
export type SequenceEnd = { taken: Taken[]; stopped: { one: StepEvaluation; why: string | null } | null }

/** A draft as the tester begins: what was set up before, and nothing that only a person can see. */
const begun = (one: StepEvaluation, evaluation: Evaluation, facts: Facts, tool: Instrument): Draft => ({
  ...emptyDraft(tool.id, carriedInto(one, evaluation.steps, facts.visits.at(-1)?.id)),
  started: true,
})

const measures = (tool: Instrument, wanted: Measurable | null): boolean =>
  wanted !== null && tool.ranges.some((range) => range.measures === wanted)

/** No hard gate that is shut opens in a sequence, unless what it waits for is taken just before in it. */
const isReached = (one: StepEvaluation, before: readonly StepEvaluation[]): boolean =>
  one.gates.every((gate) => gate.met || !gate.hard || before.some(({ key }) => key === gate.waitsFor))

/**
 * The tests of a part that an instrument takes by itself, in working order: all that is open is what it measures.
 * Tests under load, those that are done, and those behind a hard gate that is shut are not among them.
 */
export function sequenceOf(
  evaluation: Evaluation,
  facts: Facts,
  one: StepEvaluation,
  tool: Instrument,
): StepEvaluation[] {
  const all: StepEvaluation[] = []
  for (const other of evaluation.steps) if (takesAlone(other) && isReached(other, all)) all.push(other)
  return all

  function takesAlone(other: StepEvaluation): boolean {
    if (other.part !== one.part || other.step.tag === 'live' || !isRead(other.step) || other.done) return false
    const { choices } = begun(other, evaluation, facts, tool)
    const open = slotsShown(other.step, choices, {
      part: other.part,
      regime: facts.regime,
      plant: evaluation.plant,
    }).filter((slot) => !slot.optional && !choices[slot.id])
    return open.length > 0 && open.every((slot) => measures(tool, slot.measures))
  }
}

type Run = {
  evaluation: Evaluation
  facts: Facts
  tool: Instrument
  conditions(): Conditions | null
  press(one: StepEvaluation, wanted: Measurable): Promise<LiveSample | string>
  onTaken(taken: Taken): void
}

/** Takes one test after another, and stops at the first that is outside or that the instrument refuses. */
export async function runSequence(steps: readonly StepEvaluation[], run: Run): Promise<SequenceEnd> {
  const { evaluation, facts, tool } = run
  const all: Taken[] = []
  for (const one of steps) {
    let draft = begun(one, evaluation, facts, tool)
    for (;;) {
      const { open } = readDraft(draft, one, evaluation, run.conditions())
      const [slot] = open
      if (!slot) break
      const sample = slot.measures === null ? null : await run.press(one, slot.measures)
      if (sample === null || typeof sample === 'string') return { taken: all, stopped: { one, why: sample } }
      draft = withSample(draft, slot, sample, tool.standIn)
    }
    const { body, check, judged } = readDraft(draft, one, evaluation, run.conditions())
    // What must be asked about is no matter for a sequence: it is taken by hand.
    if (!body || !judged?.mayKeep || check?.state !== 'fine') return { taken: all, stopped: { one, why: null } }
    // What it waits for may be taken in the same sequence, just before it, and is kept with it.
    const waits = judged.shut && all.some(({ one: { key } }) => key === judged.shut?.waitsFor)
    const flags = judged.flags.filter((flag) => flag !== 'while-held-back' || !waits)
    const taken = { one, body, judgement: judged.judgement, flags }
    all.push(taken)
    run.onTaken(taken)
    // What comes next rests on it.
    if (!isDone(taken.judgement.verdict)) return { taken: all, stopped: { one, why: null } }
  }
  return { taken: all, stopped: null }
}
