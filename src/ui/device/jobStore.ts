/**
 * One opened job on this device. Every write goes to the queue first, also online, and from there in order to the
 * server; what is shown is always computed from the bundle and the queue together.
 */
import { v7 as uuid } from 'uuid'
import { type Evaluation, evaluateNext } from '@/core/evaluate'
import type { Entry, EntryBody, SentEntry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { Answered, Line, NoReception } from './api'
import { DeviceClock } from './deviceClock'
import { type Answer, mergeFacts } from './mergeFacts'
import { Outbox } from './outbox'
import { type Bundle, type Device, device, type KeptPhoto, type Me, type Queued, type Right } from './store'

type About = { partId?: string | null; step?: string | null }
type FactsAnswer = { facts: Answer; right: Right; partial: boolean; frame: string; seq: number; last?: string | null }

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
  /** Why nothing can be sent though there is reception, in words, and what waits for that. */
  held: { reason: string; code: string; queued: Queued[] } | null
  savedAt: string | null
  /** Set where the device itself could not keep an entry: entering stops. */
  notSaved: string | null
}

const PULL_EVERY_ms = 15_000
const CLOCK_OFFSET = 'clock-offset'

/** What a job stands on: the device that it is opened on, its clock, and its line to the office. */
export type Ground = {
  device: Device
  clock: DeviceClock
  fetch?: (path: string, request: RequestInit) => Promise<Response>
}

export class JobStore {
  private facts: Facts | null = null
  private right: Right = 'viewer'
  private reached: Bundle['reached'] | null = null
  private readonly device: Device
  private readonly clock: DeviceClock
  private readonly line: Line
  private readonly outbox: Outbox
  private readonly listeners = new Set<() => void>()
  private snapshot: Snapshot
  private syncing: Promise<void> | null = null
  private again = false
  private timer: ReturnType<typeof setInterval> | null = null
  /** Entries that the device is just taking: they wait too, though the queue has not got them yet. */
  private putting = 0

  constructor(
    readonly jobId: string,
    readonly me: Me,
    ground: Ground = { device: device(), clock: new DeviceClock() },
  ) {
    this.device = ground.device
    this.clock = ground.clock
    const { fetch } = ground
    this.line = new Line({ person: () => me.id, clock: ground.clock, ...(fetch ? { fetch } : {}) })
    this.outbox = new Outbox({ jobId, personId: me.id }, ground.device, this.line, ground.clock)
    this.snapshot = {
      phase: 'loading',
      why: null,
      facts: null,
      evaluation: null,
      right: 'viewer',
      waiting: 0,
      rejected: [],
      reception: true,
      held: null,
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
    const queued = this.outbox.waiting
    const { blocked } = this.outbox
    this.show({
      facts,
      evaluation: facts ? evaluateNext(this.snapshot.evaluation, facts, Date.now()) : null,
      right: this.right,
      waiting: queued.length + this.putting,
      rejected: this.outbox.rejected,
      held: blocked && { ...blocked, queued },
      ...change,
    })
  }

  private show(change: Partial<Snapshot>): void {
    this.snapshot = { ...this.snapshot, ...change }
    for (const listener of this.listeners) listener()
  }

  /** From the moment that somebody keeps something, no screen says that all is at the office. */
  private async countedAsWaiting<T>(count: number, put: () => Promise<T>): Promise<T> {
    this.putting += count
    this.show({ waiting: this.outbox.waiting.length + this.putting })
    return put().finally(() => {
      this.putting -= count
    })
  }

  private factsWithQueue(facts: Facts): Facts {
    const known = new Set(facts.entries.map((entry) => entry.id))
    const waiting = this.outbox.waiting.filter((one) => !known.has(one.id)).map((one) => one.entry)
    return waiting.length === 0 ? facts : { ...facts, entries: [...facts.entries, ...waiting] }
  }

  /** Shows what the device holds, then asks the server. */
  async open(): Promise<void> {
    const key = [this.me.id, this.jobId] as [string, string]
    const bundle = await this.device.inGoodTime(() => this.device.bundles.get(key))
    await this.outbox.reload()
    const offset = await this.device.inGoodTime(() => this.device.recall<number>(CLOCK_OFFSET))
    if (typeof offset === 'number') this.clock.resume(offset)
    if (bundle) {
      this.facts = bundle.facts
      this.right = bundle.right
      this.reached = bundle.reached ?? null
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
    if (!(await this.countedAsWaiting(queued.length, () => this.outbox.put(queued)))) {
      this.publish({ notSaved: 'device' })
      return false
    }
    this.publish({ savedAt: queued.at(-1)?.addedAt ?? null, notSaved: null })
    void this.sync()
    return true
  }

  private queuedOf(body: EntryBody, { partId = null, step = null }: About, visitId: string): Queued {
    const { deviceTime, clock } = this.clock.stamp()
    const { jobId, me } = this
    const sent: SentEntry = {
      id: uuid(),
      jobId,
      visitId,
      partId,
      step,
      deviceTime,
      clockOffset_ms: clock.offset_ms,
      body,
    }
    return {
      id: sent.id,
      personId: me.id,
      jobId,
      entry: { ...sent, personId: me.id, receivedAt: null } as Entry,
      state: 'waiting',
      reason: null,
      addedAt: deviceTime,
      clock,
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
    const put = () => this.device.inGoodTime(() => this.device.photos.put(kept).then(() => true))
    if ((await this.countedAsWaiting(1, put)) !== true) {
      this.publish({ notSaved: 'device' })
      return false
    }
    const { sha256, takenAt } = photo
    return this.add({ kind: 'photo', v: 1, attachment: id, sha256, takenAt, caption }, about)
  }

  /** Takes a refused entry off the device, once its maker has read why. */
  async drop(id: string): Promise<void> {
    await this.outbox.drop(id)
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
    } while (this.again && !this.closed)
  }

  private async syncOnce(): Promise<void> {
    if (this.closed) return
    try {
      await this.outbox.reload()
      // What a clock that was moved dated is sent once the office's time is known.
      if (this.outbox.waiting.length > 0 && !this.clock.isMeasured) await this.pull()
      await this.outbox.send(
        async (kept) => {
          this.takeKept(kept)
          await this.device.inGoodTime(() => this.keepBundle())
        },
        () => this.closed,
      )
      if (this.closed) return
      await this.pull()
      this.outbox.blocked = null
      this.publish({ reception: true })
    } catch (error) {
      if (error instanceof NoReception) {
        this.publish({ reception: false, ...(this.facts ? {} : { phase: 'missing', why: null }) })
      } else if (error instanceof Answered) {
        if (error.status === 401) window.location.replace('/sign-in')
        this.outbox.blocked = { reason: error.message, code: error.code }
        this.publish({ reception: true, ...(this.facts ? {} : { phase: 'missing', why: error.message }) })
      } else throw error
    }
  }

  /** The time by the office's clock, as far as this device knows it, ms since 1970: what instruments send is dated by that. */
  officeTime = (): number => this.clock.officeTime()

  private takeKept(kept: readonly Entry[]): void {
    if (!this.facts) return
    const known = new Set(this.facts.entries.map((entry) => entry.id))
    const fresh = kept.filter((entry) => !known.has(entry.id))
    this.facts = { ...this.facts, entries: [...this.facts.entries, ...fresh] }
  }

  private async pull(): Promise<void> {
    const reached = this.facts ? this.reached : null
    const asked = reached ? `?after=${reached.seq}&last=${reached.last ?? ''}&frame=${reached.frame}` : ''
    const answer = await this.line.ask<FactsAnswer>(`/api/jobs/${this.jobId}/facts${asked}`)
    void this.device.remember(CLOCK_OFFSET, this.clock.dated().offset_ms).catch(() => undefined)
    if (!answer.partial) await this.giveBack(answer.facts.entries)
    this.facts = mergeFacts(this.facts, answer.facts, answer.partial)
    this.right = answer.right
    this.reached = { seq: answer.seq, frame: answer.frame, last: answer.last ?? null }
    this.publish({ phase: 'ready', why: null, savedAt: new Date().toISOString() })
    await this.device.inGoodTime(() => this.keepBundle())
  }

  /** What the office had of this person and has no longer, as after it put an older backup back, is sent again. */
  private async giveBack(there: readonly Entry[]): Promise<void> {
    const known = new Set([...there.map((one) => one.id), ...this.outbox.ids])
    const lost = (this.facts?.entries ?? []).filter((one) => one.personId === this.me.id && !known.has(one.id))
    if (lost.length === 0 || this.right === 'viewer') return
    const addedAt = this.clock.stamp().deviceTime
    await this.outbox.put(
      lost.map((entry) => ({
        id: entry.id,
        personId: this.me.id,
        jobId: this.jobId,
        entry: { ...entry, receivedAt: null } as Entry,
        state: 'waiting',
        reason: null,
        addedAt,
        // Its time was settled long ago.
        clock: { epoch: '', offset_ms: entry.clockOffset_ms, measured: true },
      })),
    )
    this.again = true
  }

  private async keepBundle(): Promise<void> {
    const { facts, right, reached } = this
    if (!facts) return
    const fetchedAt = new Date().toISOString()
    const bundle: Bundle = {
      personId: this.me.id,
      jobId: this.jobId,
      facts,
      right,
      fetchedAt,
      ...(reached ? { reached } : {}),
    }
    await this.device.bundles.put(bundle)
  }
}
