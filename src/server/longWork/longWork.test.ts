import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { LongWork } from './longWork'
import type { Progress, Task } from './tasks'

/** A worker that does what the task's job says: be quick, die, never answer, eat memory, be refused, fail. */
const WORKER = `
process.on('message', async ({ id, task }) => {
  const tell = (message) => process.send({ id, ...message })
  tell({ progress: { stage: 'reading' } })
  const [what, n] = task.jobId.split(' ')
  if (what === 'die') process.exit(7)
  if (what === 'hang') return
  if (what === 'eat') { const kept = []; for (;;) kept.push(new Array(100000).fill({})) }
  if (what === 'refuse') return tell({ refused: { status: 409, key: 'door.seal-unsigned', figures: {} } })
  if (what === 'fail') return tell({ failed: 'Error: inside' })
  await new Promise((resolve) => setTimeout(resolve, Number(n ?? 1)))
  tell({ done: { name: what, bytes: Buffer.from(String(process.pid)) } })
})
process.on('disconnect', () => process.exit(0))
`
let folder: string
let file: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'upstand-work-'))
  file = join(folder, 'worker.mjs')
  await writeFile(file, WORKER)
})
afterAll(() => rm(folder, { recursive: true }))

const limits = { waiting: 3, longest_ms: 2000, idle_ms: 300 }
const task = (jobId: string): Extract<Task, { kind: 'certificate' }> => ({
  kind: 'certificate',
  sheet: null,
  jobId,
  issue: null,
  now_ms: 0,
})
const does = (work: LongWork, what: string, onProgress: (progress: Progress) => void = () => undefined) =>
  work.do(task(what), onProgress)

describe('long work', () => {
  it('is done one piece after another, in order, and tells each how far it is', async () => {
    const work = new LongWork(file, limits)
    const order: string[] = []
    const told: string[] = []
    await Promise.all(
      ['a 60', 'b', 'c'].map((what) =>
        does(work, what, ({ stage, place }) => told.push(`${what[0]} ${stage}${place ? ` ${place}` : ''}`)).then(
          ({ name }) => order.push(name),
        ),
      ),
    )
    expect(order).toEqual(['a', 'b', 'c'])
    expect(told).toEqual(
      expect.arrayContaining(['a reading', 'b waiting 1', 'c waiting 2', 'c waiting 1', 'c reading']),
    )
    expect(told.indexOf('b reading')).toBeGreaterThan(told.indexOf('a reading'))
  })

  it('is refused where too much waits already, and taken again afterwards', async () => {
    const work = new LongWork(file, limits)
    const all = ['a 80', 'b', 'c', 'd'].map((what) => does(work, what))
    expect(() => does(work, 'e')).toThrow('Try again in a minute')
    await Promise.all(all)
    expect((await does(work, 'f')).name).toBe('f')
  })

  it.each(['die', 'hang', 'eat'])(
    'that makes its process %s is refused in a sentence; the next is done',
    async (what) => {
      const work = new LongWork(file, limits)
      const first = does(work, what)
      const second = does(work, 'next')
      await expect(first).rejects.toThrow('more time or memory than one piece of work may')
      expect((await second).name).toBe('next')
    },
    60_000,
  )

  it('that is refused says why, and what fails inside says nothing of it', async () => {
    const work = new LongWork(file, limits)
    await expect(does(work, 'refuse')).rejects.toMatchObject({ status: 409, key: 'door.seal-unsigned' })
    await expect(does(work, 'fail')).rejects.toThrow('inside')
    expect((await does(work, 'next')).name).toBe('next')
  })

  it('gives its memory back when there is nothing to do, and begins again', async () => {
    const work = new LongWork(file, limits)
    const before = (await does(work, 'a')).bytes.toString()
    await expect.poll(() => isThere(Number(before)), { timeout: 5000 }).toBe(false)
    expect((await does(work, 'b')).bytes.toString()).not.toBe(before)
  })
})

function isThere(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}
