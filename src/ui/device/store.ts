/** The device's own database: facts bundles, the queue of what is not sent yet, and who is here. */
import Dexie, { type Table } from 'dexie'
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

class DeviceDatabase extends Dexie {
  bundles!: Table<Bundle, [string, string]>
  queue!: Table<Queued, string>
  photos!: Table<KeptPhoto, string>
  kept!: Table<{ key: string; value: unknown }, string>

  constructor() {
    super('upstand')
    this.version(1).stores({
      bundles: '[personId+jobId]',
      queue: 'id, [personId+jobId], [personId+state]',
      kept: 'key',
    })
    this.version(2).stores({ photos: 'id, [personId+jobId+sent]' })
  }
}

let opened: DeviceDatabase | null = null

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

/** The device's database, opened on first use; a page that is left closes it. */
export function device(): DeviceDatabase {
  if (!opened) {
    ring()
    const database = new DeviceDatabase()
    opened = database
    window.addEventListener('pagehide', () => database.close({ disableAutoOpen: false }))
  }
  return opened
}

/** Opens the database anew: what waits on a connection that never answers is given up. */
function openAnew(): void {
  opened?.close()
  opened = null
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
    openAnew()
  }
  return null
}

export async function remember<T>(key: string, value: T): Promise<void> {
  await device().kept.put({ key, value })
}

export async function recall<T>(key: string): Promise<T | null> {
  return ((await device().kept.get(key))?.value as T | undefined) ?? null
}
