import { evaluate, evaluateNext } from '@/core/evaluate'
import type { Facts } from '@/core/record/facts'
import { testId } from '@/core/testing/factsBuilder'
import { manyCircuits, manyStrings, plantFirst } from './facts'
import { time, timeInTurn, written } from './measure'
import type { Row } from './run'

const jobs: readonly { what: string; reach: string; next: string; facts: () => Facts }[] = [
  { what: '40 strings, 6 readings each', reach: 'under 8 ms', next: '', facts: () => manyStrings(40) },
  { what: '400 strings', reach: '', next: 'under 2 ms', facts: () => manyStrings(400) },
  { what: '2500 strings', reach: '', next: '', facts: () => manyStrings(2500) },
  { what: '10,000 strings', reach: 'under 1.5 times the JSON', next: '', facts: () => manyStrings(10_000) },
  { what: '10,000, plant entered first', reach: '', next: '', facts: () => plantFirst(manyStrings(10_000)) },
  { what: '200 circuits, all tests', reach: '', next: 'under 2 ms', facts: () => plantFirst(manyCircuits(200)) },
  { what: '800 circuits', reach: '', next: '', facts: () => plantFirst(manyCircuits(800)) },
  {
    what: '3200 circuits',
    reach: 'under 1.5 times the JSON, 5 times 800',
    next: '',
    facts: () => plantFirst(manyCircuits(3200)),
  },
]

/** Evaluation against reading the same facts from JSON, which nothing can do without; then one more reading alone. */
export function evaluateBench(): Row[] {
  return jobs.flatMap(({ what, reach, next: nextReach, facts: make }) => {
    const facts = make()
    const text = JSON.stringify(facts)
    const runs = text.length > 20e6 ? 7 : 31
    // What was evaluated is held until the next, as the application holds what it shows.
    let before = evaluate(facts, 0)
    const again = (): unknown => {
      before = evaluate(facts, 0)
      return before
    }
    const [evaluated, parsed] = timeInTurn([again, () => JSON.parse(text)], runs, runs > 7 ? 20 : 2)
    const against = `reading the same facts from JSON: ${written(parsed)}, ratio ${(evaluated.median / parsed.median).toFixed(2)}`
    const more = withOneMore(facts)
    const next = time(() => evaluateNext(before, more, 0), runs)
    return [
      { what: `evaluate ${what}`, reach, figure: written(evaluated), against },
      {
        what: '  and one more reading',
        reach: nextReach,
        figure: written(next),
        against: `all anew: ${written(evaluated)}`,
      },
    ]
  })
}

/** The last reading once more, a second later. */
function withOneMore(facts: Facts): Facts {
  const last = facts.entries.at(-1)!
  const deviceTime = new Date(Date.parse(last.deviceTime) + 1000).toISOString()
  return { ...facts, entries: [...facts.entries, { ...last, id: testId(0xfffffff), deviceTime }] }
}
