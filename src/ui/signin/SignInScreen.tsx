'use client'
import '@/words/signin'
import { Button } from 'antd'
import { useEffect, useState } from 'react'
import { say, type WordKey } from '@/words/say'
import { Answered, ask } from '../device/api'
import { Field, Form, Said } from '../shell/Form'
import { CodeSignIn } from './CodeSignIn'
import { Logo, ThemeSwitch } from '../shell/Strip'

type Person = { id: string; name: string; role: string }

const afterwards = (): string => {
  const then = new URLSearchParams(window.location.search).get('then') ?? '/'
  // Only a place of this application, as the browser itself will read it: another site must not be able to send people on.
  try {
    const { origin, pathname, search, hash } = new URL(then, window.location.origin)
    return origin === window.location.origin ? pathname + search + hash : '/'
  } catch {
    return '/'
  }
}

export function SignInScreen() {
  const [demo, setDemo] = useState<Person[] | null>(null)
  const [first, setFirst] = useState(false)
  const [message, setMessage] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  /** The code that a link brought, or that somebody wants to type; null where one signs in as ever. */
  const [code, setCode] = useState<string | null>(null)

  useEffect(() => {
    const brought = /^#code=([\w-]{1,40})$/.exec(window.location.hash)?.[1]
    if (brought) setCode(brought)
    void ask<Person[]>('/api/demo/people').then(setDemo, () => setDemo([]))
    void ask<{ waiting: boolean }>('/api/first').then(
      (answer) => setFirst(answer.waiting),
      () => undefined,
    )
  }, [])

  const attempt = async (
    work: () => Promise<unknown>,
    onDone: () => void = () => window.location.assign(afterwards()),
  ): Promise<void> => {
    setBusy(true)
    setMessage(null)
    try {
      await work()
      setBusy(false)
      onDone()
    } catch (error) {
      setMessage(
        error instanceof Answered
          ? error.status === 401
            ? say('door.bad-credentials')
            : error.message
          : say('signin.no-reception'),
      )
      setBusy(false)
    }
  }

  return (
    <main className="center-page">
      <div className="signin">
        <div style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', gap: 12 }}>
          <h1 style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
            <Logo /> Upstand
          </h1>
          <div style={{ display: 'flex', border: 'var(--hl) solid var(--hair)' }}>
            <ThemeSwitch />
          </div>
        </div>
        <p>{say('signin.about')}</p>
        <Said message={message} />
        {first ? (
          <FirstPerson busy={busy} attempt={attempt} />
        ) : code !== null ? (
          <>
            <CodeSignIn given={code} busy={busy} attempt={attempt} />
            <Button type="link" onClick={() => setCode(null)}>
              {say('code.back')}
            </Button>
          </>
        ) : (
          <>
            {demo && demo.length > 0 && (
              <section style={{ display: 'grid', gap: 8 }} aria-label={say('signin.demo')}>
                <p className="small quiet">{say('signin.demo')}</p>
                {demo.map((person) => (
                  <button
                    type="button"
                    key={person.id}
                    className="person"
                    disabled={busy}
                    onClick={() => void attempt(() => ask('/api/demo/sign-in', { id: person.id }))}
                  >
                    {person.name}
                    <small>{say(`role.${person.role}` as WordKey)}</small>
                  </button>
                ))}
              </section>
            )}
            <EmailSignIn busy={busy} attempt={attempt} />
            <Button type="link" onClick={() => setCode('')} data-testid="have-code">
              {say('code.have')}
            </Button>
          </>
        )}
      </div>
    </main>
  )
}

type FormProps = { busy: boolean; attempt(work: () => Promise<unknown>, onDone?: () => void): Promise<void> }

function EmailSignIn({ busy, attempt }: FormProps) {
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  return (
    <Form onSubmit={() => void attempt(() => ask('/api/auth/sign-in/email', { email, password }))}>
      <Field label={say('signin.email')} value={email} onValue={setEmail} type="email" autoComplete="username" />
      <Field
        label={say('signin.password')}
        value={password}
        onValue={setPassword}
        type="password"
        autoComplete="current-password"
      />
      <Button htmlType="submit" disabled={busy}>
        {say('signin.in')}
      </Button>
    </Form>
  )
}

function FirstPerson({ busy, attempt }: FormProps) {
  const [values, setValues] = useState({ code: '', company: '', name: '', email: '', password: '' })
  const field = (key: keyof typeof values, type?: string) => (
    <Field
      label={say(`first.${key}`)}
      value={values[key]}
      type={type}
      onValue={(value) => setValues((before) => ({ ...before, [key]: value }))}
    />
  )
  return (
    <Form onSubmit={() => void attempt(() => ask('/api/first', values))}>
      <p>{say('first.about')}</p>
      {field('code')}
      {field('company')}
      {field('name')}
      {field('email', 'email')}
      {field('password', 'password')}
      <Button type="primary" htmlType="submit" disabled={busy}>
        {say('first.begin')}
      </Button>
    </Form>
  )
}
