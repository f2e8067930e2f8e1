/** Big jobs of invented data on an instance that runs already, made through its own doors. */
import { v7 as uuid } from 'uuid'
import type { PartData, PartKind } from '@/core/plant/part'
import type { Entry, SlotValue } from '@/core/record/entry'
import { choose, over, read } from '@/core/testing/installation'
import { readingBody } from '@/core/testing/factsBuilder'
import { demo, knock } from '../tests/support/server'

export const STRINGS = 400
const READ = 300
export const CIRCUITS = 200
export const FEW_CIRCUITS = 8
const IN_A_BATCH = 150
const BACK_ms = 3_600_000

/** A job that is filled entry by entry, one a second, and sent in batches. */
class BigJob {
  readonly id = uuid()
  private readonly visitId = uuid()
  private readonly entries: object[] = []
  private at = Date.now() - BACK_ms

  async open(letter: string, name: string): Promise<this> {
    const number = `${letter}${Date.now() % 1e8}`
    const people = [demo.person.tester]
    await knock('supervisor', '/api/jobs', { id: this.id, visitId: this.visitId, number, name, place: '', people })
    return this
  }

  add(body: object, partId: string, step: string | null): string {
    const id = uuid()
    this.at += 1000
    const deviceTime = new Date(this.at).toISOString()
    const about = { jobId: this.id, visitId: this.visitId, partId, step, deviceTime, clockOffset_ms: 0 }
    this.entries.push({ id, ...about, body })
    return id
  }

  /** Enters a part; gives its id and the revision that readings of it see. */
  part(data: object, id = uuid()): { id: string; plantRevision: string } {
    return {
      id,
      plantRevision: this.add({ kind: 'plant-change', v: 1, before: null, after: data, base: null }, id, null),
    }
  }

  async send(): Promise<string> {
    for (let from = 0; from < this.entries.length; from += IN_A_BATCH)
      await knock('tester', `/api/jobs/${this.id}/entries`, { entries: this.entries.slice(from, from + IN_A_BATCH) })
    return this.id
  }
}

async function entriesOf(jobId: string): Promise<Entry[]> {
  const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${jobId}/facts`)
  return body.facts.entries
}

/** The first part of a kind that a job of the demo has. */
function firstPart(entries: readonly Entry[], kind: PartKind): PartData {
  const parts = entries.flatMap(({ body }) => (body.kind === 'plant-change' && body.after ? [body.after] : []))
  return parts.find((part) => part.kind === kind)!
}

/** A job of many strings, polarity of all and voltage of most read. */
export async function manyStrings(count = STRINGS): Promise<string> {
  const entries = await entriesOf(demo.job.mill)
  const string = firstPart(entries, 'string')
  const bodyOf = (step: string): object => entries.find((entry) => entry.step === step)!.body
  const job = await new BigJob().open('B', 'Bench field')
  const field = job.part({ kind: 'array', tag: 'Field', tilt_deg: 25, azimuth_deg: 180, mounting: 'open-rack' })
  const strings = Array.from({ length: count }, (_, k) =>
    job.part({ ...string, tag: String(k + 1), arrayId: field.id }),
  )
  for (const [k, { id, plantRevision }] of strings.entries()) {
    job.add({ ...bodyOf('pv-polarity'), plantRevision }, id, 'pv-polarity')
    if (k < READ) job.add({ ...bodyOf('pv-voc'), plantRevision }, id, 'pv-voc')
  }
  return job.send()
}

/** A job of so many circuits on four boards, proved dead, dead tests and loops of three quarters of them read. */
export async function manyCircuits(count: number, onBoards = 4): Promise<string> {
  const entries = await entriesOf(demo.job.workshop)
  const job = await new BigJob().open(`C${count}`, 'Bench works')
  const supply = job.part(firstPart(entries, 'supply'))
  const boards = Array.from({ length: onBoards }, () => uuid())
  for (const [k, id] of boards.entries())
    job.part({ ...firstPart(entries, 'board'), tag: `DB${k + 1}`, boardId: k === 0 ? null : boards[0]! }, id)
  const circuit = { ...firstPart(entries, 'circuit'), rcdId: null, phases: 1 }
  for (let k = 0; k < count; k++) {
    const { id, plantRevision } = job.part({ ...circuit, tag: String(k + 1), boardId: boards[k % boards.length]! })
    if (k >= 0.75 * count) continue
    const take = (step: string, slots: Record<string, SlotValue>): void => {
      job.add(readingBody({ slots, plantRevision, place: null }), id, step)
    }
    take('r1r2', { r1r2: read(0.3 + k / 1000) })
    const most = over(999, 'Mohm')
    const setUp = { pairing: choose('pair-by-pair'), devices: choose('all-on'), surge: choose('none-there') }
    take('ac-insulation', { ...setUp, 'l-n': most, 'l-pe': most, 'n-pe': most })
    take('zs', { 'loop-method': choose('non-trip'), zs: read(0.5 + k / 1000) })
  }
  // Dead again after the loops: what is read next is continuity.
  const dead = ['other-sources-off', 'tester-proved', 'all-pairs-dead', 'locked-off', 'tester-proved-again']
  const asItShould = Object.fromEntries(dead.map((line) => [line, choose('as-it-should')]))
  job.add(readingBody({ slots: asItShould, plantRevision: supply.plantRevision, place: null }), supply.id, 'prove-dead')
  return job.send()
}
