import '@/words/help'
import type { JudgedLimit } from '@/core/verdict/judgement'
import type { Regime } from '@/core/regime/regime'
import { type SourceId, sources } from '@/core/regime/sources'
import { hasWords, quantity, say, sayCode, type WordKey } from '@/words/say'

/** How sure a source is, in a sentence. */
export function standingOf(id: SourceId, changed: Regime['changed']): string {
  const { standing } = sources[id]
  if (standing !== 'house') return say(`why.standing.${standing}`)
  const own = `why.${id}`
  if (hasWords(own)) return say('why.standing.house', { why: say(own as WordKey) })
  return changed ? say('why.standing.company', { reason: changed.reason, who: changed.by }) : ''
}

/** A limit by its name and figure. */
export function limitText({ id, value, unit }: JudgedLimit): string {
  const name = hasWords(`limit.${id}`) ? sayCode('limit', id) : sayCode('rating', id)
  return `${name}: ${quantity(value, unit, Number.isInteger(value) ? 0 : 2)}`
}
