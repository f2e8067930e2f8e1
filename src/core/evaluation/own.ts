/** What a step comes to by its own readings, before sisters, states and gates are looked at. */
import type { Part } from '../plant/part'
import { type AnyStep, isRead, NOTHING_READ } from '../steps/step'
import type { Finding, Flag } from '../verdict/verdict'
import { countingReading, judgeReadings, peopleDisagree, verdictWithFlags } from './counting'
import { changedSince } from './inputs'
import { contextOf, judgeStep } from './judge'
import type { Own, Run } from './runOf'
import { type ReadingEvaluation, stepKey } from './types'

export function ownOf(run: Run, step: AnyStep, part: Part): Own {
  const key = stepKey(step.id, part.id)
  const counted = run.countedFor(key)
  if (!isRead(step)) {
    const computed = judgeStep(step, contextOf(step, part, run.plant, run.given, counted, NOTHING_READ))
    const { verdict, flags } = computed
    return { key, step, part, verdict, said: null, flags, readings: [], computed, counting: null, repeatAsked: false }
  }
  const readings = judgeReadings(
    run,
    { step, part, plant: run.plant, given: run.given, counted, changedAt: run.history.lastAt, together: run.together },
    key,
  )
  const choice = run.index.choices.get(key)
  const counting = countingReading(step, readings, choice, run.scope)
  if (!counting) return unread(key, step, part, readings)
  let flags = counting.flags
  if (peopleDisagree(readings, choice)) flags = [...flags, 'two-people']
  const changed = changedSince(run, step, part, counting, counted)
  if (changed) flags = [...flags, 'plant-changed']
  const verdict = verdictWithFlags(counting.verdict, flags)
  return {
    key,
    step,
    part,
    verdict,
    said: verdict === counting.verdict ? null : flaggedFinding(counting.judgement.finding, flags, part, changed),
    flags,
    readings,
    computed: null,
    counting,
    repeatAsked: false,
  }
}

/** Nothing counts yet; a remedy may have ended the say of the last reading. */
function unread(key: string, step: AnyStep, part: Part, readings: readonly ReadingEvaluation[]): Own {
  const repeatAsked = readings.at(-1)?.ended?.by === 'remedy'
  return {
    key,
    step,
    part,
    verdict: 'not-yet',
    said: null,
    flags: NO_FLAGS,
    readings,
    computed: null,
    counting: null,
    repeatAsked,
  }
}
const NO_FLAGS: readonly Flag[] = []

function flaggedFinding(finding: Finding, flags: readonly Flag[], part: Part, changed: string | null): Finding {
  const { tag } = part.data
  return flags.includes('plant-changed')
    ? { code: 'plant-changed', figures: { ...finding.figures, tag, what: changed ?? '' } }
    : { code: 'two-people', figures: { ...finding.figures, tag } }
}
