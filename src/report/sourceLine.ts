/** A source as it is printed: with the mark of what was recalled, or who held it against its document, and when. */
import '@/words/print'
import type { Facts } from '@/core/record/facts'
import { type SourceId, sources } from '@/core/regime/sources'
import { say } from '@/words/say'
import { sourceName } from '@/words/sourceName'
import { dayWords } from './dayWords'

export type Compared = Facts['compared']

export function sourceLine(id: SourceId, compared: Compared): string {
  const { recalled, sure } = sources[id]
  const name = sourceName(id)
  if (!recalled) return name
  const held = compared?.find(({ source }) => source === id)
  if (!held) return sure === 'doubt' ? `${name} (${say('source.doubt')}) *` : `${name} *`
  const about = { edition: held.edition, by: held.by, day: dayWords(held.at.slice(0, 10)) }
  return held.agrees
    ? `${name} (${say('source.compared', about)})`
    : `${name} (${say('source.differs', { ...about, note: held.note })}) *`
}
