import { spawn } from 'node:child_process'

export type Ran = { code: number; output: string }

/** Runs a command to its end and keeps what it printed; `show` passes it on as well. */
export function run(
  command: string,
  args: string[],
  options: { cwd?: string; env?: NodeJS.ProcessEnv; show?: boolean; input?: string } = {},
): Promise<Ran> {
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
    child.stdout.on('data', take(process.stdout))
    child.stderr.on('data', take(process.stderr))
    child.on('error', (error) => resolve({ code: 127, output: `${output}${error.message}` }))
    child.on('close', (code) => resolve({ code: code ?? 1, output }))
    child.stdin.on('error', () => undefined)
    child.stdin.end(options.input ?? '')
  })
}

export async function has(command: string): Promise<boolean> {
  return (await run('sh', ['-c', `command -v ${command}`])).code === 0
}
