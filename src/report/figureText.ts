/** Figures as they are printed: a limit with the places its size wants, an uncertainty with those of its reading. */
import type { Unit } from '@/core/quantity/unit'
import type { RuleData } from '@/core/verdict/judgement'
import { figure } from '@/words/say'

/** Keeps a sign on the line of its number. */
const NBSP = '\u00a0'

const DECIMALS: Partial<Record<Unit, number>> = { A: 2, ohm: 2, W: 0, deg: 0 }
/** Decimals of a figure that is printed beside others of its test. */
export const decimalsOf = (unit: Unit | undefined): number => (unit ? (DECIMALS[unit] ?? 1) : 1)

/** No more places than a figure of its size can want: 10000 A, 300 ms, 166.7 Ω, 0.80 Ω. */
export function sized(value: number, decimals: number): string {
  const size = Math.abs(value)
  const most = size >= 1000 || (size >= 100 && Number.isInteger(value)) ? 0 : size >= 100 ? 1 : decimals
  return figure(value, Math.min(decimals, most))
}

/** What a figure may be, as it is printed. */
export function bandText(rule: Pick<RuleData, 'band'> | null, decimals: number): string | null {
  if (!rule) return null
  const { low, high } = rule.band
  if (low !== null && high !== null) return `${sized(low, decimals)}–${sized(high, decimals)}`
  return low !== null ? `≥${NBSP}${sized(low, decimals)}` : high !== null ? `≤${NBSP}${sized(high, decimals)}` : null
}

/** As it was read, with what it is known to: in the places of the reading, or as many more as a small one wants. */
export function measuredText({ text, whisker }: Pick<NonNullable<RuleData['measured']>, 'text' | 'whisker'>): string {
  if (!(whisker > 0)) return text
  const own = /[.,](\d+)$/.exec(text)?.[1]?.length ?? 0
  const wanted = Math.ceil(-Math.log10(whisker))
  return `${text} ±${figure(whisker, Math.max(own, wanted, 0))}`
}
