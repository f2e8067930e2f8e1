'use client'
import { lazy, Suspense, useState } from 'react'
import { ChevronDown } from './ChevronDown'
import type { LateProps } from './OpenSelect'

// The library's list is large, and on most benches nothing else is chosen: it comes with the first press.
const OpenSelect = lazy(() => import('./OpenSelect').then((module) => ({ default: module.OpenSelect })))

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
