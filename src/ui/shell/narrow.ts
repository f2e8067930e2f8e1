'use client'
import { useSyncExternalStore } from 'react'

/** Below these widths the style sheets change as well, at the same figures. */
const NARROW = '(max-width: 999px)'
const PHONE = '(max-width: 759px)'

function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (listener) => {
      const list = window.matchMedia(query)
      list.addEventListener('change', listener)
      return () => list.removeEventListener('change', listener)
    },
    () => window.matchMedia(query).matches,
    () => false,
  )
}

/** The run sheet is a drawer and the margin becomes tabs: what is not seen there is not drawn either. */
export const useNarrow = (): boolean => useMedia(NARROW)

/** Verdict, keypad and actions stand together at the foot. */
export const usePhone = (): boolean => useMedia(PHONE)
