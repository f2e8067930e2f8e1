import { sources, type SourceId } from '@/core/regime/sources'

/** Document, edition and clause of a source, as the screen and the print both name it. */
export function sourceName(id: SourceId): string {
  const { document, edition, clause } = sources[id]
  const title = edition ? `${document}:${edition}` : document
  return clause ? `${title}, ${clause}` : title
}
