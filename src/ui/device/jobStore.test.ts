import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Facts } from '@/core/record/facts'
import { stepKey } from '@/core/evaluate'
import { readStepById } from '@/core/steps'
import { exampleBoard, exampleCircuit } from '@/core/steps/worked'
import { FactsBuilder, people, readingBody, testId } from '@/core/testing/factsBuilder'
import { JobStore } from './jobStore'
import { device, type Me } from './store'

const me: Me = { id: people.wren, name: 'Wren', role: 'tester', demo: false }
type Sent = { entries: { id: string; body: { kind: string; text?: string } }[] }

/** An office that can lose its line, and refuses what it is told to. */
class Office {
  facts: Facts = new FactsBuilder(false).facts()
  line = true
  readonly batches: Sent[] = []
  refuse: (id: string, text: string) => { fate: string; reason: string } | null = () => null

  fetch = async (path: string | URL | Request, init?: RequestInit): Promise<Response> => {
    if (!this.line) throw new TypeError('Failed to fetch')
    const serverTime = new Date().toISOString()
    if (String(path).endsWith('/entries')) {
      const sent = JSON.parse(String(init?.body)) as Sent
      this.batches.push(sent)
      const fates = sent.entries.map((entry) => {
        const refused = this.refuse(entry.id, entry.body.text ?? '')
        if (refused) return { id: entry.id, ...refused }
        const known = this.facts.entries.some((one) => one.id === entry.id)
        if (!known)
          this.facts.entries.push({
            ...(entry as never as Facts['entries'][number]),
            personId: me.id,
            receivedAt: serverTime,
          })
        return { id: entry.id, fate: known ? 'already' : 'kept', receivedAt: serverTime }
      })
      return Response.json({ fates }, { headers: { 'upstand-time': serverTime } })
    }
    const [facts, seq] = [structuredClone(this.facts), this.facts.entries.length]
    const answer = { facts, right: 'tester', partial: false, frame: 'f', seq }
    return Response.json(answer, { headers: { 'upstand-time': serverTime } })
  }
}

let office: Office
const opened: JobStore[] = []
async function open(who: Me = me, jobId = office.facts.job.id): Promise<JobStore> {
  const store = new JobStore(jobId, who)
  opened.push(store)
  await store.open()
  return store
}
const remark = (text: string) => ({ kind: 'remark', v: 1, text }) as const

beforeEach(async () => {
  office = new Office()
  vi.stubGlobal('window', { addEventListener: () => undefined, removeEventListener: () => undefined })
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) => office.fetch(path, init))
  await Promise.all([device().queue.clear(), device().bundles.clear(), device().kept.clear()])
})
afterEach(() => {
  for (const store of opened.splice(0)) store.close()
  vi.unstubAllGlobals()
})

describe('the queue of a device', () => {
  it('keeps an entry first, shows it at once, and sends it', async () => {
    const store = await open()
    expect(await store.add(remark('dry'))).toBe(true)
    expect(store.read().facts!.entries.at(-1)!.body).toMatchObject({ text: 'dry' })
    await store.sync()
    expect(store.read()).toMatchObject({ waiting: 0, reception: true })
    expect(await device().queue.count()).toBe(0)
    expect(office.facts.entries.map((one) => one.body)).toEqual([remark('dry')])
  })

  it('sends again what the office had and has no longer, of its own person and with its own time', async () => {
    const store = await open()
    await store.add(remark('kept'))
    await store.sync()
    const { clockOffset_ms, deviceTime, id } = office.facts.entries[0]!
    office.facts.entries.push({ ...office.facts.entries[0]!, id: testId(0xbeef), personId: people.ada })
    await store.sync()
    office.facts.entries = []
    await store.sync()
    expect(office.facts.entries).toEqual([expect.objectContaining({ id, clockOffset_ms, deviceTime })])
    expect(store.read()).toMatchObject({ waiting: 0, rejected: [] })
  })

  it('sends in the order in which it was kept', async () => {
    const store = await open()
    office.line = false
    for (const text of ['one', 'two', 'three']) await store.add(remark(text))
    office.line = true
    await store.sync()
    expect(office.batches.flatMap((batch) => batch.entries.map((one) => one.body.text))).toEqual([
      'one',
      'two',
      'three',
    ])
  })

  it('outlives a closed tab without reception, and sends each entry once', async () => {
    const first = await open()
    office.line = false
    for (const text of ['one', 'two']) await first.add(remark(text))
    await first.sync()
    expect(first.read()).toMatchObject({ waiting: 2, reception: false })
    first.close()

    const again = await open()
    expect(again.read()).toMatchObject({ phase: 'ready', waiting: 2 })
    expect(again.read().facts!.entries.length).toBe(2)
    office.line = true
    await again.sync()
    await again.sync()
    expect(again.read().waiting).toBe(0)
    expect(office.facts.entries.length).toBe(2)
  })

  it('takes "already" as kept: an answer that was lost costs nothing', async () => {
    const store = await open()
    office.line = false
    await store.add(remark('twice'))
    const [queued] = await device().queue.all()
    office.facts.entries.push({ ...queued!.entry, receivedAt: new Date().toISOString() })
    office.line = true
    await store.sync()
    expect(store.read()).toMatchObject({ waiting: 0, rejected: [] })
    expect(store.read().facts!.entries.filter((one) => one.id === queued!.id).length).toBe(1)
  })

  it('keeps a refused entry with its reason, and the others go', async () => {
    office.refuse = (_, text) => (text === 'bad' ? { fate: 'refused', reason: 'not as it must be' } : null)
    const store = await open()
    office.line = false
    for (const text of ['good', 'bad', 'fine']) await store.add(remark(text))
    office.line = true
    await store.sync()
    expect(store.read()).toMatchObject({ waiting: 0, rejected: [{ state: 'refused', reason: 'not as it must be' }] })
    expect(office.facts.entries.length).toBe(2)
    await store.sync()
    expect(office.batches.length).toBe(1)
    await store.drop(store.read().rejected[0]!.id)
    expect(await device().queue.count()).toBe(0)
  })

  it('has each entry in the queue or in the bundle at every moment, so that no reload without reception misses one', async () => {
    const store = await open()
    const inBundle: boolean[] = []
    const real = device().queue.delete.bind(device().queue)
    const leaving = vi.spyOn(device().queue, 'delete').mockImplementation(async (id) => {
      const bundle = await device().bundles.get([me.id, office.facts.job.id])
      inBundle.push(bundle?.facts.entries.some((entry) => entry.id === id) ?? false)
      await real(id)
    })
    for (const text of ['one', 'two', 'three']) await store.add(remark(text))
    await store.sync()
    expect(inBundle).toEqual([true, true, true])
    leaving.mockRestore()
  })

  it('asks for each by itself where the door takes offence at all, and shows what went before the line broke', async () => {
    const store = await open()
    office.line = false
    for (const text of ['one', 'two', 'three']) await store.add(remark(text))
    office.line = true
    const whole = office.fetch
    let [asked, isDown] = [0, true]
    office.fetch = async (path, init) => {
      const isBatch = String(path).endsWith('/entries')
      if (isBatch && asked++ === 0) return Response.json({ title: 'too much at once' }, { status: 413 })
      if (isDown && asked >= 4) throw new TypeError('Failed to fetch')
      return whole(path, init)
    }
    await store.sync()
    expect(store.read()).toMatchObject({ waiting: 1, rejected: [], reception: false })
    expect(store.read().facts!.entries.map((one) => one.body)).toMatchObject(['one', 'two', 'three'].map(remark))
    isDown = false
    await store.sync()
    expect(store.read()).toMatchObject({ waiting: 0, reception: true })
    expect(office.facts.entries.length).toBe(3)
  })

  it('never sends one person’s queue under another’s name', async () => {
    const hers = await open()
    office.line = false
    await hers.add(remark('hers'))
    hers.close()
    office.line = true
    const his = await open({ ...me, id: people.ada, name: 'Ada' })
    await his.sync()
    expect(his.read().waiting).toBe(0)
    expect(office.facts.entries.length).toBe(0)
    expect(await device().queue.count()).toBe(1)
  })

  it('counts what is kept as waiting from the very moment, before the device has it', async () => {
    const store = await open()
    const shown: number[] = []
    store.subscribe(() => shown.push(store.read().waiting))
    const kept = store.addAll(['one', 'other'].map((text) => ({ body: remark(text), about: {} })))
    expect(shown).toEqual([2])
    expect(await kept).toBe(true)
    expect(shown.every((count) => count === 2)).toBe(true)
    await store.sync()
    expect(shown.at(-1)).toBe(0)
  })

  it('says so when the device itself cannot keep an entry', async () => {
    const store = await open()
    const put = vi
      .spyOn(device().queue, 'putAll')
      .mockImplementation((() => Promise.reject(new DOMException('full', 'QuotaExceededError'))) as never)
    expect(await store.add(remark('no room'))).toBe(false)
    expect(store.read().notSaved).not.toBeNull()
    expect(store.read()).toMatchObject({ waiting: 0, facts: { entries: [] } })
    put.mockRestore()
    expect(await store.add(remark('room again'))).toBe(true)
    expect(store.read().notSaved).toBeNull()
  })

  it('keeps a reading for a whole board at once, and evaluates it once', async () => {
    const build = new FactsBuilder()
    const board = build.part(exampleBoard)
    const circuits = Array.from({ length: 20 }, (_, k) =>
      build.part({ ...exampleCircuit, tag: `${k + 1}`, boardId: board, rcdId: null }),
    )
    office.facts = build.facts()
    const store = await open()
    office.line = false
    const evaluations = new Set([store.read().evaluation])
    store.subscribe(() => evaluations.add(store.read().evaluation))
    const body = readingBody(readStepById('ac-insulation')!.example.reading!)
    const kept = store.addAll(circuits.map((partId) => ({ body, about: { partId, step: 'ac-insulation' } })))
    expect(await kept).toBe(true)
    const read = [...evaluations].map(
      (one) => one!.steps.filter((step) => step.step.id === 'ac-insulation' && step.counting !== null).length,
    )
    expect(read.filter((count) => count !== 0 && count !== circuits.length)).toEqual([])
    expect(read.at(-1)).toBe(circuits.length)
  })

  it('evaluates nothing anew when the office says that it has what was sent', async () => {
    const build = new FactsBuilder()
    const [one, other] = [build.string('1'), build.string('2')]
    office.facts = build.facts()
    const store = await open()
    const about = { partId: one, step: 'pv-polarity' }
    await store.add(readingBody({ slots: { polarity: { choice: 'correct' } } }), about)
    const before = store.read().evaluation!
    await store.sync()
    const after = store.read().evaluation!
    expect(store.read().waiting).toBe(0)
    for (const part of [one, other]) {
      const key = stepKey('pv-polarity', part)
      expect(after.byKey.get(key)).toBe(before.byKey.get(key))
    }
    expect(after.facts.entries.every((entry) => entry.receivedAt !== null)).toBe(true)
  })

  it('is missing, in words, where neither device nor office has the job', async () => {
    office.line = false
    const store = await open(me, testId(0xdead))
    expect(store.read()).toMatchObject({ phase: 'missing', reception: false })
  })

  it('carries the offset of the office’s clock', async () => {
    const real = office.fetch
    office.fetch = async (path, init) => {
      const answer = await real(path, init)
      const serverTime = new Date(Date.now() + 3_600_000).toISOString()
      return Response.json(await answer.json(), { headers: { 'upstand-time': serverTime } })
    }
    const store = await open()
    await store.add(remark('by my clock'))
    await store.sync()
    const offset = office.facts.entries[0]!.clockOffset_ms
    expect(Math.abs(offset - 3_600_000)).toBeLessThan(2000)
  })
})
