/** In what two regimes differ: a company's own beside what it was copied from, a newer version beside the one before. */
import { limitIds, type Regime, schoolIds } from './regime'

/** The regime that one was made from, where it is known: by its name and version, else the version before. */
export function ancestorOf(regime: Regime, known: readonly Regime[]): Regime | null {
  const { changed } = regime
  const byName = changed && known.find((one) => `${one.name}, ${one.version}`.slice(0, 80) === changed.from)
  if (byName) return byName
  const before = known
    .filter((one) => one.id === regime.id && one.version < regime.version)
    .sort((a, b) => b.version - a.version)
  return before[0] ?? null
}

/** Limits and schools that differ; a figure that one of both lacks differs. */
export function differenceOf(a: Regime, b: Regime): ReadonlySet<string> {
  const limits = limitIds.filter((id) => {
    const [mine, theirs] = [a.limits[id], b.limits[id]]
    return mine?.value !== theirs?.value || mine?.unit !== theirs?.unit
  })
  return new Set([...limits, ...schoolIds.filter((id) => a.schools[id] !== b.schools[id])])
}
