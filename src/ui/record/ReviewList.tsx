'use client'
import { Checkbox, Input } from 'antd'
import type { ReviewItem } from '@/core/evaluation/review'
import { LEAST_WORDS } from '@/core/steps/slot'
import { reviewTitle } from '@/words/review'
import { say, sayFinding } from '@/words/say'
import { Mark } from '../mark/Mark'

/** What was said of each, by its id; what is only seen is said in no words. */
export type Said = Readonly<Record<string, string>>

const MARKS = {
  danger: 'outside',
  unclassed: 'not-yet',
  outside: 'outside',
  snag: 'outside',
  question: 'close',
  open: 'not-yet',
  overridden: 'close',
  'out-of-calibration': 'close',
  'asked-and-kept': 'close',
  close: 'close',
  'left-out': 'left-out',
  simulated: 'close',
  missing: 'not-yet',
  'strange-day': 'close',
} as const

/** The first item that still wants words or a look, as the sentence that says so; null where nothing does. */
export function unreviewed(items: readonly ReviewItem[], said: Said): string | null {
  for (const one of items) {
    const text = said[one.id]
    if (one.wantsWords ? (text ?? '').trim().length < LEAST_WORDS : text === undefined)
      return say(one.wantsWords ? 'review.wanted' : 'review.unseen', { what: reviewTitle(one) })
  }
  return null
}

type Props = {
  items: readonly ReviewItem[]
  said: Said
  onSaid(said: Said): void
  /** What another person said of an item when they signed. */
  before: (id: string) => { who: string; text: string } | null
  hrefOf(item: ReviewItem): string | null
}

/** Everything that is not plainly within, one after the other: grave matters want words, the others a look. */
export function ReviewList({ items, said, onSaid, before, hrefOf }: Props) {
  if (items.length === 0) return <p className="small">{say('review.nothing')}</p>
  return (
    <ul className="review" data-testid="review">
      {items.map((one) => {
        const href = hrefOf(one)
        const other = before(one.id)
        const { [one.id]: text, ...rest } = said
        return (
          <li key={one.id} data-review={one.id}>
            <Mark verdict={MARKS[one.kind]} size={20} named={false} />
            <div>
              <b>{reviewTitle(one)}</b> {href && <a href={href}>{say('review.look')}</a>}
              {one.finding && <p className="small">{sayFinding(one.finding)}</p>}
              {one.reasons.map((reason) => (
                <p key={reason} className="small quiet">
                  “{reason}”
                </p>
              ))}
              {other && <p className="small quiet">{say('review.said-before', other)}</p>}
              {one.wantsWords ? (
                <Input
                  value={text ?? ''}
                  maxLength={500}
                  placeholder={say('review.words')}
                  aria-label={say('review.words')}
                  onChange={(event) => onSaid({ ...said, [one.id]: event.target.value })}
                />
              ) : (
                <Checkbox
                  checked={text !== undefined}
                  onChange={(event) => onSaid(event.target.checked ? { ...said, [one.id]: '' } : rest)}
                >
                  {say('review.seen')}
                </Checkbox>
              )}
            </div>
          </li>
        )
      })}
    </ul>
  )
}
