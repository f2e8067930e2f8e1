/** What was taken from each source: the limits of the shipped regimes that cite it, and the tests that rest on it. */
import { steps } from '../steps'
import { shippedRegimes } from './shipped'
import type { Limit } from './regime'
import type { SourceId } from './sources'

/** A figure of a regime as it was taken from a source. */
export type TakenLimit = Pick<Limit, 'value' | 'unit'> & { id: string }
export type Taken = { limits: readonly TakenLimit[]; steps: readonly string[] }

/** By source; a source that nothing cites is not among them. */
export function takenBySource(): ReadonlyMap<SourceId, Taken> {
  const found = new Map<SourceId, { limits: Map<string, TakenLimit>; steps: Set<string> }>()
  const at = (id: SourceId) => {
    const known = found.get(id) ?? { limits: new Map<string, TakenLimit>(), steps: new Set<string>() }
    found.set(id, known)
    return known
  }
  // Regimes may take different figures from one document.
  for (const regime of shippedRegimes)
    for (const [id, { source, value, unit }] of Object.entries(regime.limits))
      at(source).limits.set(`${id} ${value}`, { id, value, unit })
  for (const step of steps) for (const source of step.sources) at(source).steps.add(step.id)
  return new Map([...found].map(([id, { limits, steps }]) => [id, { limits: [...limits.values()], steps: [...steps] }]))
}
