/** The languages that there are. A new one is a table beside English, and a line here. */
import { inEnglish, type Language } from './language'

const known: Record<string, () => Promise<Language>> = {
  en: async () => inEnglish,
  // English with every letter changed and every sentence a third longer: shows what is not in a table, and what has no room.
  'en-XA': () => import('./pseudo').then((module) => module.pseudo),
}

/** The language of a tag; English where there is no such language. */
export const languageOf = (tag: string | null): Promise<Language> => (known[tag ?? ''] ?? known.en!)()
