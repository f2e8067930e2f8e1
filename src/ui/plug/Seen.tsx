'use client'
import { useEffect, useMemo, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Part, PartData } from '@/core/plant/part'
import type { Seen as SeenData } from '@/standin/plugAdapter'
import { say, sayCode } from '@/words/say'
import { remediesOf } from '../run/pressSimulated'

type Point = Part<Extract<PartData, { kind: 'charge-point' }>>
type Props = { evaluation: Evaluation; one: StepEvaluation; slot: string }

/** What somebody in front of a simulated point sees, where a question is for their own eyes. */
export function Seen({ evaluation, one, slot }: Props) {
  const [seen, setSeen] = useState<SeenData | null>(null)
  const { part, step } = one
  const mended = useMemo(() => remediesOf(evaluation), [evaluation])
  useEffect(() => {
    let gone = false
    setSeen(null)
    void import('@/standin/plugAdapter').then(({ seenAt }) => {
      if (!gone) setSeen(seenAt(part as Point, mended, step.id, slot))
    })
    return () => {
      gone = true
    }
  }, [part, mended, step.id, slot])
  if (!seen) return null
  return (
    <p className="plug-seen" role="status" data-testid="seen">
      {sentenceOf(seen)}
    </p>
  )
}

function sentenceOf(seen: SeenData): string {
  switch (seen.what) {
    case 'shows':
      return seen.words === ''
        ? say('seen.shows-nothing')
        : say(seen.after_s === null ? 'seen.shows' : 'seen.shows-after', {
            words: seen.words,
            means: sayCode('choice', `shows-${seen.shown}`),
            after_s: seen.after_s ?? 0,
          })
    case 'plug':
      return say(seen.held ? 'seen.plug-held' : 'seen.plug-free')
    case 'lamp':
      return say(seen.lit ? 'seen.lamp' : 'seen.no-lamp')
    case 'again':
      return say(seen.tries ? 'seen.tries' : 'seen.stays')
    case 'pen':
      return say(seen.opens === 'all' ? 'seen.pen-all' : 'seen.pen-live-only')
    case 'clock':
      return say(seen.right ? 'seen.clock-right' : 'seen.clock-wrong')
  }
}
