/** A language that nobody speaks, made from English. What stays readable on a screen was never in a table. */
import type { Language } from './language'

const PLAIN = 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ'
const STRANGE = 'āƀćđēƒĝĥīĵķĺɱńōƥɋřşţūṽŵẋŷžĀƁĆĐĒƑĜĤĪĴĶĹṀŃŌƤɊŘŞŢŪṼŴẊŶŽ'
const strange = new Map([...PLAIN].map((letter, k) => [letter, [...STRANGE][k]!]))
/** Every third letter stands twice: a third longer, as other languages are. */
const TWICE = 3

/** Words only: what stands in braces is filled in later. */
function strangely(text: string): string {
  let n = 0
  return [...text]
    .map((letter) => {
      const other = strange.get(letter)
      if (!other) return letter
      n++
      return n % TWICE === 0 ? other + other.toLowerCase() : other
    })
    .join('')
}

/** The words of a count are words: `{days|one:# day|other:# days}`. */
const counted = (slot: string): string =>
  slot.replace(/\|(\w+):([^|}]*)/g, (_, form: string, words: string) => `|${form}:${strangely(words)}`)

/** An English sentence as the language that nobody speaks has it; its figures stay where they are. */
export const pseudoOf = (english: string): string =>
  english
    .split(/(\{[^{}]*\})/)
    .map((piece) => (piece.startsWith('{') ? counted(piece) : strangely(piece)))
    .join('')

const made = new Map<string, string>()

export const pseudo: Language = {
  tag: 'en-XA',
  // Days and months in letters that no English sentence has.
  locale: 'el-GR',
  sentence(key, english) {
    if (english === undefined) return undefined
    const found = made.get(key) ?? pseudoOf(english)
    made.set(key, found)
    return found
  },
}
