'use client'
import { Modal } from 'antd'
import { useMemo, useState } from 'react'
import { type ReviewItem, reviewOf } from '@/core/evaluation/review'
import type { Evaluation } from '@/core/evaluation/types'
import type { Facts } from '@/core/record/facts'
import { coverHash, isNameOf } from '@/core/record/signature'
import { say } from '@/words/say'
import type { JobStore } from '../device/jobStore'
import { Field, Form, Said } from '../shell/Form'
import { DialogActions } from '../shell/ReasonDialog'
import { addressOf } from '../shell/route'
import { dayOf } from '../shell/time'
import { ReviewList, type Said as Words, unreviewed } from './ReviewList'

type Props = {
  role: 'tested' | 'checked'
  name: string
  facts: Facts
  evaluation: Evaluation
  store: JobStore
  onClose(): void
}

/** Where an item is looked at: its test on the bench, or the plant. */
const hrefIn =
  (jobId: string) =>
  ({ kind, step, parts }: ReviewItem): string | null => {
    const [part] = parts
    if (step && part) return addressOf({ jobId, view: 'run', step: step.id, partId: part.id })
    const onPlant = kind === 'missing' || kind === 'strange-day'
    return onPlant ? addressOf({ jobId, view: 'plant', step: null, partId: part?.id ?? null }) : null
  }

/** What was said so far, while somebody goes and looks at what it is about. */
const begun = new Map<string, Words>()

/** Signing: what is not plainly within, the statement, what it covers, and the name as it is to be printed. */
export function SignDialog({ role, name, facts, evaluation, store, onClose }: Props) {
  const items = useMemo(
    () => reviewOf(evaluation, (at) => dayOf(at, facts.job.timeZone)),
    [evaluation, facts.job.timeZone],
  )
  // Whoever signs anew finds the words that they said of the same matter before.
  const key = `${store.jobId} ${role} ${store.me.id}`
  const [words, setWords] = useState<Words>(() => {
    const waiting = begun.get(key)
    if (waiting) return waiting
    const before = evaluation.signatures.find((one) => one.role === role && one.personId === store.me.id)
    return Object.fromEntries(
      (before?.review ?? []).filter(({ text }) => text !== '').map(({ of, text }) => [of, text]),
    )
  })
  const [typed, setTyped] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const other = evaluation.signatures.find((one) => one.role !== role)
  const saidBefore = (id: string): { who: string; text: string } | null => {
    const text = other?.review.find(({ of }) => of === id)?.text
    return other && text ? { who: other.printedName, text } : null
  }
  const sign = async (): Promise<void> => {
    const open = unreviewed(items, words)
    if (open) return setMessage(open)
    const printedName = typed.trim()
    if (printedName.length < 2) return setMessage(say('sign.name-needed'))
    if (!isNameOf(printedName, name)) return setMessage(say('refused.sign-name', { name }))
    const review = items.map(({ id }) => ({ of: id, text: (words[id] ?? '').trim() }))
    const kept = await store.add({
      kind: 'signature',
      v: 1,
      role,
      printedName,
      statement: say(`sign.statement.${role}`),
      coversHash: coverHash(facts.entries),
      ...(review.length > 0 ? { review } : {}),
    })
    if (!kept) return
    begun.delete(key)
    onClose()
  }
  return (
    <Modal open width={680} title={say(`sign.title.${role}`)} onCancel={onClose} footer={null} destroyOnHidden>
      <Form onSubmit={() => void sign()}>
        <h3>{say('review.title')}</h3>
        <ReviewList
          items={items}
          said={words}
          onSaid={(next) => {
            setMessage(null)
            begun.set(key, next)
            setWords(next)
          }}
          before={saidBefore}
          hrefOf={hrefIn(facts.job.id)}
        />
        <p>{say(`sign.statement.${role}`)}</p>
        <p className="src">{say('sign.covers', { count: facts.entries.length, name })}</p>
        <Field label={say('sign.name')} value={typed} onValue={setTyped} autoComplete="name" testId="sign-name" />
        <Said message={message} />
        <DialogActions action={say('sign.sign')} onClose={onClose} />
      </Form>
    </Modal>
  )
}
