/** Questions of whoever checks to whoever tested, each with its answer: a test sent back is seen until it is answered. */
import { correctedTime } from '../record/order'
import { type EntryIndex, ofKind } from './entryIndex'

export type Question = {
  entryId: string
  step: string
  partId: string
  text: string
  personId: string
  /** Corrected device time, ms since 1970. */
  at: number
  /** The last answer that stands; null while nobody gave one. */
  answer: { text: string; personId: string; at: number } | null
}

/** Every question that was not taken back, in the order in which they were asked. */
export function questionsOf(index: EntryIndex): Question[] {
  const questions = new Map<string, Question>()
  for (const entry of ofKind(index, 'question')) {
    const { step, partId, personId } = entry
    if (index.voids.has(entry.id) || !step || !partId) continue
    questions.set(entry.id, {
      entryId: entry.id,
      step,
      partId,
      text: entry.body.text,
      personId,
      at: correctedTime(entry),
      answer: null,
    })
  }
  for (const entry of ofKind(index, 'answer')) {
    const asked = questions.get(entry.body.question)
    if (!asked || index.voids.has(entry.id)) continue
    const answer = { text: entry.body.text, personId: entry.personId, at: correctedTime(entry) }
    questions.set(asked.entryId, { ...asked, answer })
  }
  return [...questions.values()]
}
