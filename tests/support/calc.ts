import { spawnSync } from 'node:child_process'

const root = `${import.meta.dirname}/../..`

/** Runs a calculation of the command line on an input; a problem comes on standard error. */
export function calc(name: string, input: unknown) {
  const { status, stdout, stderr } = spawnSync('./upstand', ['calc', name], {
    cwd: root,
    input: JSON.stringify(input),
    encoding: 'utf8',
  })
  return { status, stdout, out: stdout ? JSON.parse(stdout) : null, problem: stdout ? null : JSON.parse(stderr) }
}
