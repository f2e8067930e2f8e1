'use client'
import { Modal } from 'antd'
import { useState } from 'react'
import type { Facts } from '@/core/record/facts'
import { coverHash, isNameOf } from '@/core/record/signature'
import { say } from '@/words/say'
import type { JobStore } from '../device/jobStore'
import { Field, Form, Said } from '../shell/Form'
import { DialogActions } from '../shell/ReasonDialog'

/** Signing: the statement, what it covers, and the name as it is to be printed. */
export function SignDialog({
  role,
  name,
  facts,
  store,
  onClose,
}: {
  role: 'tested' | 'checked'
  name: string
  facts: Facts
  store: JobStore
  onClose(): void
}) {
  const [typed, setTyped] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const sign = async (): Promise<void> => {
    const printedName = typed.trim()
    if (printedName.length < 2) return setMessage(say('sign.name-needed'))
    if (!isNameOf(printedName, name)) return setMessage(say('refused.sign-name', { name }))
    const kept = await store.add({
      kind: 'signature',
      v: 1,
      role,
      printedName,
      statement: say(`sign.statement.${role}`),
      coversHash: coverHash(facts.entries),
    })
    if (kept) onClose()
  }
  return (
    <Modal open title={say(`sign.title.${role}`)} onCancel={onClose} footer={null} destroyOnHidden>
      <Form focused onSubmit={() => void sign()}>
        <p>{say(`sign.statement.${role}`)}</p>
        <p className="src">{say('sign.covers', { count: facts.entries.length, name })}</p>
        <Field label={say('sign.name')} value={typed} onValue={setTyped} autoComplete="name" />
        <Said message={message} />
        <DialogActions action={say('sign.sign')} onClose={onClose} />
      </Form>
    </Modal>
  )
}
