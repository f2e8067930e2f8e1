/** Limits and expectations beside a figure, in a few words. */
import type { RuleData } from '@/core/verdict/judgement'
import { quantity, say } from '@/words/say'

/** Decimals that tell a limit apart from what is read: small ones have three figures. */
const decimalsOf = (value: number): number => (Number.isInteger(value) ? 0 : value < 10 ? 2 : value < 100 ? 1 : 0)
const withUnit = (value: number, unit: RuleData['unit']): string => quantity(value, unit, decimalsOf(value))

/** What a figure is held against: at most, at least, or from one to another. */
export function limitText({ band, unit }: RuleData): string {
  const { low, high } = band
  if (low !== null && high !== null)
    return say('schedule.limit-between', { low: String(low), high: withUnit(high, unit) })
  if (high !== null) return say('schedule.limit-most', { value: withUnit(high, unit) })
  return low === null ? '' : say('schedule.limit-least', { value: withUnit(low, unit) })
}

/** The scale on which a figure itself lies, without what it does not show; null where what was judged is worked out from it. */
export function ownScale(scale: RuleData | null, text: string): RuleData | null {
  if (!scale?.measured) return scale
  if (text === '') return { ...scale, measured: null }
  return scale.measured.text === text ? scale : null
}

export const expectedText = ({ expected, unit }: RuleData): string =>
  expected ? say('schedule.expected', { value: withUnit(expected.value, unit) }) : ''
