import { AntdRegistry } from '@ant-design/nextjs-registry'
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import type { Metadata, Viewport } from 'next'
import { connection } from 'next/server'
import type { ReactNode } from 'react'
import { Frame } from '@/ui/shell/Frame'
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
  // Each answer has a nonce of its own for its scripts: none is made ahead, none is kept on the way.
  await connection()
  return (
    <html lang="en">
      <body>
        <AntdRegistry>
          <Frame>{children}</Frame>
        </AntdRegistry>
      </body>
    </html>
  )
}
