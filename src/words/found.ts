/** What was found in a periodic inspection, as it is said on screens and in print. */
import type { Fitness, Found } from '@/core/evaluation/found'
import { type FoundClass, foundClasses } from '@/core/record/entry'
import { found as en } from './en/found'
import { addWords, say, sayCode, sayFinding } from './say'

addWords(en)

/** The matter itself: a line of a list with what stands beside it, somebody's words, or the finding. */
export function foundText({ line, text, finding }: Pick<Found, 'line' | 'text' | 'finding'>): string {
  if (line !== null) return [sayCode('slot', line), text].filter(Boolean).join(': ')
  return text ?? (finding ? sayFinding(finding) : '')
}

/** How grave it is; where the rules are the national ones with the letters that their report wants. */
export function classText(as: FoundClass | null, marked: boolean): string {
  if (as === null) return say('found.unclassed')
  const own = say(`found.as.${as}`)
  return marked ? say('found.marked', { as: own, mark: say(`found.mark.${as}`) }) : own
}

/** Whether it may go on in use, and how many of each class there are. */
export function fitnessText({ state, counts, unclassed }: Fitness, marked: boolean): string {
  const all = foundClasses.flatMap((as) =>
    counts[as] > 0 ? say('fitness.count', { count: counts[as], as: classText(as, marked) }) : [],
  )
  if (unclassed > 0) all.push(say('fitness.count', { count: unclassed, as: classText(null, marked) }))
  return [say(`fitness.${state}`), all.length > 0 ? `${all.join('; ')}.` : ''].filter(Boolean).join(' ')
}
