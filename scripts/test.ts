/** Every check, from types to the real interface. Closes with the plain line `N passed, N failed`. */
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises'
import { availableParallelism, tmpdir } from 'node:os'
import { basename, join } from 'node:path'
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

/** No part may keep the others waiting for ever: these are some four times what each takes on two slow cores. */
const LIMIT_ms = 15 * 60_000
const E2E_LIMIT_ms = 38 * 60_000
const LANE_LIMIT_ms = 42 * 60_000

/** A check that is one command: it passes with exit code 0. */
async function command(name: string, args: string[]): Promise<void> {
  const start = Date.now()
  const { code, output } = await run(process.execPath, args, { cwd: root, limit_ms: LIMIT_ms })
  say(`${code === 0 ? 'ok    ' : 'FAILED'} ${name} (${((Date.now() - start) / 1000).toFixed(0)} s)`)
  if (code !== 0) say(output.trim())
  count[code === 0 ? 'passed' : 'failed']++
}

type FileReport = { name: string; startTime: number; endTime: number }
type Report = {
  numPassedTests: number
  numFailedTests: number
  numTotalTests: number
  success: boolean
  testResults: FileReport[]
}
type Which = { env?: NodeJS.ProcessEnv; files?: readonly string[]; lane?: string }

/** Where the time goes: the files that took longest, with their seconds. */
function slowest(files: FileReport[]): string {
  const took_s = (one: FileReport): number => Math.round((one.endTime - one.startTime) / 1000)
  const first = [...files].sort((a, b) => took_s(b) - took_s(a)).slice(0, 8)
  return first.map((one) => `${basename(one.name).replace(/\.test\.tsx?$/, '')} ${took_s(one)} s`).join(', ')
}

/** What was printed of the failures: they stand together at the end, after what may be thousands of lines. */
function whatFailed(lines: string[]): string[] {
  const first = lines.findIndex((line) => /⎯ Failed (Suites|Tests) \d+ ⎯/.test(line))
  return lines.slice(first < 0 ? -150 : first)
}

/** A project of tests, or some files of it; one that ran no test has failed. */
async function tests(
  project: string,
  folder: string,
  { env = process.env, files = [], lane }: Which = {},
): Promise<void> {
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
    // Its own choice would leave a core idle; projects that share one application run one file after another anyhow.
    `--maxWorkers=${Math.max(2, availableParallelism() - 1)}`,
    // Where everything fails, it fails for one reason: the rest would only wait for it.
    ...(lane ? ['--bail=12'] : []),
    ...files,
  ]
  const { output } = await run(process.execPath, args, {
    cwd: root,
    env: { ...env, NO_COLOR: '1' },
    limit_ms: lane ? E2E_LIMIT_ms : LIMIT_ms,
  })
  const report = await readFile(file, 'utf8').then(
    (text) => JSON.parse(text) as Report,
    () => null,
  )
  const ok = report?.success === true && report.numPassedTests > 0
  say(
    `${ok ? 'ok    ' : 'FAILED'} ${lane ?? project} tests: ${report?.numPassedTests ?? 0} of ${report?.numTotalTests ?? 0} (${((Date.now() - start) / 1000).toFixed(0)} s)`,
  )
  if (report) say(`       slowest: ${slowest(report.testResults)}`)
  if (!ok) say(whatFailed(output.trim().split('\n')).join('\n'))
  count.passed += report?.numPassedTests ?? 0
  count.failed += report?.numFailedTests ?? 0
  if (!ok && !report?.numFailedTests) count.failed++
}

/**
 * The files of the first lane of tests in Chromium; all others make the second. Both take about as long, and each keeps
 * its order against an application and a database of its own, so that no lane meets what the other leaves behind.
 */
const FIRST_LANE = [
  'bothSides',
  'chargePoint',
  'commission',
  'curve',
  'electrode',
  'installation',
  'loopHouse',
  'mixed',
  'people',
  'plant',
]
const LANES = ['e2e-first', 'e2e-second'] as const

async function filesOf(lane: (typeof LANES)[number]): Promise<string[]> {
  const all = (await readdir(join(root, 'tests/e2e'))).filter((name) => name.endsWith('.test.ts'))
  const isFirst = (name: string): boolean => FIRST_LANE.includes(name.replace('.test.ts', ''))
  return all.filter((name) => isFirst(name) === (lane === 'e2e-first')).map((name) => `tests/e2e/${name}`)
}

/** A lane is a process of its own: what an application was started with stays in its process. */
async function laneAlone(lane: string): Promise<void> {
  const args = [...process.execArgv, process.argv[1]!, 'test', lane]
  const { output } = await run(process.execPath, args, { cwd: root, limit_ms: LANE_LIMIT_ms })
  const lines = output.trim().split('\n')
  const [, passed = '0', failed = '1'] = /^(\d+) passed, (\d+) failed$/.exec(lines.pop() ?? '') ?? []
  say(lines.filter((line) => /^(ok {4}|FAILED| {7}slowest)/.test(line) || failed !== '0').join('\n'))
  count.passed += Number(passed)
  count.failed += Number(failed)
}

export async function test(only: string[]): Promise<number> {
  const wants = (name: string): boolean => only.length === 0 || only.includes(name)
  const folder = await mkdtemp(join(tmpdir(), 'upstand-test-'))
  let instance: Instance | null = null
  const giveUp = async (why: unknown): Promise<void> => {
    say(why instanceof Error ? String(why.stack) : `Ended from outside: ${String(why)}.`)
    await instance?.stop().catch(() => undefined)
    await rm(folder, { recursive: true, force: true })
    say(`${count.passed} passed, ${count.failed + 1} failed`)
    process.exit(1)
  }
  // What a test run started must end with it, however it ends.
  for (const event of ['SIGTERM', 'SIGINT', 'uncaughtException', 'unhandledRejection'])
    process.once(event, (why) => void giveUp(why))
  try {
    await prepareData(ownPlaces)
    // The build comes first: it also writes the types that the type check reads.
    await ensureBuild(ownPlaces)
    if (wants('static')) {
      await command('types', ['node_modules/typescript/bin/tsc', '--noEmit'])
      await command('lint', ['node_modules/@biomejs/biome/bin/biome', 'ci', '--error-on-warnings', '.'])
      await command('imports run one way', ['scripts/check-imports.mjs'])
      await command('only the core judges', ['scripts/check-judgement.mjs'])
      await command('fields are the component library’s', ['scripts/check-elements.mjs'])
    }
    if (wants('unit')) await tests('unit', folder)
    if (wants('reference')) await tests('reference', folder)
    if (wants('start')) {
      await ensureMariadb()
      await tests('start', folder)
    }
    const lane = LANES.find((one) => only.includes(one))
    if (wants('database') || lane) {
      await ensureMariadb()
      if (lane) await ensureChromium()
      const port = await freePort()
      instance = await startInstance(placesIn(join(folder, 'data')), { port, empty: false, quiet: true })
      const env = {
        ...process.env,
        UPSTAND_TEST_URL: instance.application.address,
        UPSTAND_TEST_DATABASE: instance.databases.appUrl,
        UPSTAND_TEST_DATABASE_ADMIN: instance.databases.adminUrl,
      }
      if (wants('database')) await tests('database', folder, { env })
      if (lane) await tests('e2e', folder, { env, files: await filesOf(lane), lane })
      await instance.stop()
      instance = null
    }
    if (wants('e2e')) {
      await ensureMariadb()
      await ensureChromium()
      await Promise.all(LANES.map(laneAlone))
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
