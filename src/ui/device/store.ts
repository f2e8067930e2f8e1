/** The device's own database: facts bundles, the queue of what is not sent yet, and who is here. */
import { type IDBPDatabase, openDB } from 'idb'
import type { Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { Dated } from './deviceClock'

export type Right = 'viewer' | 'tester' | 'supervisor'
export type Me = {
  id: string
  name: string
  role: Right
  demo: boolean
  /** Signs in by one tap, and has no password that anybody types. */
  oneTap?: boolean
}

export type Bundle = {
  personId: string
  jobId: string
  facts: Facts
  right: Right
  fetchedAt: string
  /** How far the office was read: its place of the last entry and its id, and the hash of what is no entry. */
  reached?: { seq: number; frame: string; last?: string | null }
}

export type Queued = {
  id: string
  personId: string
  jobId: string
  entry: Entry
  state: 'waiting' | 'refused' | 'conflict'
  reason: string | null
  addedAt: string
  /** By which clock it was dated; what was kept by an older version does not say. */
  clock?: Dated
}

/** A picture as it is kept on the device: already scaled and stripped. */
export type KeptPhoto = {
  id: string
  personId: string
  jobId: string
  blob: Blob
  /** 2: the office does not take it, for the reason beside. */
  sent: 0 | 1 | 2
  reason?: string
}

/** Stores and indices of the database, as they were first made. */
const VERSION = 30
const BY_JOB = '[personId+jobId]'
const BY_JOB_AND_SENT = '[personId+jobId+sent]'

function upgrade(db: IDBPDatabase, from: number): void {
  if (from < 10) {
    db.createObjectStore('bundles', { keyPath: ['personId', 'jobId'] })
    const queue = db.createObjectStore('queue', { keyPath: 'id' })
    queue.createIndex(BY_JOB, ['personId', 'jobId'])
    db.createObjectStore('kept', { keyPath: 'key' })
  }
  if (from < 20) {
    const photos = db.createObjectStore('photos', { keyPath: 'id' })
    photos.createIndex(BY_JOB_AND_SENT, ['personId', 'jobId', 'sent'])
  }
}

/** One store of the database. What is put is on the disk when the promise answers. */
class Store<T, Key extends IDBValidKey> {
  constructor(
    private readonly connection: () => Promise<IDBPDatabase>,
    private readonly name: string,
  ) {}

  async get(key: Key): Promise<T | undefined> {
    return (await this.connection()).get(this.name, key)
  }
  async put(value: T): Promise<void> {
    await (await this.connection()).put(this.name, value)
  }
  /** All or none of them. */
  async putAll(values: readonly T[]): Promise<void> {
    const change = (await this.connection()).transaction(this.name, 'readwrite')
    await Promise.all([...values.map((value) => change.store.put(value)), change.done])
  }
  /** Changes what is there; what another tab took away meanwhile stays away. */
  async change(key: Key, next: (known: T) => T): Promise<void> {
    const change = (await this.connection()).transaction(this.name, 'readwrite')
    const known = (await change.store.get(key)) as T | undefined
    if (known !== undefined) await change.store.put(next(known))
    await change.done
  }
  async delete(key: Key): Promise<void> {
    await (await this.connection()).delete(this.name, key)
  }
  async clear(): Promise<void> {
    await (await this.connection()).clear(this.name)
  }
  async count(): Promise<number> {
    return (await this.connection()).count(this.name)
  }
  /** Everything, or what an index has under a key; by the store's own key in order. */
  async all(index?: string, key?: IDBValidKey): Promise<T[]> {
    const db = await this.connection()
    return index ? db.getAllFromIndex(this.name, index, key) : db.getAll(this.name)
  }
}

/** How long a screen waits for the device's own database before it goes on with what the office has, ms. */
const PATIENCE_ms = 2500

/** A device's database, opened on first use. Every tab of a device has the same one. */
export class Device {
  private opened: Promise<IDBPDatabase> | null = null
  private readonly connection = (): Promise<IDBPDatabase> => this.connected()
  readonly bundles = new Store<Bundle, [string, string]>(this.connection, 'bundles')
  readonly queue = new Store<Queued, string>(this.connection, 'queue')
  readonly photos = new Store<KeptPhoto, string>(this.connection, 'photos')
  readonly kept = new Store<{ key: string; value: unknown }, string>(this.connection, 'kept')

  constructor(private readonly name: string) {}

  /** The connection, made on first use; a page that is left closes it, and so does one that a newer version waits for. */
  private connected(): Promise<IDBPDatabase> {
    if (this.opened) return this.opened
    ring()
    const opening = openDB(this.name, VERSION, {
      upgrade: (db, from) => upgrade(db, from),
      blocking: () => this.closeNow(),
      terminated: () => {
        this.opened = null
      },
    })
    this.opened = opening
    // A database that could not be opened is tried anew by whoever asks next.
    opening.catch(() => {
      this.opened = null
    })
    return opening
  }

  closeNow(): void {
    void this.opened?.then((db) => db.close()).catch(() => undefined)
    this.opened = null
  }

  /** A person's queue of a job, oldest first: ids sort by the time at which they were made. */
  queueOf(personId: string, jobId: string): Promise<Queued[]> {
    return this.queue.all(BY_JOB, [personId, jobId])
  }

  unsentPhotos(personId: string, jobId: string): Promise<KeptPhoto[]> {
    return this.photos.all(BY_JOB_AND_SENT, [personId, jobId, 0])
  }

  async remember<T>(key: string, value: T): Promise<void> {
    await this.kept.put({ key, value })
  }

  async recall<T>(key: string): Promise<T | null> {
    return ((await this.kept.get(key))?.value as T | undefined) ?? null
  }

  /** The device's answer, or null where it gives none in good time: a stuck database must not keep a screen empty. */
  async inGoodTime<T>(work: () => PromiseLike<T>): Promise<T | null> {
    const LATE = Symbol('late')
    for (let attempt = 0; attempt < 2; attempt++) {
      const late = new Promise<typeof LATE>((resolve) => setTimeout(() => resolve(LATE), PATIENCE_ms))
      const answer = await Promise.race([Promise.resolve(work()).catch(() => null), late])
      if (answer !== LATE) return answer as T | null
      // What waits on a connection that never answers is given up.
      this.closeNow()
    }
    return null
  }
}

const own = new Device('upstand')
if (typeof window !== 'undefined' && typeof window.addEventListener === 'function')
  window.addEventListener('pagehide', () => own.closeNow())

/** The database of the device that this page runs on. */
export const device = (): Device => own
export const inGoodTime = <T>(work: () => PromiseLike<T>): Promise<T | null> => own.inGoodTime(work)
export const remember = <T>(key: string, value: T): Promise<void> => own.remember(key, value)
export const recall = <T>(key: string): Promise<T | null> => own.recall(key)

let bell: BroadcastChannel | null = null

/**
 * A page kept for the back button may hold the database half open, and the next page would wait for it for ever. The
 * browser gives up such a page when a message comes for it, so every page listens, and rings before it opens.
 */
function ring(): void {
  if (typeof BroadcastChannel === 'undefined') return
  if (!bell) {
    bell = new BroadcastChannel('upstand-device')
    bell.onmessage = () => undefined
  }
  bell.postMessage('opening')
}
