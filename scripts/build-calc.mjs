// Bundles the command-line calculations into one file, so that they start at once.
import { build } from 'esbuild'

await build({
  entryPoints: ['src/cli/calc.ts'],
  outfile: '.build/calc.mjs',
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  minify: true,
  banner: { js: "import { createRequire } from 'node:module';const require = createRequire(import.meta.url);" },
  logLevel: 'error',
})
