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
    const computed = judgeStep(step, contextOf(step, part, run.plant, run.facts, counted, NOTHING_READ))
    const { verdict, finding, flags } = computed
    return { key, step, part, verdict, finding, flags, readings: [], computed, counting: null, repeatAsked: false }
  }
  const readings = judgeReadings(run, step, part, key, counted)
  const choice = run.index.choices.get(key)
  const counting = countingReading(step, readings, choice, run.scope)
  if (!counting) return unread(key, step, part, readings)
  const flags = [...counting.flags]
  if (peopleDisagree(readings, choice)) flags.push('two-people')
  const changed = changedSince(run, step, part, counting, counted)
  if (changed) flags.push('plant-changed')
  const verdict = verdictWithFlags(counting.verdict, flags)
  const { finding } = counting.judgement
  return {
    key,
    step,
    part,
    verdict,
    finding: verdict === counting.verdict ? finding : flaggedFinding(finding, flags, part, changed),
    flags,
    readings,
    computed: null,
    counting,
    repeatAsked: false,
  }
}

/** Nothing counts yet; a remedy may have ended the say of the last reading, and then says why. */
function unread(key: string, step: AnyStep, part: Part, readings: readonly ReadingEvaluation[]): Own {
  const ended = readings.at(-1)?.ended
  const { tag } = part.data
  const repeatAsked = ended?.by === 'remedy'
  const finding: Finding = repeatAsked
    ? { code: 'repeat-after-remedy', figures: { tag, reason: ended.reason } }
    : { code: 'not-yet.no-reading', figures: { tag } }
  return {
    key,
    step,
    part,
    verdict: 'not-yet',
    finding,
    flags: [],
    readings,
    computed: null,
    counting: null,
    repeatAsked,
  }
}

function flaggedFinding(finding: Finding, flags: readonly Flag[], part: Part, changed: string | null): Finding {
  const { tag } = part.data
  return flags.includes('plant-changed')
    ? { code: 'plant-changed', figures: { ...finding.figures, tag, what: changed ?? '' } }
    : { code: 'two-people', figures: { ...finding.figures, tag } }
}
