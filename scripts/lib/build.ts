import { createHash } from 'node:crypto'
import { build } from 'esbuild'
import { existsSync } from 'node:fs'
import { readdir, readFile } from 'node:fs/promises'
import { join, relative } from 'node:path'
import { root, type Places } from './paths'
import { run } from './run'
import { Stop, step } from './say'
import { readState, writeState } from './state'

const INPUTS = [
  'src',
  'scripts/lib/coreVersion.ts',
  'public',
  'package-lock.json',
  'next.config.ts',
  'serwist.config.mjs',
  'tsconfig.json',
]
/** Made by the build itself. */
const OUTPUTS = new Set(['public/sw.js', 'public/sw.js.map', 'public/explainer.js'])

async function filesUnder(path: string): Promise<string[]> {
  const entries = await readdir(path, { withFileTypes: true }).catch(() => null)
  if (!entries) return existsSync(path) ? [path] : []
  const nested = await Promise.all(
    entries.map((entry) => (entry.isDirectory() ? filesUnder(join(path, entry.name)) : [join(path, entry.name)])),
  )
  return nested.flat()
}

/** A hash of everything that the build takes in: no rebuild where nothing changed. */
async function inputStamp(): Promise<string> {
  const hash = createHash('sha256')
  for (const input of INPUTS) {
    for (const file of (await filesUnder(join(root, input))).sort()) {
      const name = relative(root, file)
      if (OUTPUTS.has(name) || name.endsWith('.test.ts')) continue
      hash.update(`${name}\n`).update(await readFile(file))
    }
  }
  return hash.digest('hex')
}

/**
 * Workers are files of their own: a worker that the bundler of the pages makes is told its chunks behind a #, which is
 * lost where the service worker answers.
 */
export async function buildWorkers(): Promise<void> {
  await build({
    entryPoints: {
      longWork: join(root, 'src/server/longWork/worker.ts'),
      hotDoors: join(root, 'src/app/hotDoors.ts'),
    },
    outdir: join(root, '.build'),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    packages: 'external',
    platform: 'node',
    target: 'node20',
    format: 'esm',
    logLevel: 'error',
  })
  await build({
    entryPoints: [join(root, 'src/workers/explainer.ts')],
    outfile: join(root, 'public/explainer.js'),
    bundle: true,
    platform: 'browser',
    target: 'es2022',
    format: 'iife',
    minify: true,
    logLevel: 'error',
  })
}

export async function ensureBuild(places: Places): Promise<void> {
  const stamp = await inputStamp()
  const { buildStamp } = await readState(places)
  if (
    buildStamp === stamp &&
    existsSync(join(root, '.next/BUILD_ID')) &&
    existsSync(join(root, 'public/sw.js')) &&
    existsSync(join(root, 'public/explainer.js')) &&
    existsSync(join(root, '.build/longWork.mjs')) &&
    existsSync(join(root, '.build/hotDoors.mjs'))
  )
    return
  await step('Building for production (once for each version; about a minute)', async () => {
    const env = { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' } as NodeJS.ProcessEnv
    await buildWorkers()
    const built = await run(process.execPath, ['node_modules/next/dist/bin/next', 'build'], { cwd: root, env })
    if (built.code !== 0)
      throw new Stop(`The build did not succeed:\n${built.output.trim().split('\n').slice(-30).join('\n')}`)
    const worker = await run(process.execPath, ['node_modules/@serwist/cli/cli.js', 'build', 'serwist.config.mjs'], {
      cwd: root,
      env,
    })
    if (worker.code !== 0)
      throw new Stop(`The offline part did not build:\n${worker.output.trim().split('\n').slice(-15).join('\n')}`)
  })
  await writeState(places, { buildStamp: stamp })
}
