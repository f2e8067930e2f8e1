/**
 * Saving under load against a bare durable INSERT, in one run on an instance of its own: fifty testers, each one reading
 * a second, on jobs of 400 strings. Both are measured by turns, and so are saves with and without big certificates drawn
 * beside them, for a machine that others use too has good and bad minutes. A round in which the host took more of the
 * processor away than `MOST_STOLEN` is played again, and said. Run: npm run bench:saves
 */
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { v7 as uuid } from 'uuid'
import type { Entry } from '@/core/record/entry'
import { ensureBuild } from '../scripts/lib/build'
import { startInstance } from '../scripts/lib/instance'
import { ownPlaces, placesIn } from '../scripts/lib/paths'
import { prepareData } from '../scripts/lib/state'
import { freePort } from '../scripts/lib/ports'
import { remarkIn } from './remark'

const TESTERS = 50
const FEW = 10
const JOBS = 5
const WARM_UP = 300
const LONG_STRINGS = 500
const EVERY_ms = 1000
const ROUNDS = Number(process.env.BENCH_ROUNDS ?? 6)
const LASTS_ms = 10_000
const MOST_STOLEN = 0.02
const MOST_AGAIN = 20

type Took = { list: number[]; failed: number }

/** So many people, each doing something once a second whether or not the last was answered. */
async function atOnce(count: number, act: (who: number, turn: number) => Promise<boolean>): Promise<Took> {
  const took: Took = { list: [], failed: 0 }
  const doings: Promise<void>[] = []
  const one = async (who: number, turn: number): Promise<void> => {
    const start = performance.now()
    if (!(await act(who, turn).catch(() => false))) took.failed++
    took.list.push(performance.now() - start)
  }
  const until = Date.now() + LASTS_ms
  await Promise.all(
    Array.from({ length: count }, async (_, who) => {
      await new Promise((resolve) => setTimeout(resolve, (who / count) * EVERY_ms))
      for (let turn = 0; Date.now() < until; turn++) {
        doings.push(one(who, turn))
        await new Promise((resolve) => setTimeout(resolve, EVERY_ms))
      }
    }),
  )
  await Promise.all(doings)
  return took
}

function add(all: Took, more: Took): void {
  all.list.push(...more.list)
  all.failed += more.failed
}

function written({ list, failed }: Took): string {
  const sorted = list.toSorted((a, b) => a - b)
  const at = (share: number): string =>
    `${sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!.toFixed(1)} ms`
  return `${sorted.length} done, ${failed} failed; p50 ${at(0.5)}, p99 ${at(0.99)}, longest ${at(1)}`
}

/** What the processors spent so far, and what of it the host gave to others, in its own ticks. */
async function processorTime(): Promise<{ all: number; stolen: number }> {
  const [head] = (await readFile('/proc/stat', 'utf8')).split('\n')
  const ticks = head!.split(/\s+/).slice(1).map(Number)
  return { all: ticks.reduce((sum, one) => sum + one, 0), stolen: ticks[7] ?? 0 }
}

/** The greatest memory of the process for long work so far, MB; 0 where it does not run. */
async function longWorkPeak(): Promise<number> {
  for (const pid of await readdir('/proc')) {
    if (!/^\d+$/.test(pid)) continue
    const command = await readFile(`/proc/${pid}/cmdline`, 'utf8').catch(() => '')
    if (!command.includes('longWork.mjs')) continue
    const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '')
    return Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024
  }
  return 0
}

/** Has a big certificate drawn again and again, each time of something new. */
function printing(jobId: string, visitId: string): { end(): Promise<{ drawn: number[]; peak_MB: number }> } {
  const drawn: number[] = []
  let peak_MB = 0
  let isOver = false
  const work = (async () => {
    for (let n = 0; !isOver; n++) {
      const entry = remarkIn(jobId, visitId, `drawn ${n}`)
      await knock('tester', `/api/jobs/${jobId}/entries`, { entries: [entry] })
      const began = performance.now()
      const answer = await fetch(`${base}/api/jobs/${jobId}/certificate`, {
        headers: { cookie: await cookieOf('tester') },
      })
      await answer.arrayBuffer()
      if (!answer.ok) throw new Error(`the certificate was answered ${answer.status}`)
      drawn.push(performance.now() - began)
      peak_MB = Math.max(peak_MB, await longWorkPeak())
    }
  })()
  return {
    end: async () => {
      isOver = true
      await work
      return { drawn, peak_MB }
    },
  }
}

const folder = await mkdtemp(join(tmpdir(), 'upstand-bench-'))
const port = await freePort()
await prepareData(ownPlaces)
await ensureBuild(ownPlaces)
const instance = await startInstance(placesIn(join(folder, 'data')), { port, empty: false, quiet: true })
process.env.UPSTAND_TEST_URL = instance.application.address
const { manyStrings } = await import('./jobs')
const { base, cookieOf, demo, knock } = await import('../tests/support/server')
const admin = await mysql.createPool({ uri: instance.databases.adminUrl, connectionLimit: 10 })
try {
  const jobs: { id: string; visitId: string; readings: Entry[] }[] = []
  for (let k = 0; k < JOBS; k++) {
    const id = await manyStrings()
    const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${id}/facts`)
    const readings = body.facts.entries.filter((entry) => entry.step === 'pv-voc')
    jobs.push({ id, visitId: readings[0]!.visitId, readings })
  }
  await admin.query('CREATE TABLE bare (id CHAR(36) PRIMARY KEY, body JSON NOT NULL)')
  const text = JSON.stringify(jobs[0]!.readings[0])
  const insert = async (): Promise<boolean> => {
    await admin.query('INSERT INTO bare VALUES (?, ?)', [uuid(), text])
    return true
  }
  const sent = new Set<string>()
  const save = async (who: number, turn: number): Promise<boolean> => {
    const job = jobs[who % JOBS]!
    const { receivedAt: _, personId: __, ...reading } = job.readings[(who * 31 + turn) % job.readings.length]!
    const one = { ...reading, id: uuid(), deviceTime: new Date().toISOString(), clockOffset_ms: 0 }
    const { status, body } = await knock<{ fates: { fate: string }[] }>('tester', `/api/jobs/${job.id}/entries`, {
      personId: demo.person.tester,
      entries: [one],
    })
    const isKept = status === 200 && body.fates[0]!.fate === 'kept'
    if (isKept) sent.add(one.id)
    return isKept
  }
  // Neither is measured cold.
  for (let k = 0; k < WARM_UP; k++) await Promise.all([save(k, 0), insert()])
  const big = await manyStrings(LONG_STRINGS)
  const bigs = await knock<{ facts: { visits: { id: string }[] } }>('tester', `/api/jobs/${big}/facts`)
  const [bare, bareBeside, saves, besidePrints] = [0, 1, 2, 3].map((): Took => ({ list: [], failed: 0 })) as [
    Took,
    Took,
    Took,
    Took,
  ]
  const drawn: number[] = []
  let peak_MB = 0
  let again = 0
  for (let round = 0; round < ROUNDS; round++) {
    const before = await processorTime()
    const rows = await atOnce(TESTERS, insert)
    const [alone, rowsBeside] = await Promise.all([atOnce(TESTERS, save), atOnce(FEW, insert)])
    const prints = printing(big, bigs.body.facts.visits[0]!.id)
    const printed = await atOnce(TESTERS, save)
    const ended = await prints.end()
    const after = await processorTime()
    if (after.stolen - before.stolen > MOST_STOLEN * (after.all - before.all) && again < MOST_AGAIN) {
      again++
      round--
      continue
    }
    add(bare, rows)
    add(saves, alone)
    add(bareBeside, rowsBeside)
    add(besidePrints, printed)
    drawn.push(...ended.drawn)
    peak_MB = Math.max(peak_MB, ended.peak_MB)
  }
  console.log(`${ROUNDS} rounds; ${again} more were played again, for the host was busy`)
  console.log(`bare durable INSERT, ${TESTERS} a second:          ${written(bare)}`)
  console.log(`bare INSERT beside the saves, ${FEW} a second: ${written(bareBeside)}`)
  console.log(`save of a reading, ${TESTERS} a second:            ${written(saves)}`)
  console.log(`the same while certificates are drawn:    ${written(besidePrints)}`)
  const each = drawn.map((ms) => (ms / 1000).toFixed(1)).join(', ')
  console.log(`certificates of ${LONG_STRINGS} strings: ${each} s; its process at most ${peak_MB.toFixed(0)} MB`)
  const there = new Set<string>()
  for (const { id } of jobs) {
    const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${id}/facts`)
    for (const entry of body.facts.entries) there.add(entry.id)
  }
  console.log(`acknowledged and lost: ${[...sent].filter((id) => !there.has(id)).length} of ${sent.size}`)
} finally {
  await admin.end()
  await instance.stop()
  await rm(folder, { recursive: true, force: true })
}
