'use client'
import { say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'
import { addressOf } from '../shell/route'

export type Matter = {
  job: { id: string; number: string; name: string }
  /** The test that it is about, of which part; null where it is about the whole. */
  stepId: string | null
  partId: string | null
  tag: string
  text: string
}

type Props = {
  id: string
  title: string
  matters: readonly Matter[]
  /** It is dangerous: marked so, and said what to do. */
  grave?: string
}

/** What waits at tests of whatever job, each one press away; nothing where nothing waits. */
export function Matters({ id, title, matters, grave }: Props) {
  if (matters.length === 0) return null
  return (
    <section className="note" data-testid={id}>
      <h2>
        {title} <span>{say('today.count', { count: matters.length })}</span>
      </h2>
      {matters.map(({ job, stepId, partId, tag, text }) => (
        <div className="ins" key={`${job.id} ${stepId} ${partId} ${text}`}>
          {grave && <Mark verdict="outside" size={20} named={false} />}{' '}
          <a href={addressOf({ jobId: job.id, view: stepId ? 'run' : 'record', step: stepId, partId })}>
            {job.number} {stepId ? sayCode('step', `${stepId}.title`, { tag }) : job.name}
          </a>
          {text && <p className="src">“{text}”</p>}
        </div>
      ))}
      {grave && <p className="src">{grave}</p>}
    </section>
  )
}
