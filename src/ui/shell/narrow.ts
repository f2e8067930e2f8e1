'use client'
import { useSyncExternalStore } from 'react'

/** Below this width the run sheet is a drawer and the margin becomes tabs; the style sheets have the same figure. */
const query = '(max-width: 999px)'

function subscribe(listener: () => void): () => void {
  const list = window.matchMedia(query)
  list.addEventListener('change', listener)
  return () => list.removeEventListener('change', listener)
}

/** Whether the screen is narrow: what is not seen there is not drawn either. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    subscribe,
    () => window.matchMedia(query).matches,
    () => false,
  )
}
