'use client'
import { type ReactNode, useEffect } from 'react'
import { Theme } from '../theme/Theme'

/** What surrounds every screen: the theme, and the worker that keeps the application on the device. */
export function Frame({ children }: { children: ReactNode }) {
  useEffect(() => {
    if (process.env.NODE_ENV === 'production' && 'serviceWorker' in navigator) {
      void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
    }
  }, [])
  return <Theme>{children}</Theme>
}
