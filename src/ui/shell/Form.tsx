'use client'
import { Form as AntForm, Checkbox, Input, Select } from 'antd'
import { type InputHTMLAttributes, type ReactNode, useEffect, useId, useRef } from 'react'

const FOCUS_AFTER_ms = 60
/** From so many on the list is found by typing. */
const MANY = 8

/** What every form is made of: fields with their sentence, choices, and what stands in the way. */
export function Form({
  onSubmit,
  children,
  focused = false,
}: {
  onSubmit(): void
  children: ReactNode
  focused?: boolean
}) {
  const form = useRef<HTMLDivElement>(null)
  // A dialog first puts the focus on its own way out; the first field is where one wants to type.
  useEffect(() => {
    if (!focused) return
    const timer = setTimeout(() => {
      // Whoever types in it already goes on where they are.
      if (form.current?.contains(document.activeElement)) return
      form.current?.querySelector<HTMLElement>('input, textarea')?.focus()
    }, FOCUS_AFTER_ms)
    return () => clearTimeout(timer)
  }, [focused])
  return (
    <div ref={form}>
      <AntForm layout="vertical" className="form" onFinish={onSubmit}>
        {children}
      </AntForm>
    </div>
  )
}

/** The sentence that says what is wrong and what to do; nothing where there is none. */
export function Said({ message }: { message: string | null }) {
  if (!message) return null
  return (
    <p className="said bad" role="alert">
      {message}
    </p>
  )
}

type LabelledProps = { label: string; message?: string | null; children(id: string): ReactNode }

/** A field under its name, with the sentence that says what is wrong with it. */
export function Labelled({ label, message, children }: LabelledProps) {
  const id = useId()
  return (
    <AntForm.Item
      layout="vertical"
      label={label}
      htmlFor={id}
      validateStatus={message ? 'error' : ''}
      help={message || undefined}
    >
      {children(id)}
    </AntForm.Item>
  )
}

type FieldProps = {
  label: string
  value: string
  onValue(value: string): void
  message?: string | null
  mode?: InputHTMLAttributes<HTMLInputElement>['inputMode']
  type?: string
  autoComplete?: string
  most?: number
  testId?: string
  /** What stands in the field until something is typed. */
  hint?: string
}

export function Field({ label, value, onValue, message, mode, type, autoComplete, most, testId, hint }: FieldProps) {
  const Box = type === 'password' ? Input.Password : Input
  return (
    <Labelled label={label} message={message ?? null}>
      {(id) => (
        <Box
          id={id}
          type={type}
          value={value}
          inputMode={mode}
          autoComplete={autoComplete}
          placeholder={hint}
          maxLength={most}
          aria-invalid={message ? true : undefined}
          data-testid={testId}
          onChange={(event) => onValue(event.target.value)}
        />
      )}
    </Labelled>
  )
}

type WordsProps = { label: string; value: string; onValue(value: string): void; most?: number }

/** A field for a sentence or two. */
export function Words({ label, value, onValue, most }: WordsProps) {
  return (
    <Labelled label={label}>
      {(id) => (
        <Input.TextArea
          id={id}
          rows={3}
          value={value}
          maxLength={most}
          onChange={(event) => onValue(event.target.value)}
        />
      )}
    </Labelled>
  )
}

type ChoiceProps<T extends string> = {
  label: string
  value: T
  options: readonly { value: T; text: string }[]
  onValue(value: T): void
  testId?: string
}

export function Choice<T extends string>({ label, value, options, onValue, testId }: ChoiceProps<T>) {
  return (
    <Labelled label={label}>
      {(id) => (
        <Select<T>
          id={id}
          value={value}
          onChange={onValue}
          showSearch={options.length >= MANY && { optionFilterProp: 'label' }}
          options={options.map((one) => ({ value: one.value, label: one.text }))}
          data-testid={testId}
        />
      )}
    </Labelled>
  )
}

type TicksProps = {
  label: string
  value: readonly string[]
  options: readonly { value: string; text: ReactNode }[]
  onValue(value: string[]): void
}

/** Any number out of a few. */
export function Ticks({ label, value, options, onValue }: TicksProps) {
  return (
    <AntForm.Item layout="vertical" label={label}>
      <Checkbox.Group
        role="group"
        aria-label={label}
        className="ticks"
        value={[...value]}
        onChange={onValue}
        options={options.map((one) => ({ value: one.value, label: one.text }))}
      />
    </AntForm.Item>
  )
}
