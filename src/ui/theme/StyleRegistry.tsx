'use client'
import { createCache, extractStyle, StyleProvider } from '@ant-design/cssinjs'
import { useServerInsertedHTML } from 'next/navigation'
import { type ReactNode, useState } from 'react'

/** An empty cache still names itself. */
const EMPTY = '.data-ant-cssinjs-cache-path{content:"";}'

/**
 * The component library's styles as they were drawn on the server, under the nonce of this answer. (The library's own
 * registry writes them without one, so that every style in a page would have to be allowed.)
 */
export function StyleRegistry({ nonce, children }: { nonce: string | undefined; children: ReactNode }) {
  const [cache] = useState(() => createCache())
  useServerInsertedHTML(() => {
    const styles = extractStyle(cache, { plain: true, once: true })
    if (styles.includes(EMPTY)) return null
    return (
      <style
        id="antd-cssinjs"
        nonce={nonce}
        // Before the styles that the library adds in the browser.
        data-rc-order="prepend"
        data-rc-priority="-1000"
        // biome-ignore lint/security/noDangerouslySetInnerHtml: the library's own style sheet, made here.
        dangerouslySetInnerHTML={{ __html: styles }}
      />
    )
  })
  return <StyleProvider cache={cache}>{children}</StyleProvider>
}
