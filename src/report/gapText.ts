import type { Gap } from '@/core/evaluation/comparing'
import { say } from '@/words/say'

/** By how much a string is off, as people say it. */
export function gapText(gap: Gap | null): string {
  if (!gap) return say('compare.gap.none')
  const { by, count, pct } = gap
  return say(`compare.gap.${by}-${pct < 0 ? 'low' : 'high'}`, { count })
}
