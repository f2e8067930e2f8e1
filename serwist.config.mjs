import { serwist } from '@serwist/next/config'

export default serwist({
  swSrc: 'src/workers/serviceWorker.ts',
  swDest: 'public/sw.js',
  globPatterns: [
    '.next/static/**/*.{js,css,woff2,svg,png}',
    'public/**/*.{svg,png,webmanifest}',
    'public/explainer.js',
  ],
  maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
})
