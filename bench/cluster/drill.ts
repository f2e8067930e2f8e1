/**
 * A drill, not a test: two applications on a cluster of three nodes, each behind a door that fails over. Twenty testers
 * save while a node is cut off, another is killed, and both come back. Run: npm run bench:cluster
 */
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { v7 as uuid } from 'uuid'
import { ensureBuild } from '../../scripts/lib/build'
import { type Instance, startInstance } from '../../scripts/lib/instance'
import { ownPlaces, placesIn } from '../../scripts/lib/paths'
import { freePort } from '../../scripts/lib/ports'
import { prepareData } from '../../scripts/lib/state'
import { fateIn, remarkIn } from '../remark'
import { DATABASE, FailOver, Node, setUp, urlAt } from './nodes'

const TESTERS = 20
const EVERY_ms = 500
/** A device waits so long before it sends again. */
const AGAIN_ms = 400
const BASE = 24_500

const said = (text: string): void =>
  console.log(`${((performance.now() - start) / 1000).toFixed(1).padStart(6)} s  ${text}`)
const start = performance.now()
const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))

const folder = await mkdtemp(join(tmpdir(), 'upstand-cluster-'))
const nodes = [0, 1, 2].map((k) => new Node(folder, k, BASE))
const doors: FailOver[] = []
const applications: Instance[] = []
await prepareData(ownPlaces)
await ensureBuild(ownPlaces)

async function cluster(): Promise<void> {
  for (const node of nodes) await node.make()
  nodes[0]!.start(nodes, true)
  const root = await nodes[0]!.untilRoot()
  await setUp(root)
  await root.end()
  for (const node of nodes.slice(1)) {
    node.start(nodes, false)
    await node.untilWell()
  }
  said('three nodes are one cluster')
}

/** Both applications belong to one installation: the same secrets, the same key. */
async function application(k: number): Promise<Instance> {
  const door = new FailOver([nodes[k]!, ...nodes.filter((_, n) => n !== k)], BASE + 5 + k)
  doors.push(door)
  process.env.DATABASE_URL = urlAt(door.port)
  process.env.DATABASE_ADMIN_URL = urlAt(door.port)
  const port = await freePort()
  const places = { ...placesIn(join(folder, 'data')), state: join(folder, `state-${k}.json`) }
  return startInstance(places, { port, empty: false, quiet: true, yard: k === 0 })
}

/** What a device does: one reading after another, each sent again until the office says what became of it. */
class Tester {
  readonly acknowledged: string[] = []
  resent = 0
  longest_ms = 0
  constructor(
    private readonly number: number,
    private readonly cookie: string,
    private readonly job: { id: string; visitId: string; personId: string },
  ) {}

  async work(isOver: () => boolean): Promise<void> {
    while (!isOver()) {
      await this.save()
      await wait(EVERY_ms)
    }
  }

  private async save(): Promise<void> {
    const { id: jobId, visitId, personId } = this.job
    const entry = remarkIn(jobId, visitId, `tester ${this.number}, ${this.acknowledged.length}`)
    const began = performance.now()
    for (let turn = 0; ; turn++) {
      // No session is bound to one application: every try goes to the next.
      const { address } = applications[(this.number + turn) % applications.length]!.application
      const fate = await sent(`${address}/api/jobs/${jobId}/entries`, this.cookie, { personId, entries: [entry] })
      if (fate === 'kept' || fate === 'already') {
        this.acknowledged.push(entry.id)
        this.longest_ms = Math.max(this.longest_ms, performance.now() - began)
        return
      }
      if (fate !== null) throw new Error(`an honest reading was answered ${fate}`)
      this.resent++
      await wait(AGAIN_ms)
    }
  }
}

/** The fate of one entry, null where no answer came that says it. */
async function sent(url: string, cookie: string, body: object): Promise<string | null> {
  try {
    const answer = await fetch(url, {
      method: 'POST',
      headers: { cookie, origin: new URL(url).origin, 'content-type': 'application/json' },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(6000),
    })
    return fateIn(answer.status, await answer.text())
  } catch {
    return null
  }
}

try {
  await cluster()
  for (const k of [0, 1]) applications.push(await application(k))
  said('two applications serve it')
  process.env.UPSTAND_TEST_URL = applications[0]!.application.address
  const { cookieOf, demo, knock } = await import('../../tests/support/server')
  const cookie = await cookieOf('tester')
  const jobs = await Promise.all(
    Array.from({ length: 4 }, async (_, k) => {
      const [id, visitId] = [uuid(), uuid()]
      const people = [demo.person.tester]
      await knock('supervisor', '/api/jobs', {
        id,
        visitId,
        number: `DRILL-${k}`,
        name: `Drill ${k}`,
        place: '',
        people,
      })
      return { id, visitId, personId: demo.person.tester }
    }),
  )
  const testers = Array.from({ length: TESTERS }, (_, k) => new Tester(k, cookie, jobs[k % jobs.length]!))
  let isOver = false
  const working = Promise.all(testers.map((one) => one.work(() => isOver)))
  const count = (): number => testers.reduce((sum, one) => sum + one.acknowledged.length, 0)
  const feedSeen = async (): Promise<number> => {
    const { body } = await knock<{ samples: unknown[] }>('tester', `/api/jobs/${demo.job.open}/feed`)
    return body.samples?.length ?? 0
  }
  await wait(8000)
  said(`all is well: ${count()} readings acknowledged`)
  nodes[0]!.kill('SIGSTOP')
  said('node 0 is cut off: it stands still and answers nobody')
  await wait(15_000)
  said(`${count()} acknowledged; the feed gave ${await feedSeen().catch(() => 'nothing')} samples`)
  nodes[0]!.kill('SIGCONT')
  await nodes[0]!.untilWell()
  said('node 0 is back')
  await wait(3000)
  nodes[1]!.kill('SIGKILL')
  said('node 1 is killed')
  await wait(12_000)
  said(`${count()} acknowledged`)
  nodes[1]!.start(nodes, false)
  await nodes[1]!.untilWell()
  said('node 1 is back')
  await wait(8000)
  isOver = true
  await working
  said(`over: ${count()} acknowledged, ${testers.reduce((sum, one) => sum + one.resent, 0)} sent again`)
  said(`the longest that one reading took: ${(Math.max(...testers.map((one) => one.longest_ms)) / 1000).toFixed(1)} s`)
  said(`doors switched ${doors.reduce((sum, one) => sum + one.switched, 0)} times`)
  const acknowledged = testers.flatMap((one) => one.acknowledged)
  for (const node of nodes) {
    const db = await mysql.createConnection(urlAt(node.port))
    const [rows] = await db.query(`SELECT id, job_id AS job, seq FROM ${DATABASE}.entry`)
    await db.end()
    const there = rows as { id: string; job: string; seq: number }[]
    const ids = new Set(there.map((row) => row.id))
    const lost = acknowledged.filter((id) => !ids.has(id)).length
    const gaps = jobs.filter(({ id }) => {
      const places = there.filter((row) => row.job === id).map((row) => row.seq)
      return places.length !== Math.max(0, ...places)
    }).length
    said(`node ${node.number}: lost ${lost}, twice ${there.length - ids.size}, jobs with a gap in their places ${gaps}`)
  }
  said(`the feed gives ${await feedSeen()} samples`)
} finally {
  for (const one of applications) await one.stop().catch(() => undefined)
  for (const door of doors) door.close()
  for (const node of nodes) node.kill('SIGCONT')
  for (const node of nodes) node.kill('SIGKILL')
  await wait(500)
  if (!process.env.KEEP) await rm(folder, { recursive: true, force: true })
}
process.exit(0)
