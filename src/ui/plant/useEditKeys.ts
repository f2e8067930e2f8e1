import { useEffect, useRef } from 'react'

type Edit = { undo(): unknown; redo(): unknown; duplicate(): void; paste(text: string): void }

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Ctrl+Z, Ctrl+Shift+Z, Ctrl+D and Ctrl+V, as everywhere; while something is typed they are the field's own. */
export function useEditKeys(canWrite: boolean, edit: Edit): void {
  const current = useRef(edit)
  current.current = edit
  useEffect(() => {
    if (!canWrite) return
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || isTyping(event.target)) return
      const key = event.key.toLowerCase()
      const action =
        key === 'z'
          ? event.shiftKey
            ? current.current.redo
            : current.current.undo
          : key === 'd'
            ? current.current.duplicate
            : null
      if (!action) return
      event.preventDefault()
      void action()
    }
    const onPaste = (event: ClipboardEvent): void => {
      const text = event.clipboardData?.getData('text/plain') ?? ''
      if (isTyping(event.target) || text.trim() === '') return
      event.preventDefault()
      current.current.paste(text)
    }
    window.addEventListener('keydown', onKey)
    window.addEventListener('paste', onPaste)
    return () => {
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('paste', onPaste)
    }
  }, [canWrite])
}
