/**
 * People with devices, played against the running application: tabs that are opened, left and reloaded, a line that is
 * cut in every place of the exchange, a clock that somebody moves, a person who signs in where another one works.
 */
import 'fake-indexeddb/auto'
import { v7 as uuid } from 'uuid'
import type { EntryBody } from '@/core/record/entry'
import { DeviceClock } from '@/ui/device/deviceClock'
import { JobStore } from '@/ui/device/jobStore'
import { Device } from '@/ui/device/store'
import { base, cookieOf, demo, type Who } from './server'

export type Person = Extract<Who, 'tester' | 'supervisor'>
export const people: readonly Person[] = ['tester', 'supervisor']

/** Where the line breaks: before anything is sent, while it is sent, after the office has it, in the middle of the answer. */
export const cuts = ['before', 'sending', 'answer-lost', 'answer-torn'] as const
export type Cut = (typeof cuts)[number]

/** Something that somebody entered, and when it really was, ms since 1970. */
export type Kept = { text: string; person: Person; at: number; isBad: boolean }

/** The words by which an entry is known again: those of a remark, or a reading's note. */
export const textOf = (body: EntryBody): string =>
  body.kind === 'remark' ? body.text : body.kind === 'reading' ? (body.note ?? '') : ''

class Lost extends Error {}

/** How long a request is on its way before it is torn off, ms. */
const TORN_AFTER_ms = 2

/** One device: its database, its clock, its line, and who is signed in. */
export class HeldDevice {
  readonly database = new Device(`device-${uuid()}`)
  ahead_ms = 0
  online = true
  signedIn: Person | null
  /** Cuts that come, one for each request. */
  readonly coming: Cut[] = []

  constructor(who: Person) {
    this.signedIn = who
  }

  private readonly ticks = { wall: () => Date.now() + this.ahead_ms, count: () => performance.now() }

  ground = () => ({ device: this.database, clock: new DeviceClock(this.ticks), fetch: this.fetch })

  private readonly fetch = async (path: string, request: RequestInit): Promise<Response> => {
    const cut = this.coming.shift()
    if (!this.online || cut === 'before') throw new Lost()
    const cookie = await cookieOf(this.signedIn ?? 'nobody')
    const headers = { ...(request.headers as Record<string, string>), cookie, origin: base }
    if (cut === 'sending') {
      const torn = new AbortController()
      setTimeout(() => torn.abort(), TORN_AFTER_ms)
      return fetch(base + path, { ...request, headers, signal: torn.signal })
    }
    const answer = await fetch(base + path, { ...request, headers })
    if (cut === 'answer-lost') throw new Lost()
    if (cut !== 'answer-torn') return answer
    const text = await answer.text()
    return new Response(text.slice(0, text.length >> 1), { status: answer.status, headers: answer.headers })
  }
}

/** A tab that somebody opened a job in; it stays theirs whoever signs in later. */
export class Tab {
  store: JobStore | null = null

  constructor(
    readonly device: HeldDevice,
    readonly person: Person,
    private readonly jobId: string,
  ) {}

  async open(): Promise<void> {
    this.close()
    const me = { id: demo.person[this.person], name: this.person, role: this.person, demo: true }
    this.store = new JobStore(this.jobId, me, this.device.ground())
    await this.store.open()
  }

  close(): void {
    this.store?.close()
    this.store = null
  }

  /** Enters something; null where the tab cannot take it: it is closed, or was never loaded. */
  async keep(body: EntryBody, about: { partId: string; step: string } | undefined): Promise<Kept | null> {
    const at = Date.now()
    const isKept = (await this.store?.add(body, about)) ?? false
    const text = textOf(body)
    return isKept ? { text, person: this.person, at, isBad: !text.isWellFormed() } : null
  }
}

/** What a page needs of a browser. */
export const pageWindow = {
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
  location: { replace: () => undefined },
}
