import type { NextConfig } from 'next'
import { coreVersion } from './scripts/lib/coreVersion'

/** Doors answer with data: nothing in an answer may run or load anything, wherever it is shown. */
const DATA_ONLY = "default-src 'none'; frame-ancestors 'none'"

const config: NextConfig = {
  // Every seal says by which core it was judged.
  env: { UPSTAND_CORE_VERSION: coreVersion() },
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // The test command checks types; a start on somebody's machine need not do it again.
  typescript: { ignoreBuildErrors: true },
  // The library's own parts instead of its one bundle: only what the curves use comes to a tablet.
  turbopack: { resolveAlias: { 'ml-matrix': './node_modules/ml-matrix/src/index.js' } },
  serverExternalPackages: ['pdfmake', 'mysql2', 'better-auth'],
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'x-content-type-options', value: 'nosniff' },
        { key: 'referrer-policy', value: 'same-origin' },
      ],
    },
    { source: '/api/:path*', headers: [{ key: 'content-security-policy', value: DATA_ONLY }] },
    { source: '/sw.js', headers: [{ key: 'cache-control', value: 'no-cache' }] },
  ],
}

export default config
