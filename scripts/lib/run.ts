import { spawn } from 'node:child_process'

export type Ran = { code: number; output: string }

export type RunOptions = {
  cwd?: string
  env?: NodeJS.ProcessEnv
  show?: boolean
  input?: string
  /** A command that takes longer is asked to end, then ended; its output says so. */
  limit_ms?: number
}

/** What a command left running may hold its pipe open: its output is waited for so long after its end. */
const AFTER_END_ms = 2000
const LAST_WORDS_ms = 30_000

/** Runs a command to its end and keeps what it printed; `show` passes it on as well. */
export function run(command: string, args: string[], options: RunOptions = {}): Promise<Ran> {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: options.cwd,
      env: options.env ?? process.env,
      stdio: ['pipe', 'pipe', 'pipe'],
    })
    let output = ''
    const take = (stream: NodeJS.WritableStream) => (chunk: Buffer) => {
      output += chunk.toString()
      if (options.show) stream.write(chunk)
    }
    const timers: NodeJS.Timeout[] = []
    const end = (code: number | null): void => {
      for (const timer of timers) clearTimeout(timer)
      child.stdout.destroy()
      child.stderr.destroy()
      resolve({ code: code ?? 1, output })
    }
    if (options.limit_ms !== undefined) {
      const tooLong = (): void => {
        output += `\nNot ended after ${Math.round(options.limit_ms! / 60_000)} minutes: stopped.\n`
        child.kill('SIGTERM')
        timers.push(setTimeout(() => child.kill('SIGKILL'), LAST_WORDS_ms))
      }
      timers.push(setTimeout(tooLong, options.limit_ms))
    }
    child.stdout.on('data', take(process.stdout))
    child.stderr.on('data', take(process.stderr))
    child.on('error', (error) => resolve({ code: 127, output: `${output}${error.message}` }))
    child.on('exit', (code) => timers.push(setTimeout(() => end(code), AFTER_END_ms)))
    child.on('close', end)
    child.stdin.on('error', () => undefined)
    child.stdin.end(options.input ?? '')
  })
}

export async function has(command: string): Promise<boolean> {
  return (await run('sh', ['-c', `command -v ${command}`])).code === 0
}
