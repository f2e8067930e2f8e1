/** What the bench says and shows of a step, from the core's codes and figures. */
import { causes, type DraftEvaluation, heldAgainst, type WithoutMeter } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Conditions } from '@/core/record/entry'
import { isOffered } from '@/core/evaluation/hunts'
import { isRead, wantsConditions } from '@/core/steps/step'
import type { RuleData } from '@/core/verdict/judgement'
import { figure, meaningOf, quantity, say, sayCode, sayFinding } from '@/words/say'

const DECIMALS: Record<string, number> = { A: 2, ohm: 2, W: 0, deg: 0 }
export const decimalsOf = (unit: string): number => DECIMALS[unit] ?? 1

type Seen = {
  evaluation: Evaluation
  one: StepEvaluation
  conditions: Conditions | null
  without?: WithoutMeter | null
}

/** Before anything is read, the rule shows where the reading should come to lie. */
export function expectedRule({ evaluation, one, conditions }: Seen): RuleData | null {
  const rule = heldAgainst(evaluation, one, conditions)?.rule
  return rule ? { ...rule, measured: null } : null
}

/** The sentence in the verdict band: of a kept reading, of one being typed, of a shut gate, or what to expect. */
export function sentenceOf(
  seen: Seen,
  taking: boolean,
  live: DraftEvaluation | null,
  begun: DraftEvaluation | null,
): string {
  const { evaluation, one, conditions } = seen
  if (!taking || !begun) {
    const meaning = one.verdict === 'outside' ? meaningOf(causes(evaluation, one)[0]) : ''
    return `${sayFinding(one.finding)} ${meaning}`.trim()
  }
  // What is merely offered says so first.
  if (!live && isOffered(one)) return `${sayFinding(one.finding)} ${heldBackBy(begun)}`.trim()
  if (live || begun.verdict === 'held-back') return sayFinding((live ?? begun).finding)
  if (one.repeatAsked || one.finding.code.startsWith('lapsed.')) return sayFinding(one.finding)
  if (!wantsConditions(one.step, one.part)) return sayFinding(begun.judgement.finding)
  const rule = expectedRule(seen)
  if (rule?.expected) {
    return say('bench.expect', {
      value: quantity(rule.expected.value, rule.unit, decimalsOf(rule.unit)),
      off: figure(rule.expected.uncertainty, decimalsOf(rule.unit)),
    })
  }
  if (!conditions) return say(seen.without ? 'bench.without-meter' : 'bench.needs-conditions')
  return sayCode('finding', 'not-yet.no-reading')
}

const heldBackBy = ({ verdict, finding }: DraftEvaluation): string =>
  verdict === 'held-back' ? sayFinding(finding) : ''

const MOST_SISTERS = 3

/** Sister strings on the same rule, referred to this reading's light: the odd one out is seen before it is named. */
export function sistersOnRule(
  evaluation: Evaluation,
  one: StepEvaluation,
  rule: { expected: { value: number } | null },
): { label: string; value: number }[] {
  const groupOf = ({ step, part }: StepEvaluation): string | null => (isRead(step) && step.sisterGroup?.(part)) || null
  const group = groupOf(one)
  const expected = rule.expected
  if (group === null || !expected) return []
  return evaluation.steps
    .filter(
      (other) =>
        other !== one &&
        other.step === one.step &&
        other.counting?.judgement.rule?.expected &&
        groupOf(other) === group,
    )
    .slice(0, MOST_SISTERS)
    .map((other) => {
      const { measured, expected: own } = other.counting!.judgement.rule!
      return { label: other.part.data.tag, value: (measured!.value / own!.value) * expected.value }
    })
}
