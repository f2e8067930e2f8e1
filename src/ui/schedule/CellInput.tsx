'use client'
import { useEffect, useRef, useState } from 'react'

type Props = {
  name: string
  text: string
  /** No keys of the device where the screen has its own. */
  mode: 'decimal' | 'text' | 'none'
  readOnly: boolean
  /** Whether it is the one that somebody is in. */
  here: boolean
  onText(typed: string): void
  onFocus?(): void
}

/** The pen in a cell. What is typed stays as it is until it means something; what an instrument shows replaces it. */
export function CellInput({ name, text, mode, readOnly, here, onText, onFocus }: Props) {
  const [typed, setTyped] = useState(text)
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => {
    setTyped(text)
    // An answer stands there in words: the next key begins anew.
    if (mode === 'text' && document.activeElement === input.current)
      requestAnimationFrame(() => input.current?.select())
  }, [text, mode])
  useEffect(() => {
    if (!here) return
    input.current?.focus({ preventScroll: true })
    input.current?.select()
  }, [here])
  return (
    <input
      ref={input}
      aria-label={name}
      value={typed}
      readOnly={readOnly}
      inputMode={mode}
      autoComplete="off"
      tabIndex={here ? 0 : -1}
      onFocus={onFocus}
      onChange={(event) => {
        setTyped(event.target.value)
        onText(event.target.value)
      }}
    />
  )
}
