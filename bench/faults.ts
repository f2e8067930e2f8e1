/**
 * What was tried to lose something, counted: kills, cut lines, a full disk, flipped bytes, bodies and imports that nobody
 * meant. Run: npm run bench:faults, with other counts by FAULT_KILLS, FAULT_CUTS, FAULT_BODIES, FAULT_FLIPS.
 */
import { spawnSync } from 'node:child_process'
import { copyFile, mkdtemp, open, readFile, rm, writeFile } from 'node:fs/promises'
import { request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { v7 as uuid } from 'uuid'
import { readBackupFile } from '@/server/backup/backupFile'
import { verifySeal } from '@/server/seal/verifySeal'
import { writeBackup } from '../scripts/lib/backups'
import { ensureBuild } from '../scripts/lib/build'
import { type Instance, startInstance } from '../scripts/lib/instance'
import { ownPlaces, placesIn } from '../scripts/lib/paths'
import { freePort } from '../scripts/lib/ports'
import { run } from '../scripts/lib/run'
import { prepareData, readState } from '../scripts/lib/state'
import { Dice } from '../tests/support/fuzz'
import { fateIn, remarkIn } from './remark'

const wanted = (name: string, usual: number): number => Number(process.env[name] ?? usual)
const KILLS = wanted('FAULT_KILLS', 1000)
const CUTS = wanted('FAULT_CUTS', 1000)
const BODIES = wanted('FAULT_BODIES', 10_000)
const FLIPS = wanted('FAULT_FLIPS', 200)
const TESTERS = 6
const PAUSE_ms = 40

const dice = new Dice(Date.now())
const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))
const folder = await mkdtemp(join(tmpdir(), 'upstand-faults-'))
// A small disk of its own, so that it can be filled; where that is not to be had, the disk is not filled.
const hasOwnDisk = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=1500m', 'tmpfs', folder]).status === 0
const places = placesIn(join(folder, 'data'))
const port = await freePort()
const address = `http://127.0.0.1:${port}`
await prepareData(ownPlaces)
await ensureBuild(ownPlaces)

const starting = (): Promise<Instance> => startInstance(places, { port, empty: false, quiet: true, yard: false })
let instance = await starting()
process.env.UPSTAND_TEST_URL = address
const { cookieOf, demo, knock } = await import('../tests/support/server')
const cookie = await cookieOf('tester')
const [jobId, visitId] = [uuid(), uuid()]
const people = [demo.person.tester]
await knock('supervisor', '/api/jobs', { id: jobId, visitId, number: 'FAULTS', name: 'Faults', place: '', people })

const acknowledged: string[] = []
const counts = { resent: 0, cut: 0, already: 0 }

/** Sends one entry; the line is cut where somebody wants that. Null: no answer that says what became of it. */
function sent(entry: object, cutAfter_ms: number | null): Promise<string | null> {
  const body = JSON.stringify({ personId: demo.person.tester, entries: [entry] })
  return new Promise((resolve) => {
    const headers = { cookie, origin: address, 'content-type': 'application/json', 'content-length': body.length }
    const asked = request(`${address}/api/jobs/${jobId}/entries`, { method: 'POST', headers, timeout: 8000 })
    asked.on('error', () => resolve(null))
    asked.on('timeout', () => asked.destroy())
    asked.on('response', (answer) => {
      let text = ''
      answer.on('data', (chunk) => (text += chunk))
      answer.on('error', () => resolve(null))
      answer.on('close', () => resolve(fateIn(answer.statusCode ?? 0, text)))
    })
    asked.end(body)
    if (cutAfter_ms !== null) setTimeout(() => asked.destroy(), cutAfter_ms)
  })
}

async function tester(number: number, isOver: () => boolean): Promise<void> {
  for (let n = 0; !isOver(); n++) {
    const entry = remarkIn(jobId, visitId, `tester ${number}, ${n}`)
    for (let turn = 0; ; turn++) {
      const cut = counts.cut < CUTS && dice.chance(0.4)
      if (cut) counts.cut++
      const fate = await sent(entry, cut ? dice.below(25) : null)
      if (fate === 'kept' || fate === 'already') {
        if (fate === 'already') counts.already++
        acknowledged.push(entry.id)
        break
      }
      if (fate !== null) throw new Error(`an honest entry was answered: ${fate}`)
      counts.resent++
      await wait(PAUSE_ms * Math.min(10, turn + 1))
    }
    await wait(PAUSE_ms)
  }
}

/** Whether every acknowledged entry is there once, and the places of the job are without a gap. */
async function checked(): Promise<string> {
  const db = await mysql.createConnection(instance.databases.adminUrl)
  const [rows] = await db.query('SELECT id, seq FROM entry WHERE job_id = ?', [jobId])
  await db.end()
  const there = rows as { id: string; seq: number }[]
  const ids = new Set(there.map((row) => row.id))
  const lost = acknowledged.filter((id) => !ids.has(id)).length
  const gaps = Math.max(0, ...there.map((row) => row.seq)) - there.length
  return `${acknowledged.length} acknowledged, lost ${lost}, twice ${there.length - ids.size}, gaps ${gaps}`
}

function endNow(pid: number | undefined): void {
  try {
    if (pid) process.kill(pid, 'SIGKILL')
  } catch {
    // It ended by itself meanwhile.
  }
}

async function kills(): Promise<void> {
  const of = { application: 0, database: 0, both: 0 }
  let stuck = 0
  for (let n = 0; n < KILLS; n++) {
    await wait(100 + dice.below(700))
    const { appPid, databasePid } = await readState(places)
    const what = dice.one(['application', 'database', 'both'] as const)
    of[what]++
    if (what !== 'database') endNow(appPid)
    if (what !== 'application') endNow(databasePid)
    await instance.stop().catch(() => undefined)
    instance = await starting().catch(async () => {
      stuck++
      await wait(2000)
      return starting()
    })
    if ((n + 1) % 50 === 0) console.log(`  ${n + 1} kills: ${await checked()}`)
  }
  console.log(
    `kill -9: ${of.application} application, ${of.database} database, ${of.both} both; second start needed ${stuck}`,
  )
}

async function fullDisk(): Promise<void> {
  if (!hasOwnDisk) return console.log('full disk: not tried, a disk of its own needs the right to mount one')
  const filler = await open(join(folder, 'filler'), 'w')
  const before = acknowledged.length
  const block = Buffer.alloc(1024 * 1024)
  for (;;) {
    const isFull = await filler.write(block).then(
      () => false,
      () => true,
    )
    if (isFull) break
  }
  await filler.close()
  await wait(20_000)
  const during = acknowledged.length - before
  await rm(join(folder, 'filler'))
  const until = Date.now() + 150_000
  while (acknowledged.length - before - during < TESTERS && Date.now() < until) await wait(500)
  console.log(
    `full disk: ${during} acknowledged while it was full, ${acknowledged.length - before - during} soon after it had room`,
  )
}

async function flips(): Promise<void> {
  const { file } = await writeBackup(places, instance.databases.adminUrl, instance.databases.secrets, 'asked', null)
  const whole = await readFile(file)
  const bad = join(folder, 'flipped')
  let taken = 0
  for (let n = 0; n < FLIPS; n++) {
    const bytes = Buffer.from(whole)
    // The packed head holds a time and the system's name, which say nothing of what is in the file.
    bytes[10 + dice.below(bytes.length - 10)]! ^= 1 << dice.below(8)
    await writeFile(bad, bytes)
    taken += await readBackupFile(bad, null).then(
      () => 1,
      () => 0,
    )
  }
  await copyFile(file, bad)
  const { text } = await knock('supervisor', `/api/jobs/${demo.job.sealed}/record?issue=A`)
  let unseen = 0
  for (let n = 0; n < FLIPS; n++) {
    const bytes = Buffer.from(text)
    bytes[dice.below(bytes.length)]! ^= 1 << dice.below(8)
    unseen += isCalledWhole(bytes.toString()) ? 1 : 0
  }
  console.log(
    `bit flips: of ${FLIPS} in a backup ${taken} were taken; of ${FLIPS} in a sealed record ${unseen} were not seen`,
  )
}

function isCalledWhole(text: string): boolean {
  try {
    return verifySeal(JSON.parse(text)).whole
  } catch {
    return false
  }
}

async function bodies(): Promise<void> {
  const { appUrl, adminUrl } = instance.databases
  const env = {
    ...process.env,
    UPSTAND_TEST_RUNS: String(BODIES),
    UPSTAND_TEST_URL: address,
    UPSTAND_TEST_DATABASE: appUrl,
    UPSTAND_TEST_DATABASE_ADMIN: adminUrl,
    NO_COLOR: '1',
  }
  for (const [project, file] of [
    ['database', 'tests/database/unmeant.test.ts'],
    ['unit', 'tests/laws/imports.test.ts'],
  ] as const) {
    const { code, output } = await run(
      process.execPath,
      ['node_modules/vitest/vitest.mjs', 'run', '--project', project, file],
      {
        env,
      },
    )
    console.log(
      `${BODIES} each, ${file}: ${code === 0 ? 'every one taken or refused in a sentence' : output.slice(-3000)}`,
    )
  }
}

try {
  let isOver = false
  const working = Promise.all(Array.from({ length: TESTERS }, (_, k) => tester(k, () => isOver)))
  await kills()
  while (counts.cut < CUTS) await wait(200)
  await fullDisk()
  isOver = true
  await working
  console.log(`lines cut ${counts.cut}, sent again ${counts.resent}, found kept already ${counts.already}`)
  console.log(await checked())
  await flips()
  await bodies()
} finally {
  await instance.stop().catch(() => undefined)
  if (hasOwnDisk) spawnSync('umount', ['-l', folder])
  await rm(folder, { recursive: true, force: true })
}
process.exit(0)
