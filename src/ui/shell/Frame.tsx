'use client'
import { type ReactNode, useEffect, useInsertionEffect } from 'react'
import { Theme } from '../theme/Theme'
import { Spoken } from './Spoken'

/**
 * Style sheets that a script of this page makes get the page's nonce. The component library gives it to its own, but not to
 * the one by which it measures a scroll bar.
 */
function giveNonce(nonce: string): () => void {
  const create = document.createElement
  document.createElement = function nonced(this: Document, ...asked: Parameters<typeof create>) {
    const made = create.apply(this, asked)
    if (made instanceof HTMLStyleElement) made.nonce = nonce
    return made
  } as typeof create
  return () => {
    document.createElement = create
  }
}

/** What surrounds every screen: the theme, and the worker that keeps the application on the device. */
export function Frame({ nonce, children }: { nonce: string | undefined; children: ReactNode }) {
  useInsertionEffect(() => (nonce === undefined ? undefined : giveNonce(nonce)), [nonce])
  useEffect(() => {
    if (process.env.NODE_ENV === 'production' && 'serviceWorker' in navigator) {
      void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
    }
  }, [])
  return (
    <Spoken>
      <Theme nonce={nonce}>{children}</Theme>
    </Spoken>
  )
}
