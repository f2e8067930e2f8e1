/** What a matter that is looked at before signing is called. */
import '@/words/record'
import type { ReviewItem } from '@/core/evaluation/review'
import { partName, say, sayCode, type WordKey } from './say'

function partsText(parts: ReviewItem['parts']): string {
  const [first, ...rest] = parts
  if (!first) return ''
  return rest.length > 0 ? say('review.parts', { first: partName(first), more: rest.length }) : partName(first)
}

/** What an item is called: its kind, its test, its parts. */
export function reviewTitle({ kind, step, parts }: ReviewItem): string {
  const of = partsText(parts)
  const what = step ? [sayCode('step', `${step.id}.short`), of].filter(Boolean).join(', ') : of
  return say(`review.${kind}` as WordKey, { what, count: parts.length })
}
