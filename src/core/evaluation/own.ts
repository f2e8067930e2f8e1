/** What a step comes to by its own readings, before sisters, states and gates are looked at. */
import type { Part } from '../plant/part'
import { type AnyStep, isRead, NOTHING_READ } from '../steps/step'
import type { Judgement } from '../verdict/judgement'
import type { Finding, Flag, Verdict } from '../verdict/verdict'
import { countingReading, judgeReadings, peopleDisagree, verdictWithFlags } from './counting'
import { changedSince } from './inputs'
import { type Counted, contextOf, judgeStep } from './judge'
import { Own, type Run } from './runOf'
import type { ReadingEvaluation } from './types'

const NO_FLAGS: readonly Flag[] = []
const NO_READINGS: readonly ReadingEvaluation[] = []

export function ownOf(run: Run, step: AnyStep, part: Part): Own {
  if (!isRead(step)) {
    const counted = run.countedFor(step, part)
    const { verdict, flags } = computedOf(run, step, part, counted)
    return new ComputedOwn(run, counted, step, part, verdict, flags)
  }
  const { index } = run
  const kept = index.readings.get(step.id, part.id)
  if (!kept) return unread(step, part, NO_READINGS)
  const counted = run.countedFor(step, part)
  const readings = judgeReadings(run, { step, part, counted }, kept)
  const choice = index.choices.get(step.id, part.id)
  const counting = countingReading(step, readings, choice, run.scope)
  if (!counting) return unread(step, part, readings)
  let flags = counting.flags
  if (peopleDisagree(readings, choice)) flags = [...flags, 'two-people']
  const changed = changedSince(run, step, part, counting, counted)
  if (changed) flags = [...flags, 'plant-changed']
  const verdict = verdictWithFlags(counting.verdict, flags)
  const said = verdict === counting.verdict ? null : flaggedFinding(counting.judgement.finding, flags, part, changed)
  return new Own(step, part, verdict, said, flags, readings, counting)
}

const computedOf = ({ plant, given }: Run, step: AnyStep, part: Part, counted: Counted): Judgement =>
  judgeStep(step, contextOf(step, part, plant, given, counted, NOTHING_READ))

/** What follows from the plant: as of a reading only what lists need is kept, and whoever looks has it judged again. */
class ComputedOwn extends Own {
  private judged: Judgement | null = null

  constructor(
    private readonly run: Run,
    private readonly counted: Counted,
    step: AnyStep,
    part: Part,
    verdict: Verdict,
    flags: readonly Flag[],
  ) {
    super(step, part, verdict, null, flags, NO_READINGS, null)
  }

  override get computed(): Judgement {
    this.judged ??= computedOf(this.run, this.step, this.part, this.counted)
    return this.judged
  }
}

/** Nothing counts yet. */
const unread = (step: AnyStep, part: Part, readings: readonly ReadingEvaluation[]): Own =>
  new Own(step, part, 'not-yet', null, NO_FLAGS, readings, null)

function flaggedFinding(finding: Finding, flags: readonly Flag[], part: Part, changed: string | null): Finding {
  const { tag } = part.data
  return flags.includes('plant-changed')
    ? { code: 'plant-changed', figures: { ...finding.figures, tag, what: changed ?? '' } }
    : { code: 'two-people', figures: { ...finding.figures, tag } }
}
