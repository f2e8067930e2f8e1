import '@/words/help'
import { english, say, type WordKey } from '@/words/say'

export type Term = { id: string; word: string; means: string }

const FAMILY = /^term\.([\w-]+)$/

/** Every word of the glossary, in the order of the alphabet. */
export const termsOf = (): Term[] =>
  Object.keys(english)
    .flatMap((key) => {
      const id = FAMILY.exec(key)?.[1]
      return id ? [{ id, word: say(key as WordKey), means: say(`${key}.means` as WordKey) }] : []
    })
    .sort((a, b) => a.word.localeCompare(b.word))

/** What a word is found by in running text: each of its names, whole; capitals count where the name has some inside. */
function finderOf({ word }: Term): RegExp {
  const names = word.split(/, | and /).map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
  const exact = names.some((name) => /\p{L}\p{Lu}|^\p{Lu}{2}|\d/u.test(name)) || word.length <= SHORT
  return new RegExp(`(?<![\\p{L}\\d])(?:${names.join('|')})s?(?![\\p{L}\\d])`, exact ? 'u' : 'iu')
}
/** Names of so few letters are signs, and written one way only. */
const SHORT = 3

/** The words that stand in a text, in the order in which they come. */
export function termsIn(text: string): Term[] {
  const found = termsOf().flatMap((term) => {
    const at = finderOf(term).exec(text)?.index
    return at === undefined ? [] : [{ term, at }]
  })
  return found.sort((a, b) => a.at - b.at).map(({ term }) => term)
}
