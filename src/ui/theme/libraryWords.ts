import type { Locale } from 'antd/es/locale'
import english from 'antd/locale/en_US'
import type { Language } from '@/words/language'

/** What the component library says by itself, such as the months of a calendar, in a language: keys begin with `library.`. */
export function libraryWords(language: Language): Locale {
  const said = (value: unknown, key: string): unknown => {
    if (typeof value === 'string') return language.sentence(key, value) ?? value
    if (Array.isArray(value)) return value.map((one, k) => said(one, `${key}.${k}`))
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(
      Object.entries(value).map(([name, one]) => [name, CODES.test(name) ? one : said(one, `${key}.${name}`)]),
    )
  }
  return said(english, 'library') as Locale
}

/** What is no sentence: names of locales, and how days are formatted. */
const CODES = /locale|format/i
