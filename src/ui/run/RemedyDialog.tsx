'use client'
import '@/words/dialogs'
import { Modal } from 'antd'
import { useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { isRead } from '@/core/steps/step'
import { partName, say, sayCode } from '@/words/say'
import { Form, Said, Ticks, Words } from '../shell/Form'
import { DialogActions } from '../shell/ReasonDialog'

type Props = {
  evaluation: Evaluation
  one: StepEvaluation
  onClose(): void
  onKeep(text: string, repeat: string[]): void
}

const LEAST_WORDS = 3

/** What was done about a snag, and which readings of the part it may have changed: those are asked for again. */
export function RemedyDialog({ evaluation, one, onClose, onKeep }: Props) {
  const others = evaluation.steps.filter((other) => other.part === one.part && other !== one && other.counting !== null)
  const [text, setText] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const [repeat, setRepeat] = useState<readonly string[]>(() => {
    // What putting this right may have changed is said by the step; nothing else is asked for again.
    const touched = isRead(one.step) ? (one.step.mendingTouches ?? []) : []
    return others.map((other) => other.step.id).filter((id) => touched.includes(id))
  })
  const keep = (): void => {
    if (text.trim().length < LEAST_WORDS) return setMessage(say('reason.few-words'))
    onKeep(text.trim(), [one.step.id, ...repeat])
  }
  return (
    <Modal
      open
      title={say('remedy.title', { part: partName(one.part) })}
      onCancel={onClose}
      footer={null}
      destroyOnHidden
    >
      <Form focused onSubmit={keep}>
        <p>{say('remedy.about')}</p>
        <Words label={say('remedy.label')} value={text} onValue={setText} />
        {others.length > 0 && (
          <Ticks
            label={say('remedy.again')}
            value={repeat}
            onValue={setRepeat}
            options={others.map(({ step }) => ({ value: step.id, text: sayCode('step', `${step.id}.short`) }))}
          />
        )}
        <Said message={message} />
        <DialogActions action={say('remedy.action')} onClose={onClose} />
      </Form>
    </Modal>
  )
}
