/** What pages are sent with: no script and no style sheet but those of this very answer. */
import { randomBytes } from 'node:crypto'
import { type NextRequest, NextResponse } from 'next/server'

const NONCE_bytes = 16

function policyOf(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    `style-src 'self' 'nonce-${nonce}'`,
    // Drawings and the component library place things by attributes; those reach nothing but their own element.
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "frame-ancestors 'none'",
    "base-uri 'none'",
    "form-action 'self'",
  ].join('; ')
}

export function proxy(request: NextRequest): NextResponse {
  // Rebuilding while somebody types needs what no finished page does.
  if (process.env.NODE_ENV !== 'production') return NextResponse.next()
  const policy = policyOf(randomBytes(NONCE_bytes).toString('base64'))
  const headers = new Headers(request.headers)
  // The framework takes the nonce for its own scripts from here.
  headers.set('content-security-policy', policy)
  const response = NextResponse.next({ request: { headers } })
  response.headers.set('content-security-policy', policy)
  if (process.env.UPSTAND_URL?.startsWith('https:'))
    response.headers.set('strict-transport-security', 'max-age=31536000')
  return response
}

export const config = { matcher: ['/', '/job', '/office', '/sign-in'] }
