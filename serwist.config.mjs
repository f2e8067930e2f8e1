import { readFileSync } from 'node:fs'
import { serwist } from '@serwist/next/config'

/** Pages are made at each answer, with a nonce of their own for their scripts; the device keeps one of each for every build. */
const revision = readFileSync('.next/BUILD_ID', 'utf8').trim()
const pages = ['/', '/job', '/office', '/sign-in'].map((url) => ({ url, revision }))

export default serwist({
  swSrc: 'src/workers/serviceWorker.ts',
  swDest: 'public/sw.js',
  precachePrerendered: false,
  additionalPrecacheEntries: pages,
  globPatterns: [
    '.next/static/**/*.{js,css,woff2,svg,png}',
    'public/**/*.{svg,png,webmanifest}',
    'public/explainer.js',
  ],
  maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
})
