/** What was taken from each source: the limits of the shipped regimes that cite it, and the tests that rest on it. */
import { steps } from '../steps'
import { shippedRegimes } from './shipped'
import type { SourceId } from './sources'

export type Taken = { limits: readonly string[]; steps: readonly string[] }

/** By source; a source that nothing cites is not among them. */
export function takenBySource(): ReadonlyMap<SourceId, Taken> {
  const found = new Map<SourceId, { limits: Set<string>; steps: Set<string> }>()
  const at = (id: SourceId) => {
    const known = found.get(id) ?? { limits: new Set<string>(), steps: new Set<string>() }
    found.set(id, known)
    return known
  }
  for (const regime of shippedRegimes)
    for (const [id, limit] of Object.entries(regime.limits)) at(limit.source).limits.add(id)
  for (const step of steps) for (const source of step.sources) at(source).steps.add(step.id)
  return new Map([...found].map(([id, { limits, steps }]) => [id, { limits: [...limits], steps: [...steps] }]))
}
