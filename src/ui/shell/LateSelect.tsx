'use client'
import { lazy, Suspense, useState } from 'react'
import { ChevronDown } from './ChevronDown'

// The library's list is large, and on most benches nothing else is chosen: it comes with the first press.
const OpenSelect = lazy(() => import('./OpenSelect').then((module) => ({ default: module.OpenSelect })))

export type LateProps = {
  id: string
  /** Where no label of its own names it. */
  label?: string | undefined
  value: string | null
  options: readonly { value: string; text: string }[]
  onValue(value: string): void
  testId: string
}

/** One of a few, as it stands; the list of all comes when it is pressed. */
export function LateSelect({ disabled, ...list }: LateProps & { disabled: boolean }) {
  const [pressed, setPressed] = useState(false)
  const { id, label, value, options, testId } = list
  const shown = (
    <button
      type="button"
      id={id}
      className="late-select"
      aria-haspopup="listbox"
      aria-label={label}
      disabled={disabled}
      onClick={() => setPressed(true)}
      data-testid={testId}
    >
      <span>{options.find((one) => one.value === value)?.text ?? ''}</span>
      <ChevronDown />
    </button>
  )
  if (!pressed || disabled) return shown
  return (
    <Suspense fallback={shown}>
      <OpenSelect {...list} />
    </Suspense>
  )
}
