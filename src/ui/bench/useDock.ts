'use client'
import { useEffect, useRef } from 'react'

/** What somebody attends to: a question, the field that is typed into, the line that is next, a figure that was kept. */
const ATTENDED = ['.bench .ask', '.bench .slot:focus-within', '.bench .row.next', '.bench[data-kept] .slot']

/** A reference that brings what comes up into sight. */
export const intoSight = (one: Element | null): void => one?.scrollIntoView({ block: 'nearest' })

/**
 * The foot of the bench lies over the end of what scrolls. How high it is stands in `--dock` for the style sheets, and what
 * is being answered comes out from under it when it grows.
 */
export function useDock() {
  const dock = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const one = dock.current
    if (!one) return
    const root = document.documentElement
    const observer = new ResizeObserver(() => {
      const grows = one.offsetHeight > Number.parseFloat(root.style.getPropertyValue('--dock') || '0')
      root.style.setProperty('--dock', `${one.offsetHeight}px`)
      if (!grows) return
      ATTENDED.map((selector) => document.querySelector(selector))
        .find((found) => found !== null)
        ?.scrollIntoView({ block: 'nearest' })
    })
    observer.observe(one)
    return () => {
      observer.disconnect()
      root.style.removeProperty('--dock')
    }
  }, [])
  return dock
}
