import { type ChildProcess, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { coreVersion } from './coreVersion'
import { root, type Places } from './paths'
import { isFree } from './ports'
import { Stop } from './say'
import { readState, type Secrets, writeState } from './state'

export type Application = { address: string; port: number; exited: Promise<number | null>; stop(): Promise<void> }

const READY_MS = 60_000

const LONGEST_ANSWER_ms = 1500
type Health = { name: string; instance: string }

async function health(port: number): Promise<Health | null> {
  const control = new AbortController()
  let timer: NodeJS.Timeout | undefined
  // Not left to the signal alone: where the application falls while it is asked, the question may never come to an end.
  const late = new Promise<null>((resolve) => {
    timer = setTimeout(() => {
      control.abort()
      resolve(null)
    }, LONGEST_ANSWER_ms)
  })
  const asked = fetch(`http://127.0.0.1:${port}/api/health`, { signal: control.signal })
    .then((answer) => answer.json() as Promise<Health>)
    .catch(() => null)
  const told = await Promise.race([asked, late])
  clearTimeout(timer)
  return told
}

/** The address at which this data folder is served already, null where it is not. */
export async function servedAt(places: Places): Promise<string | null> {
  const { appPort, instance, startPid } = await readState(places)
  if (!appPort || !startPid || startPid === process.pid || (await health(appPort))?.instance !== instance) return null
  try {
    process.kill(startPid, 0)
  } catch {
    // Its start was killed: the application goes on without it, and is taken over.
    return null
  }
  return `http://127.0.0.1:${appPort}`
}

/** A start that was killed can leave its application behind: it is ended, and only it. */
async function endLeftBehind(places: Places, port: number): Promise<void> {
  const { appPid, appPort, instance } = await readState(places)
  if (!appPid || appPort !== port) return
  if ((await health(port))?.instance !== instance) return
  try {
    process.kill(appPid, 'SIGTERM')
  } catch {
    return
  }
  for (let n = 0; n < 50 && !(await isFree(port)); n++) await new Promise((resolve) => setTimeout(resolve, 100))
}

export function appEnvironment(secrets: Secrets, places: Places, databaseUrl: string, port: number): NodeJS.ProcessEnv {
  return {
    ...process.env,
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    DATABASE_URL: databaseUrl,
    UPSTAND_CORE_VERSION: coreVersion(),
    UPSTAND_SECRET: secrets.secret,
    UPSTAND_SEAL_KEY_FILE: places.sealKey,
    UPSTAND_PORT: String(port),
  }
}

export async function startApplication(
  places: Places,
  port: number,
  environment: NodeJS.ProcessEnv,
  options: { dev?: boolean; quiet?: boolean } = {},
): Promise<Application> {
  await endLeftBehind(places, port)
  if (!(await isFree(port))) {
    throw new Stop(`Port ${port} is taken by another program. End that one, or start with --port and another number.`)
  }
  const instance = randomBytes(8).toString('hex')
  const child: ChildProcess = spawn(
    process.execPath,
    [
      '--import',
      './scripts/lib/doorstep.mjs',
      'node_modules/next/dist/bin/next',
      options.dev ? 'dev' : 'start',
      '-H',
      '127.0.0.1',
      '-p',
      String(port),
    ],
    {
      cwd: root,
      env: {
        ...environment,
        UPSTAND_INSTANCE: instance,
        ...(options.dev ? { NODE_ENV: 'development' } : {}),
      } as NodeJS.ProcessEnv,
      detached: true,
      stdio: options.quiet
        ? ['ignore', 'ignore', 'inherit']
        : ['ignore', options.dev ? 'inherit' : 'ignore', 'inherit'],
    },
  )
  await writeState(places, { appPid: child.pid, appPort: port, instance, startPid: process.pid })
  const exited = new Promise<number | null>((resolve) => child.on('exit', resolve))
  let ended = false
  void exited.then(() => {
    ended = true
  })
  const until = Date.now() + READY_MS
  while ((await health(port))?.instance !== instance) {
    if (ended || Date.now() > until) throw new Stop('The application did not start; its own words stand above.')
    await new Promise((resolve) => setTimeout(resolve, 150))
  }
  return {
    address: `http://127.0.0.1:${port}`,
    port,
    exited,
    stop: async () => {
      if (child.pid && !ended) {
        process.kill(child.pid, 'SIGTERM')
        await Promise.race([exited, new Promise((resolve) => setTimeout(resolve, 5000))])
        if (!ended) child.kill('SIGKILL')
      }
    },
  }
}
