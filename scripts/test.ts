/** Every check, from types to the real interface. Closes with the plain line `N passed, N failed`. */
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureBuild } from './lib/build'
import { type Instance, startInstance } from './lib/instance'
import { ensureChromium, ensureMariadb } from './lib/packages'
import { ownPlaces, placesIn, root } from './lib/paths'
import { freePort } from './lib/ports'
import { run } from './lib/run'
import { Stop, say } from './lib/say'
import { prepareData } from './lib/state'

type Count = { passed: number; failed: number }
const count: Count = { passed: 0, failed: 0 }

/** A check that is one command: it passes with exit code 0. */
async function command(name: string, args: string[]): Promise<void> {
  const start = Date.now()
  const { code, output } = await run(process.execPath, args, { cwd: root })
  say(`${code === 0 ? 'ok    ' : 'FAILED'} ${name} (${((Date.now() - start) / 1000).toFixed(0)} s)`)
  if (code !== 0) say(output.trim())
  count[code === 0 ? 'passed' : 'failed']++
}

type Report = { numPassedTests: number; numFailedTests: number; numTotalTests: number; success: boolean }

/** A project of tests; one that ran no test has failed. */
async function tests(project: string, folder: string, env: NodeJS.ProcessEnv = process.env): Promise<void> {
  const start = Date.now()
  const file = join(folder, `${project}.json`)
  const args = [
    'node_modules/vitest/vitest.mjs',
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
  ]
  const { output } = await run(process.execPath, args, { cwd: root, env: { ...env, NO_COLOR: '1' } })
  const report = await readFile(file, 'utf8').then(
    (text) => JSON.parse(text) as Report,
    () => null,
  )
  const ok = report?.success === true && report.numPassedTests > 0
  say(
    `${ok ? 'ok    ' : 'FAILED'} ${project} tests: ${report?.numPassedTests ?? 0} of ${report?.numTotalTests ?? 0} (${((Date.now() - start) / 1000).toFixed(0)} s)`,
  )
  if (!ok) say(output.trim().split('\n').slice(-150).join('\n'))
  count.passed += report?.numPassedTests ?? 0
  count.failed += report?.numFailedTests ?? 0
  if (!ok && !report?.numFailedTests) count.failed++
}

export async function test(only: string[]): Promise<number> {
  const wants = (name: string): boolean => only.length === 0 || only.includes(name)
  const folder = await mkdtemp(join(tmpdir(), 'upstand-test-'))
  let instance: Instance | null = null
  try {
    await prepareData(ownPlaces)
    // The build comes first: it also writes the types that the type check reads.
    await ensureBuild(ownPlaces)
    if (wants('static')) {
      await command('types', ['node_modules/typescript/bin/tsc', '--noEmit'])
      await command('lint', ['node_modules/@biomejs/biome/bin/biome', 'ci', '--error-on-warnings', '.'])
      await command('imports run one way', ['scripts/check-imports.mjs'])
      await command('only the core judges', ['scripts/check-judgement.mjs'])
    }
    if (wants('unit')) await tests('unit', folder)
    if (wants('reference')) await tests('reference', folder)
    if (wants('start')) {
      await ensureMariadb()
      await tests('start', folder)
    }
    if (wants('database') || wants('e2e')) {
      await ensureMariadb()
      await ensureChromium()
      const port = await freePort()
      instance = await startInstance(placesIn(join(folder, 'data')), { port, empty: false, quiet: true })
      const env = {
        ...process.env,
        UPSTAND_TEST_URL: instance.application.address,
        UPSTAND_TEST_DATABASE: instance.databases.appUrl,
        UPSTAND_TEST_DATABASE_ADMIN: instance.databases.adminUrl,
      }
      if (wants('database')) await tests('database', folder, env)
      if (wants('e2e')) await tests('e2e', folder, env)
    }
  } catch (error) {
    say(error instanceof Stop ? error.message : String((error as Error).stack))
    count.failed++
  } finally {
    await instance?.stop()
    await rm(folder, { recursive: true, force: true })
  }
  say(`${count.passed} passed, ${count.failed} failed`)
  return count.failed > 0 ? 1 : 0
}
