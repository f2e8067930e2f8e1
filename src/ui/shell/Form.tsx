'use client'
import { type ReactNode, useEffect, useRef } from 'react'

const FOCUS_AFTER_ms = 60

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
  const form = useRef<HTMLFormElement>(null)
  // A dialog first puts the focus on its own way out; the first field is where one wants to type.
  useEffect(() => {
    if (!focused) return
    const timer = setTimeout(() => {
      // Whoever types in it already goes on where they are.
      if (form.current?.contains(document.activeElement)) return
      form.current?.querySelector<HTMLElement>('input, select, textarea')?.focus()
    }, FOCUS_AFTER_ms)
    return () => clearTimeout(timer)
  }, [focused])
  return (
    <form
      ref={form}
      className="form"
      onSubmit={(event) => {
        event.preventDefault()
        onSubmit()
      }}
    >
      {children}
    </form>
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

type FieldProps = {
  label: string
  value: string
  onValue(value: string): void
  message?: string | null
  mode?: 'text' | 'decimal' | 'numeric'
  type?: string
  autoComplete?: string
  most?: number
  testId?: string
}

export function Field({ label, value, onValue, message, mode, type, autoComplete, most, testId }: FieldProps) {
  return (
    <label className="field">
      <span>{label}</span>
      <input
        className="box"
        type={type}
        value={value}
        inputMode={mode}
        autoComplete={autoComplete}
        maxLength={most}
        aria-invalid={message ? true : undefined}
        data-testid={testId}
        onChange={(event) => onValue(event.target.value)}
      />
      {message && <span className="bad">{message}</span>}
    </label>
  )
}

type ChoiceProps<T extends string> = {
  label: string
  value: T
  options: readonly { value: T; text: string }[]
  onValue(value: T): void
}

export function Choice<T extends string>({ label, value, options, onValue }: ChoiceProps<T>) {
  return (
    <label className="field">
      <span>{label}</span>
      <select className="box" value={value} onChange={(event) => onValue(event.target.value as T)}>
        {options.map((one) => (
          <option key={one.value} value={one.value}>
            {one.text}
          </option>
        ))}
      </select>
    </label>
  )
}
