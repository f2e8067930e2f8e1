'use client'
import { useEffect, useRef } from 'react'

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
      const answered = document.querySelector('.bench .slot:focus-within') ?? document.querySelector('.bench .row.next')
      answered?.scrollIntoView({ block: 'nearest' })
    })
    observer.observe(one)
    return () => {
      observer.disconnect()
      root.style.removeProperty('--dock')
    }
  }, [])
  return dock
}
