/** What the bench says and shows of a step, from the core's codes and figures. */
import { causes, judgeDraft } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Body, Conditions } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { type Judgement, mainSlot, type RuleData } from '@/core/steps/step'
import { figure, meaningOf, quantity, say, sayCode } from '@/words/say'

const DECIMALS: Record<string, number> = { A: 2, ohm: 2, W: 0, deg: 0 }
export const decimalsOf = (unit: string): number => DECIMALS[unit] ?? 1

type Seen = { facts: Facts; evaluation: Evaluation; one: StepEvaluation; conditions: Conditions | null }

const emptyBody = (conditions: Conditions | null): Body<'reading'> => ({
  kind: 'reading',
  v: 1,
  slots: {},
  conditions,
  how: 'typed',
  instrument: null,
  place: null,
  plantRevision: '',
  confirmed: [],
  note: null,
})

/** Before anything is read, the rule shows where the reading should come to lie. */
export function expectedRule({ facts, evaluation, one, conditions }: Seen): RuleData | null {
  const slot = mainSlot(one.step)
  if (slot?.kind !== 'number' || (one.step.needsConditions && !conditions)) return null
  const probe = { [slot.id]: { text: '0', value: 0, bound: 'exact' as const, unit: slot.unit } }
  const { rule } = judgeDraft(facts, evaluation, one, { ...emptyBody(conditions), slots: probe })
  return rule ? { ...rule, measured: null } : null
}

/** The sentence in the verdict band: of a kept reading, of one being typed, of a shut gate, or what to expect. */
export function sentenceOf(
  seen: Seen,
  taking: boolean,
  live: Judgement | null,
  shut: StepEvaluation['gates'][number] | undefined,
): string {
  const { facts, evaluation, one, conditions } = seen
  if (!taking) {
    const finding = sayCode('finding', one.finding.code, one.finding.figures)
    const meaning = one.verdict === 'outside' ? meaningOf(causes(facts, evaluation, one)[0]) : ''
    return `${finding} ${meaning}`.trim()
  }
  if (live) return sayCode('finding', live.finding.code, live.finding.figures)
  if (shut) return sayCode('finding', `held-back.${shut.id}`, shut.figures)
  if (one.repeatAsked) return sayCode('finding', one.finding.code, one.finding.figures)
  if (!one.step.needsConditions) {
    const { finding } = judgeDraft(facts, evaluation, one, emptyBody(null))
    return sayCode('finding', finding.code, finding.figures)
  }
  const rule = expectedRule(seen)
  if (rule?.expected) {
    return say('bench.expect', {
      value: quantity(rule.expected.value, rule.unit, decimalsOf(rule.unit)),
      off: figure(rule.expected.uncertainty, decimalsOf(rule.unit)),
    })
  }
  if (!conditions) return say('bench.needs-conditions')
  return sayCode('finding', 'not-yet.no-reading')
}

const MOST_SISTERS = 3

/** Sister strings on the same rule, referred to this reading's light: the odd one out is seen before it is named. */
export function sistersOnRule(
  evaluation: Evaluation,
  one: StepEvaluation,
  rule: { expected: { value: number } | null },
): { label: string; value: number }[] {
  const group = one.step.sisterGroup?.(one.part) ?? null
  const expected = rule.expected
  if (group === null || !expected) return []
  return evaluation.steps
    .filter(
      (other) =>
        other !== one &&
        other.step === one.step &&
        other.counting?.judgement.rule?.expected &&
        other.step.sisterGroup?.(other.part) === group,
    )
    .slice(0, MOST_SISTERS)
    .map((other) => {
      const { measured, expected: own } = other.counting!.judgement.rule!
      return { label: other.part.data.tag, value: (measured!.value / own!.value) * expected.value }
    })
}
