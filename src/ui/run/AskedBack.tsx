'use client'
import '@/words/asked'
import { Button } from 'antd'
import { lazy, Suspense, useState } from 'react'
import type { Question } from '@/core/evaluation/questions'
import type { Facts } from '@/core/record/facts'
import { say } from '@/words/say'
import type { JobStore } from '../device/jobStore'
import { moment } from '../shell/time'

const ReasonDialog = lazy(() => import('../shell/ReasonDialog').then((module) => ({ default: module.ReasonDialog })))

type Props = {
  /** Of this test of this part. */
  questions: readonly Question[]
  facts: Facts
  store: Pick<JobStore, 'add' | 'officeTime'>
  canWrite: boolean
  about: { partId: string; step: string }
  /** Whoever checks may ask; as it is called, else null. */
  mayAsk: string | null
}

/** What was asked back about a test, at the test, with the way to answer it; whoever checks asks here. */
export function AskedBack({ questions, facts, store, canWrite, about, mayAsk }: Props) {
  const [answering, setAnswering] = useState<Question | null>(null)
  const [asking, setAsking] = useState(false)
  const nameOf = (id: string): string => facts.people.find((one) => one.id === id)?.name ?? ''
  const answer = (text: string): void => {
    if (answering) void store.add({ kind: 'answer', v: 1, question: answering.entryId, text }, about)
    setAnswering(null)
  }
  const ask = (text: string): void => {
    void store.add({ kind: 'question', v: 1, text }, about)
    setAsking(false)
  }
  return (
    <div className="sent-back" data-testid="asked">
      {questions.map((one) => (
        <div key={one.entryId} className={one.answer ? 'said' : 'ask'}>
          <p>
            {say('asked.by', {
              who: nameOf(one.personId),
              day: moment(one.at, facts.job.timeZone, store.officeTime()),
              text: one.text,
            })}
          </p>
          {one.answer && (
            <p className="quiet">
              {say('asked.answered', { who: nameOf(one.answer.personId), text: one.answer.text })}
            </p>
          )}
          {canWrite && !one.answer && (
            <Button className="small" onClick={() => setAnswering(one)} data-testid="answer">
              {say('asked.answer')}
            </Button>
          )}
        </div>
      ))}
      {canWrite && mayAsk !== null && (
        <Button className="small" onClick={() => setAsking(true)} data-testid="ask-back">
          {say('asked.ask')}
        </Button>
      )}
      <Suspense>
        {answering && (
          <ReasonDialog
            title={say('asked.answer-title', { who: nameOf(answering.personId) })}
            about={answering.text}
            label={say('asked.answer-label')}
            action={say('asked.answer')}
            onClose={() => setAnswering(null)}
            onKeep={answer}
          />
        )}
        {asking && (
          <ReasonDialog
            title={say('asked.ask-title', { step: mayAsk ?? '' })}
            about={say('asked.ask-about')}
            label={say('asked.ask-label')}
            action={say('asked.ask')}
            onClose={() => setAsking(false)}
            onKeep={ask}
          />
        )}
      </Suspense>
    </div>
  )
}
