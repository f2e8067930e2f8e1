/** The language that is spoken. English is the first: every sentence stands there, and what another lacks is said so. */
export type Language = {
  /** As web pages name it (RFC 5646). */
  tag: string
  /** By which days are written and words are counted. */
  locale: string
  /** Its sentence of a key; undefined where it has none. @param english the English one */
  sentence(key: string, english: string | undefined): string | undefined
}

/** A language that is a table of sentences by their keys, the same keys as English. */
export const tabled = (tag: string, locale: string, table: Readonly<Record<string, string>>): Language => ({
  tag,
  locale,
  sentence: (key) => table[key],
})

export const inEnglish: Language = { tag: 'en', locale: 'en-GB', sentence: (_, english) => english }

let now = inEnglish
export const spoken = (): Language => now

/** From here on everything is said in a language. A screen that stands already has to be drawn again. */
export function speak(language: Language): void {
  now = language
}

/** What a piece of work says, in a language; the work is done when it returns. */
export function inLanguage<T>(language: Language, work: () => T): T {
  const before = now
  now = language
  try {
    return work()
  } finally {
    now = before
  }
}
