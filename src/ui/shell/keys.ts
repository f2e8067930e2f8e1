'use client'
import { useEffect, useRef } from 'react'

/** Said by a key which only brought the focus to a field: what was pressed is typed there. */
export const TYPED = 'typed'
/** Keys by name: `Enter`, `/`, `r`. Single letters are off while a field has focus, except with Alt. */
export type KeyMap = Partial<Record<string, () => unknown>>

const OFF = 'upstand.letters-off'
export const lettersOff = (): boolean => typeof localStorage !== 'undefined' && localStorage.getItem(OFF) === 'yes'
export function setLettersOff(off: boolean): void {
  if (off) localStorage.setItem(OFF, 'yes')
  else localStorage.removeItem(OFF)
}

const isField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)) &&
  (target as HTMLInputElement).type !== 'checkbox'
const isOpenDialog = (): boolean => document.querySelector('[role=dialog]') !== null

export function useKeys(keys: KeyMap): void {
  const current = useRef(keys)
  current.current = keys
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || isOpenDialog()) return
      const name = event.key.length === 1 ? event.key.toLowerCase() : event.key
      const action = current.current[name]
      if (!action) return
      const target = event.target
      if (name === 'Enter') {
        // Enter on a button is that button's own; in a reading slot it is the main action.
        const own = target instanceof HTMLElement && target.closest('button, a, [role=button], textarea, select')
        if (own || (isField(target) && !(target as HTMLElement).dataset.mainKey)) return
      } else if (name.length === 1) {
        if (isField(target) && !event.altKey) return
        if (lettersOff() && /[a-z]/.test(name)) return
      }
      if (action() !== TYPED) event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
