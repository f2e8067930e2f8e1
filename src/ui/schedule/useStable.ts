import { useRef } from 'react'

/** The value as it was first, as long as it comes out the same: what hangs on it is not drawn again. */
export function useStable<T>(value: T, isSame: (a: T, b: T) => boolean): T {
  const kept = useRef(value)
  if (!isSame(kept.current, value)) kept.current = value
  return kept.current
}
