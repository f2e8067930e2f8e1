'use client'
import { Button, Modal } from 'antd'
import { useState } from 'react'
import { LONGEST_NOTE } from '@/core/record/entry'
import { say } from '@/words/say'
import { Form, Said, Words } from './Form'

type Props = {
  title: string
  about: string
  label: string
  action: string
  /** Reasons that are usual here: one press says one. */
  ready?: readonly string[]
  onClose(): void
  onKeep(text: string): void
}

const LEAST = 3

/** Asks for a few words: a reason, or a note. They are kept with the name of whoever gives them. */
export function ReasonDialog({ title, about, label, action, ready = [], onClose, onKeep }: Props) {
  const [text, setText] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const keep = (): void => {
    const said = text.trim()
    if (said.length < LEAST) return setMessage(say('reason.few-words'))
    if (said.length > LONGEST_NOTE) return setMessage(say('refused.note-too-long', { length: said.length }))
    onKeep(said)
  }
  return (
    <Modal open title={title} onCancel={onClose} footer={null} destroyOnHidden>
      <Form focused onSubmit={keep}>
        <p>{about}</p>
        {ready.map((reason) => (
          <Button key={reason} block onClick={() => onKeep(reason)} data-testid="ready-reason">
            {reason}
          </Button>
        ))}
        <Words label={label} value={text} onValue={setText} />
        <Said message={message} />
        <DialogActions action={action} onClose={onClose} />
      </Form>
    </Modal>
  )
}

/** The one main action of a dialog, and the way out. */
export function DialogActions({
  action,
  onClose,
  children,
}: {
  action: string
  onClose(): void
  children?: React.ReactNode
}) {
  return (
    <div className="acts">
      <Button type="primary" htmlType="submit">
        {action}
      </Button>
      {children}
      <Button onClick={onClose}>{say('action.close')}</Button>
    </div>
  )
}
