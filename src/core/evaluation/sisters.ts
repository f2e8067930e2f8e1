import type { Regime } from '../regime/regime'
import type { Slot } from '../steps/step'
import { worst } from '../verdict/verdict'
import type { StepEvaluation } from './types'

/** Sisters that must be there before the odd one out can be named: with one other, nobody knows which is odd. */
const LEAST_OTHERS = 2

type Member = { evaluation: StepEvaluation; comparable: number; irradiance_Wm2: number | null }

/**
 * Compares strings alike, referred to the same conditions first: each against the median of the others. Sorting once a
 * group keeps it n log n. Source: IEC 62446-1 6.4, 6.5 (from memory).
 */
export function compareSisters(evaluations: readonly StepEvaluation[], regime: Regime): void {
  const groups = new Map<string, Member[]>()
  for (const evaluation of evaluations) {
    const counting = evaluation.counting
    const comparable = counting?.judgement.comparable ?? null
    if (!counting || comparable === null) continue
    const group = evaluation.step.sisterGroup?.(evaluation.part) ?? null
    if (group === null) continue
    const key = `${evaluation.step.id}|${group}`
    const irradiance_Wm2 = counting.entry.body.conditions?.irradiance.read.value ?? null
    const members = groups.get(key) ?? []
    members.push({ evaluation, comparable, irradiance_Wm2 })
    groups.set(key, members)
  }
  for (const members of groups.values()) compareGroup(members, regime)
}

function compareGroup(members: Member[], regime: Regime): void {
  if (members.length < 2) return
  // A string that is outside by its own expectation is no measure for the others.
  const sound = members
    .filter((one) => one.evaluation.verdict !== 'outside')
    .sort((a, b) => a.comparable - b.comparable)
  const places = new Map(sound.map((one, place) => [one, place]))
  const allowed_pct = regime.limits[members[0]!.evaluation.step.sisterLimit ?? 'pv.sisters'].value
  const lightMoved = lightMovedBetween(members, regime.limits['pv.light-moved'].value)
  for (const member of members) {
    const others = sound.length - (places.has(member) ? 1 : 0)
    if (others === 0) continue
    const median = medianWithout(sound, places.get(member) ?? sound.length)
    const deviation_pct = 100 * (member.comparable / median - 1)
    const { evaluation } = member
    evaluation.sisters = { count: others, median, deviation_pct, allowed_pct, lightMoved }
    if (lightMoved && evaluation.step.slots.some((slot: Slot) => slot.measures === 'dc-current')) {
      evaluation.flags.push('light-moved')
    }
    if (Math.abs(deviation_pct) <= allowed_pct || evaluation.verdict === 'not-yet') continue
    const verdict = others >= LEAST_OTHERS && !lightMoved ? 'outside' : 'close'
    if (worst([evaluation.verdict, verdict]) !== verdict || evaluation.verdict === verdict) continue
    evaluation.verdict = verdict
    evaluation.finding = {
      code: `sisters.${deviation_pct < 0 ? 'below' : 'above'}`,
      figures: {
        ...evaluation.finding.figures,
        deviation_pct: Math.abs(deviation_pct),
        allowed_pct,
        others,
      },
    }
  }
}

/** Median of a sorted list without the element at one place; a place past its end leaves nothing out. */
function medianWithout(sorted: readonly Member[], place: number): number {
  const at = (k: number): number => sorted[k < place ? k : k + 1]!.comparable
  const count = sorted.length - (place < sorted.length ? 1 : 0)
  const middle = count >> 1
  return count % 2 === 1 ? at(middle) : (at(middle - 1) + at(middle)) / 2
}

function lightMovedBetween(members: readonly Member[], allowed_pct: number): boolean {
  let least = Number.POSITIVE_INFINITY
  let most = 0
  for (const { irradiance_Wm2 } of members) {
    if (irradiance_Wm2 === null) continue
    least = Math.min(least, irradiance_Wm2)
    most = Math.max(most, irradiance_Wm2)
  }
  return most > 0 && most > least * (1 + allowed_pct / 100)
}
