import '@/words/help'
import '@/words/regime'
import type { JudgedLimit } from '@/core/verdict/judgement'
import type { Regime } from '@/core/regime/regime'
import { type SourceId, sources } from '@/core/regime/sources'
import { sourceName } from '@/words/sourceName'
import { hasWords, quantity, say, sayCode, type WordKey } from '@/words/say'

/** How sure a source is, in a sentence; of published ones the same for all. */
export function standingOf(id: SourceId, changed: Regime['changed']): string {
  const { standing } = sources[id]
  if (standing !== 'house') return say(`why.standing.${standing}`)
  const own = `why.${id}`
  if (hasWords(own)) return say('why.standing.house', { why: say(own as WordKey) })
  return changed ? say('why.standing.company', { reason: changed.reason, who: changed.by }) : ''
}

export type Origin = { names: string[]; standing: string }

/** Sources that are equally sure together, each by its name; common practice has none. */
export function originsOf(ids: readonly SourceId[], changed: Regime['changed']): Origin[] {
  const byStanding = new Map<string, string[]>()
  for (const id of ids) {
    const standing = standingOf(id, changed)
    const names = byStanding.get(standing) ?? []
    byStanding.set(standing, sources[id].standing === 'trade' ? names : [...names, sourceName(id)])
  }
  return [...byStanding].map(([standing, names]) => ({ names, standing }))
}

/** A limit by its name and figure. */
export function limitText({ id, value, unit }: JudgedLimit): string {
  const name = hasWords(`limit.${id}`) ? sayCode('limit', id) : sayCode('rating', id)
  return `${name}: ${quantity(value, unit, Number.isInteger(value) ? 0 : 2)}`
}
