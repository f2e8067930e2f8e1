import type { NextConfig } from 'next'
import { coreVersion } from './scripts/lib/coreVersion'

const csp = [
  "default-src 'self'",
  "script-src 'self' 'unsafe-inline'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "connect-src 'self'",
  "worker-src 'self' blob:",
  "frame-ancestors 'none'",
  "base-uri 'none'",
  "form-action 'self'",
].join('; ')

const config: NextConfig = {
  // Every seal says by which core it was judged.
  env: { UPSTAND_CORE_VERSION: coreVersion() },
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // The test command checks types; a start on somebody's machine need not do it again.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['pdfmake', 'mysql2', 'better-auth'],
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'x-content-type-options', value: 'nosniff' },
        { key: 'referrer-policy', value: 'same-origin' },
        ...(process.env.NODE_ENV === 'production' ? [{ key: 'content-security-policy', value: csp }] : []),
      ],
    },
    { source: '/sw.js', headers: [{ key: 'cache-control', value: 'no-cache' }] },
  ],
}

export default config
