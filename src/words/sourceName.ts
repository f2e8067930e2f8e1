import { sources, type SourceId } from '@/core/regime/sources'
import { say } from './say'

/** Document, edition and clause of a source, as the screen and the print both name it; what no document gives says so. */
export function sourceName(id: SourceId): string {
  const { document, edition, clause, standing } = sources[id]
  if (standing === 'trade') return say('source.trade')
  if (id === 'company') return say('source.company')
  if (standing === 'house') return say('source.house', { rule: Number(/\d+/.exec(document)?.[0]) })
  const title = edition ? `${document}:${edition}` : document
  return clause ? `${title}, ${clause}` : title
}
