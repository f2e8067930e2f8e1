import { type RefObject, useLayoutEffect, useState } from 'react'

/** How large an element is, as long as it is there. */
export function useSize(ref: RefObject<HTMLElement | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 })
  // Measured before it is painted: what is drawn by its size does not jump away under a finger.
  useLayoutEffect(() => {
    const element = ref.current
    if (!element) return
    const measure = (): void => {
      const { clientWidth: width, clientHeight: height } = element
      setSize((before) => (before.width === width && before.height === height ? before : { width, height }))
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [ref])
  return size
}
