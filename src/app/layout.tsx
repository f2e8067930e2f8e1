import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import type { Metadata, Viewport } from 'next'
import { headers } from 'next/headers'
import type { ReactNode } from 'react'
import { themeSheet } from '@/look/tokens'
import { Frame } from '@/ui/shell/Frame'
import { StyleRegistry } from '@/ui/theme/StyleRegistry'
import '@/ui/theme/upstand.css'
import { say } from '@/words/say'

export const metadata: Metadata = {
  title: 'Upstand',
  description: say('app.about'),
  icons: { icon: '/icon.svg' },
  manifest: '/upstand.webmanifest',
}
export const viewport: Viewport = { width: 'device-width', initialScale: 1 }

export default async function Layout({ children }: { children: ReactNode }) {
  // Each answer has a nonce of its own for its scripts and styles: none is made ahead, none is kept on the way.
  const nonce = /'nonce-([^']+)'/.exec((await headers()).get('content-security-policy') ?? '')?.[1]
  return (
    <html lang="en">
      <head>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: our own colours, made here. */}
        <style nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: themeSheet() }} />
      </head>
      <body>
        <StyleRegistry nonce={nonce}>
          <Frame nonce={nonce}>{children}</Frame>
        </StyleRegistry>
      </body>
    </html>
  )
}
