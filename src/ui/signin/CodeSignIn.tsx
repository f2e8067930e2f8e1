'use client'
import '@/words/people'
import { Button } from 'antd'
import { useState } from 'react'
import { say } from '@/words/say'
import { ask } from '../device/api'
import { Field, Form } from '../shell/Form'

type Looked = { name: string; email: string; isReset: boolean }
type Props = {
  /** The code as the link brought it, or nothing yet. */
  given: string
  busy: boolean
  attempt(work: () => Promise<unknown>, onDone?: () => void): Promise<void>
}

/** Coming in by a one-time code: first for whom it is, then the password that they choose. */
export function CodeSignIn({ given, busy, attempt }: Props) {
  const [code, setCode] = useState(given)
  const [looked, setLooked] = useState<Looked | null>(null)
  const [password, setPassword] = useState('')
  if (!looked)
    return (
      <Form
        focused
        onSubmit={() =>
          void attempt(
            () => ask<Looked>('/api/code', { code }).then(setLooked),
            () => undefined,
          )
        }
      >
        <Field label={say('code.label')} value={code} onValue={setCode} most={40} testId="code" autoComplete="off" />
        <Button type="primary" htmlType="submit" disabled={busy || code.trim() === ''} data-testid="code-look">
          {say('code.look')}
        </Button>
      </Form>
    )
  const { name, email, isReset } = looked
  return (
    <Form focused onSubmit={() => void attempt(() => ask('/api/code', { code, password }))}>
      <p>{say(isReset ? 'code.reset' : 'code.join', { name, email })}</p>
      <input className="hidden" type="email" autoComplete="username" value={email} readOnly tabIndex={-1} />
      <Field
        label={say('code.password')}
        value={password}
        onValue={setPassword}
        type="password"
        autoComplete="new-password"
        testId="code-password"
      />
      <Button type="primary" htmlType="submit" disabled={busy || password.length < 10} data-testid="code-in">
        {say('code.in')}
      </Button>
    </Form>
  )
}
