import { evaluate } from '@/core/evaluate'
import { manyStrings } from './facts'
import { time, written } from './measure'
import type { Row } from './run'

/** Evaluation against reading the same facts from JSON, which nothing can do without. */
export function evaluateBench(): Row[] {
  return [
    { strings: 40, reach: 'under 8 ms' },
    { strings: 400, reach: '' },
    { strings: 10_000, reach: 'under 400 ms' },
  ].map(({ strings, reach }) => {
    const facts = manyStrings(strings)
    const text = JSON.stringify(facts)
    const runs = strings > 1000 ? 5 : 15
    const evaluated = time(() => evaluate(facts, 0), runs)
    const parsed = time(() => JSON.parse(text), runs)
    return {
      what: `evaluate ${strings} strings, 6 readings each`,
      reach,
      figure: written(evaluated),
      against: `reading the same facts from JSON: ${written(parsed)}, ratio ${(evaluated.median / parsed.median).toFixed(2)}`,
    }
  })
}
