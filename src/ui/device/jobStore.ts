/**
 * One opened job on this device. Every write goes to the queue first, also online, and from there in order to the
 * server; what is shown is always computed from the bundle and the queue together.
 */
import { v7 as uuid } from 'uuid'
import { type Evaluation, evaluateNext } from '@/core/evaluate'
import { offsetAfter } from './clockOffset'
import { mergeFacts } from './mergeFacts'
import type { Entry, EntryBody, SentEntry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { Answered, ask, NoReception, sendPicture } from './api'
import {
  type Bundle,
  device,
  inGoodTime,
  type KeptPhoto,
  type Me,
  type Queued,
  type Right,
  recall,
  remember,
  queueOf,
  unsentPhotos,
} from './store'

type Fate = { id: string; fate: 'kept' | 'already' | 'conflict' | 'refused'; reason?: string; receivedAt?: string }
type About = { partId?: string | null; step?: string | null }
type FactsAnswer = { facts: Facts; right: Right; partial: boolean; serverTime: string }

export type Snapshot = {
  phase: 'loading' | 'ready' | 'missing'
  /** Why a job is missing, in words. */
  why: string | null
  facts: Facts | null
  evaluation: Evaluation | null
  right: Right
  waiting: number
  rejected: Queued[]
  reception: boolean
  savedAt: string | null
  /** Set where the device itself could not keep an entry: entering stops. */
  notSaved: string | null
}

const BATCH = 100
const PULL_EVERY_ms = 15_000

export class JobStore {
  private facts: Facts | null = null
  private queue: Queued[] = []
  private right: Right = 'viewer'
  private newestReceived: string | null = null
  private clockOffset_ms = 0
  private readonly listeners = new Set<() => void>()
  private snapshot: Snapshot
  private syncing: Promise<void> | null = null
  private again = false
  private timer: ReturnType<typeof setInterval> | null = null

  constructor(
    readonly jobId: string,
    readonly me: Me,
  ) {
    this.snapshot = {
      phase: 'loading',
      why: null,
      facts: null,
      evaluation: null,
      right: 'viewer',
      waiting: 0,
      rejected: [],
      reception: true,
      savedAt: null,
      notSaved: null,
    }
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  read = (): Snapshot => this.snapshot

  private publish(change: Partial<Snapshot> = {}): void {
    const facts = this.facts ? this.factsWithQueue(this.facts) : null
    this.snapshot = {
      ...this.snapshot,
      facts,
      evaluation: facts ? evaluateNext(this.snapshot.evaluation, facts, Date.now()) : null,
      right: this.right,
      waiting: this.queue.filter((one) => one.state === 'waiting').length,
      rejected: this.queue.filter((one) => one.state !== 'waiting'),
      ...change,
    }
    for (const listener of this.listeners) listener()
  }

  private factsWithQueue(facts: Facts): Facts {
    const known = new Set(facts.entries.map((entry) => entry.id))
    const waiting = this.queue.filter((one) => one.state === 'waiting' && !known.has(one.id)).map((one) => one.entry)
    return waiting.length === 0 ? facts : { ...facts, entries: [...facts.entries, ...waiting] }
  }

  /** Shows what the device holds, then asks the server. */
  async open(): Promise<void> {
    const key = [this.me.id, this.jobId] as [string, string]
    const bundle = await inGoodTime(() => device().bundles.get(key))
    this.queue = (await inGoodTime(() => queueOf(this.me.id, this.jobId))) ?? []
    this.clockOffset_ms = (await inGoodTime(() => recall<number>('clock-offset'))) ?? 0
    if (bundle) {
      this.facts = bundle.facts
      this.right = bundle.right
      this.newestReceived = bundle.newestReceived
      this.publish({ phase: 'ready', savedAt: bundle.fetchedAt })
    }
    this.timer = setInterval(() => void this.sync(), PULL_EVERY_ms)
    window.addEventListener('online', this.onOnline)
    await this.sync()
  }

  /** A store that is closed sends nothing more: whoever signs in next must not send it under another name. */
  private closed = false

  close(): void {
    this.closed = true
    if (this.timer) clearInterval(this.timer)
    window.removeEventListener('online', this.onOnline)
  }
  private readonly onOnline = (): void => void this.sync()

  /** Keeps an entry on the device, shows it, and sends it when it can. Gives false where the device could not keep it. */
  add(body: EntryBody, about: About = {}): Promise<boolean> {
    return this.addAll([{ body, about }])
  }

  /** Keeps several entries, all or none: one reading that speaks for many parts is shown and evaluated once. */
  async addAll(all: readonly { body: EntryBody; about: About }[]): Promise<boolean> {
    const visitId = this.facts?.visits.at(-1)?.id
    if (!visitId) return false
    const queued = all.map(({ body, about }) => this.queuedOf(body, about, visitId))
    // Kept on the device before it is shown: where that does not succeed, entering stops.
    const kept = await inGoodTime(() => device().queue.putAll(queued))
    if (kept === null) {
      this.publish({ notSaved: 'device' })
      return false
    }
    this.queue.push(...queued)
    this.publish({ savedAt: queued.at(-1)?.addedAt ?? null, notSaved: null })
    void this.sync()
    return true
  }

  private queuedOf(body: EntryBody, { partId = null, step = null }: About, visitId: string): Queued {
    const sent: SentEntry = {
      id: uuid(),
      jobId: this.jobId,
      visitId,
      partId,
      step,
      deviceTime: new Date().toISOString(),
      clockOffset_ms: this.clockOffset_ms,
      body,
    }
    return {
      id: sent.id,
      personId: this.me.id,
      jobId: this.jobId,
      entry: { ...sent, personId: this.me.id, receivedAt: null } as Entry,
      state: 'waiting',
      reason: null,
      addedAt: sent.deviceTime,
    }
  }

  /** Keeps a picture on the device, then the entry that names it; both are sent when they can be. */
  async addPhoto(
    photo: { blob: Blob; sha256: string; takenAt: string | null },
    caption: string,
    about: { partId: string | null; step: string | null },
  ): Promise<boolean> {
    const id = uuid()
    const kept: KeptPhoto = { id, personId: this.me.id, jobId: this.jobId, blob: photo.blob, sent: 0 }
    if ((await inGoodTime(() => device().photos.put(kept))) === null) {
      this.publish({ notSaved: 'device' })
      return false
    }
    const { sha256, takenAt } = photo
    return this.add({ kind: 'photo', v: 1, attachment: id, sha256, takenAt, caption }, about)
  }

  /** Pictures go before the entries that name them, so that nobody at the office looks for one in vain. */
  private async pushPhotos(): Promise<void> {
    const waiting = (await inGoodTime(() => unsentPhotos(this.me.id, this.jobId))) ?? []
    for (const one of waiting) {
      if (this.closed) return
      await sendPicture(`/api/jobs/${this.jobId}/attachments/${one.id}`, one.blob)
      await device().photos.put({ ...one, sent: 1 })
    }
  }

  /** Takes a refused entry off the device, once its maker has read why. */
  async drop(id: string): Promise<void> {
    await device().queue.delete(id)
    this.queue = this.queue.filter((one) => one.id !== id)
    this.publish()
  }

  /** Sends what waits, then fetches what others wrote. One at a time; a call meanwhile runs it once more. */
  sync(): Promise<void> {
    if (this.syncing) {
      this.again = true
      return this.syncing
    }
    this.syncing = this.syncUntilQuiet().finally(() => {
      this.syncing = null
    })
    return this.syncing
  }

  private async syncUntilQuiet(): Promise<void> {
    do {
      this.again = false
      await this.syncOnce()
    } while (this.again)
  }

  private async syncOnce(): Promise<void> {
    try {
      await this.pushPhotos()
      while (await this.pushBatch()) {
        /* until nothing waits */
      }
      await this.pull()
      this.publish({ reception: true })
    } catch (error) {
      if (error instanceof NoReception) {
        this.publish({ reception: false, ...(this.facts ? {} : { phase: 'missing', why: null }) })
      } else if (error instanceof Answered) {
        if (error.status === 401) window.location.replace('/sign-in')
        this.publish({ reception: true, ...(this.facts ? {} : { phase: 'missing', why: error.message }) })
      } else throw error
    }
  }

  /** The time by the office's clock, as far as this device knows it, ms since 1970: what instruments send is dated by that. */
  officeTime = (): number => Date.now() + this.clockOffset_ms

  private async pushBatch(): Promise<boolean> {
    const waiting = this.queue.filter((one) => one.state === 'waiting').slice(0, BATCH)
    if (waiting.length === 0 || this.closed) return false
    const entries = waiting.map(({ entry: { personId: _, receivedAt: __, ...sent } }) => ({
      ...sent,
      clockOffset_ms: this.clockOffset_ms,
    }))
    const answer = await ask<{ fates: Fate[] }>(`/api/jobs/${this.jobId}/entries`, { entries })
    const fates = new Map(answer.fates.map((one) => [one.id, one]))
    for (const one of waiting) await this.settle(one, fates.get(one.id))
    await inGoodTime(() => this.keepBundle())
    return true
  }

  private async settle(one: Queued, fate: Fate | undefined): Promise<void> {
    if (!fate) throw new NoReception()
    if (fate.fate === 'kept' || fate.fate === 'already') {
      const receivedAt = fate.receivedAt ?? new Date().toISOString()
      if (this.facts && !this.facts.entries.some((entry) => entry.id === one.id)) {
        this.facts = { ...this.facts, entries: [...this.facts.entries, { ...one.entry, receivedAt }] }
      }
      this.queue = this.queue.filter((other) => other !== one)
      await device().queue.delete(one.id)
      return
    }
    const rejected: Queued = { ...one, state: fate.fate, reason: fate.reason ?? null }
    this.queue = this.queue.map((other) => (other === one ? rejected : other))
    await device().queue.put(rejected)
  }

  private async pull(): Promise<void> {
    const sent = Date.now()
    const since = this.facts && this.newestReceived ? `?since=${encodeURIComponent(this.newestReceived)}` : ''
    const answer = await ask<FactsAnswer>(`/api/jobs/${this.jobId}/facts${since}`)
    const contact = { sent, received: Date.now(), serverTime: Date.parse(answer.serverTime) }
    this.clockOffset_ms = offsetAfter(contact, this.clockOffset_ms)
    void remember('clock-offset', this.clockOffset_ms)
    this.facts = mergeFacts(this.facts, answer.facts, answer.partial)
    this.right = answer.right
    this.newestReceived = newest(this.facts.entries)
    this.publish({ phase: 'ready', why: null, savedAt: new Date().toISOString() })
    await inGoodTime(() => this.keepBundle())
  }

  private async keepBundle(): Promise<void> {
    if (!this.facts) return
    const bundle: Bundle = {
      personId: this.me.id,
      jobId: this.jobId,
      facts: this.facts,
      right: this.right,
      fetchedAt: new Date().toISOString(),
      newestReceived: this.newestReceived,
    }
    await device().bundles.put(bundle)
  }
}

function newest(entries: readonly Entry[]): string | null {
  let found: string | null = null
  for (const { receivedAt } of entries) if (receivedAt && (!found || receivedAt > found)) found = receivedAt
  return found
}
