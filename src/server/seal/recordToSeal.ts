/** What a seal freezes: all facts, and the evaluation with `now` = time of sealing, figures to 12 significant digits. */
import { evaluate, linesOf } from '@/core/evaluate'
import { allCauses } from '@/core/evaluation/allCauses'
import { fitnessOf, foundIn } from '@/core/evaluation/found'
import type { Facts } from '@/core/record/facts'
import { sources } from '@/core/regime/sources'

/** The core by which a record was judged: made from its content when the application is built or started. */
function coreVersion(): string {
  const version = process.env.UPSTAND_CORE_VERSION
  if (!version) throw new Error('recordToSeal: expected UPSTAND_CORE_VERSION from the build, got nothing')
  return version
}
const SIGNIFICANT_DIGITS = 12

export function recordToSeal(facts: Facts, sealedAt: Date, sealedBy: string): Record<string, unknown> {
  const evaluation = evaluate(facts, sealedAt.getTime())
  const { seals: _, ...own } = facts
  const steps = evaluation.steps.map((one) => ({
    step: one.step.id,
    part: one.part.id,
    tag: one.part.data.tag,
    verdict: one.verdict,
    finding: one.finding,
    flags: one.flags,
    counts: one.counting?.entry.id ?? null,
    referred: one.judgement?.referred ?? null,
    limits: one.judgement?.limits ?? [],
    expected: one.judgement?.rule?.expected ?? null,
    working: linesOf(evaluation, one),
    causes: allCauses(evaluation, one),
    leftOut: one.leftOut,
  }))
  const { progress, signatures, snags } = evaluation
  const fitness = fitnessOf(evaluation)
  const periodic = fitness ? { found: foundIn(evaluation), fitness } : {}
  return {
    coreVersion: coreVersion(),
    sealedAt: sealedAt.toISOString(),
    sealedBy,
    facts: own,
    evaluation: rounded({ steps, progress, signatures, snags, ...periodic }),
    sources,
  }
}

/** Figures of the evaluation to 12 significant digits, so that the last bits of a processor never break a seal. */
function rounded(value: unknown): unknown {
  if (typeof value === 'number') return Number(value.toPrecision(SIGNIFICANT_DIGITS))
  if (Array.isArray(value)) return value.map(rounded)
  if (value && typeof value === 'object') {
    return Object.fromEntries(
      Object.entries(value)
        .filter(([, inner]) => inner !== undefined)
        .map(([key, inner]) => [key, rounded(inner)]),
    )
  }
  return value
}
