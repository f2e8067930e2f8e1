import type { RuleData } from '@/core/verdict/judgement'

export type Scale = {
  min: number
  max: number
  major: number[]
  minor: number[]
  decimals: number
  /** Where a value lies between the ends, 0 to 1. */
  share(value: number): number
}

/** Limit and expected lie inside the middle 70 % of the scale. */
const MIDDLE_SHARE = 0.7
const MAJOR_COUNT = 5

/** Steps of 1, 2 or 5 times a power of ten: about `count` of them over a span. */
export function niceStep(span: number, count: number): number {
  const raw = span / count
  const power = 10 ** Math.floor(Math.log10(raw))
  const share = raw / power
  return power * (share < 1.5 ? 1 : share < 3.5 ? 2 : share < 7.5 ? 5 : 10)
}

/** The stretch of the scale that a rule shows; a reading off it sits at the end with its number. */
export function scaleOf(rule: RuleData): Scale {
  return rule.scale === 'log' ? logScale(rule) : linearScale(rule)
}

const between = (share: number): number => Math.max(0, Math.min(1, share))

/** Decades beyond which a reading sits at the end of its scale. */
const MOST_BELOW = -3
const MOST_ABOVE = 5

/** Whole decades: one below the lowest limit, two above it, and as far as reading and expectation go. */
function logScale({ band, measured, expected }: RuleData): Scale {
  const anchors = [band.low, band.high].filter((one) => one !== null)
  const isLeast = band.low !== null
  const shown = [measured?.value, expected?.value].filter((one) => one !== undefined && one > 0) as number[]
  const reach = shown.length === 0 && isLeast ? [1] : shown
  const decade = (one: number): number => Math.floor(Math.log10(one) + 1e-9)
  const low = Math.max(Math.min(...reach.map(decade), decade(Math.min(...anchors)) - 1), MOST_BELOW)
  const above = decade(Math.max(...anchors)) + (isLeast ? 3 : 1)
  const high = Math.max(above, Math.min(Math.max(...reach.map((one) => decade(one) + 1)), MOST_ABOVE))
  const decades = Array.from({ length: high - low + 1 }, (_, k) => 10 ** (low + k))
  return {
    min: 10 ** low,
    max: 10 ** high,
    major: decades,
    minor: decades.slice(0, -1).flatMap((one) => [2, 3, 4, 5, 6, 7, 8, 9].map((times) => one * times)),
    decimals: 0,
    share: (one) => between((Math.log10(Math.max(one, 1e-9)) - low) / (high - low)),
  }
}

function linearScale(rule: RuleData): Scale {
  const anchors = [rule.band.low, rule.band.high, rule.expected?.value ?? null].filter((one) => one !== null)
  const low = Math.min(...anchors)
  const high = Math.max(...anchors)
  const room = ((high - low) * (1 / MIDDLE_SHARE - 1)) / 2 || Math.abs(high) * 0.2 || 1
  let [min, max] = [low - room, high + room]
  // A reading a little off is brought into view; one far off would squeeze the band together.
  const value = rule.measured?.value
  const oneSided = rule.band.low === null || rule.band.high === null
  // Against one limit alone nothing is squeezed by showing the whole way from the reading to it.
  if (oneSided && value !== undefined) {
    min = Math.min(min, value - Math.abs(high - value) * 0.15)
    max = Math.max(max, value + Math.abs(value - low) * 0.15)
  }
  if (value !== undefined && value < min && value > low - 3 * (high - low)) min = value - room
  if (value !== undefined && value > max && value < high + 3 * (high - low)) max = value + room
  if (low >= 0) min = Math.max(0, min)
  const step = niceStep(max - min, MAJOR_COUNT)
  const ticks = (by: number): number[] => {
    const list: number[] = []
    for (let k = Math.ceil(min / by - 1e-9); k * by <= max + 1e-9 * by; k++) list.push(k * by)
    return list
  }
  return {
    min,
    max,
    major: ticks(step),
    minor: ticks(step / 5),
    decimals: Math.max(0, -Math.floor(Math.log10(step) + 1e-9)),
    share: (one) => between((one - min) / (max - min)),
  }
}
