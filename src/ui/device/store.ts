/** The device's own database: facts bundles, the queue of what is not sent yet, and who is here. */
import { type IDBPDatabase, openDB } from 'idb'
import type { Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'

export type Right = 'viewer' | 'tester' | 'supervisor'
export type Me = { id: string; name: string; role: Right; demo: boolean }

export type Bundle = {
  personId: string
  jobId: string
  facts: Facts
  right: Right
  fetchedAt: string
  newestReceived: string | null
}

export type Queued = {
  id: string
  personId: string
  jobId: string
  entry: Entry
  state: 'waiting' | 'refused' | 'conflict'
  reason: string | null
  addedAt: string
}

/** A picture as it is kept on the device: already scaled and stripped. */
export type KeptPhoto = { id: string; personId: string; jobId: string; blob: Blob; sent: 0 | 1 }

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

let opened: Promise<IDBPDatabase> | null = null

/** The connection, made on first use; a page that is left closes it, and so does one that a newer version waits for. */
function connection(): Promise<IDBPDatabase> {
  if (!opened) {
    ring()
    opened = openDB('upstand', VERSION, {
      upgrade: (db, from) => upgrade(db, from),
      blocking: closeNow,
      terminated: () => {
        opened = null
      },
    })
    // A database that could not be opened is tried anew by whoever asks next.
    opened.catch(() => {
      opened = null
    })
  }
  return opened
}

function closeNow(): void {
  void opened?.then((db) => db.close()).catch(() => undefined)
  opened = null
}
if (typeof window !== 'undefined') window.addEventListener('pagehide', closeNow)

/** One store of the database. What is put is on the disk when the promise answers. */
class Store<T, Key extends IDBValidKey> {
  constructor(private readonly name: string) {}

  async get(key: Key): Promise<T | undefined> {
    return (await connection()).get(this.name, key)
  }
  async put(value: T): Promise<void> {
    await (await connection()).put(this.name, value)
  }
  /** All or none of them. */
  async putAll(values: readonly T[]): Promise<void> {
    const change = (await connection()).transaction(this.name, 'readwrite')
    await Promise.all([...values.map((value) => change.store.put(value)), change.done])
  }
  async delete(key: Key): Promise<void> {
    await (await connection()).delete(this.name, key)
  }
  async clear(): Promise<void> {
    await (await connection()).clear(this.name)
  }
  async count(): Promise<number> {
    return (await connection()).count(this.name)
  }
  /** Everything, or what an index has under a key; by the store's own key in order. */
  async all(index?: string, key?: IDBValidKey): Promise<T[]> {
    const db = await connection()
    return index ? db.getAllFromIndex(this.name, index, key) : db.getAll(this.name)
  }
}

const queue = new Store<Queued, string>('queue')
const photos = new Store<KeptPhoto, string>('photos')
const stores = {
  bundles: new Store<Bundle, [string, string]>('bundles'),
  queue,
  photos,
  kept: new Store<{ key: string; value: unknown }, string>('kept'),
}

/** The device's database, opened on first use. */
export const device = (): typeof stores => stores

/** A person's queue of a job, oldest first: ids sort by the time at which they were made. */
export const queueOf = (personId: string, jobId: string): Promise<Queued[]> => queue.all(BY_JOB, [personId, jobId])

export const unsentPhotos = (personId: string, jobId: string): Promise<KeptPhoto[]> =>
  photos.all(BY_JOB_AND_SENT, [personId, jobId, 0])

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

/** How long a screen waits for the device's own database before it goes on with what the office has, ms. */
const PATIENCE_ms = 2500

/** The device's answer, or null where it gives none in good time: a stuck database must not keep a screen empty. */
export async function inGoodTime<T>(work: () => PromiseLike<T>): Promise<T | null> {
  const LATE = Symbol('late')
  for (let attempt = 0; attempt < 2; attempt++) {
    const late = new Promise<typeof LATE>((resolve) => setTimeout(() => resolve(LATE), PATIENCE_ms))
    const answer = await Promise.race([Promise.resolve(work()).catch(() => null), late])
    if (answer !== LATE) return answer as T | null
    // What waits on a connection that never answers is given up.
    closeNow()
  }
  return null
}

export async function remember<T>(key: string, value: T): Promise<void> {
  await device().kept.put({ key, value })
}

export async function recall<T>(key: string): Promise<T | null> {
  return ((await device().kept.get(key))?.value as T | undefined) ?? null
}
