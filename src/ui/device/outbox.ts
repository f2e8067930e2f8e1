/**
 * What one person entered in one job on this device and the office has not got yet. Each entry has its own fate, and
 * nothing waits in silence: what is refused, and what holds all of it up, is said in a sentence.
 */
import type { Entry } from '@/core/record/entry'
import { say } from '@/words/say'
import { Answered, type Line, NoReception } from './api'
import type { DeviceClock } from './deviceClock'
import { isSame } from './mergeFacts'
import type { Device, KeptPhoto, Queued } from './store'

type Fate = {
  id: string
  fate: 'kept' | 'already' | 'conflict' | 'refused'
  reason?: string
  receivedAt?: string
  /** As the office has it, where that is not what was sent. */
  entry?: Entry
}
type OnKept = (entries: Entry[]) => Promise<void>
const isKept = ({ fate }: Fate): boolean => fate === 'kept' || fate === 'already'
export type Whose = { jobId: string; personId: string }

const MOST_ENTRIES = 100
/** Well below what the office's door takes at once. */
const MOST_CHARACTERS = 400_000

/** Refusals that speak of who asks and not of what was sent: nothing of the queue can go until that changes. */
const isAboutAll = (error: Answered): boolean =>
  [401, 403, 408, 429].includes(error.status) ||
  error.status >= 500 ||
  error.code === 'door.another-person' ||
  error.code === 'door.not-found'

export class Outbox {
  private queue: Queued[] = []
  /** Why nothing of it can go, in words and by its code; null where nothing stands in its way. */
  blocked: { reason: string; code: string } | null = null

  constructor(
    private readonly whose: Whose,
    private readonly device: Device,
    private readonly line: Line,
    private readonly clock: DeviceClock,
  ) {}

  get waiting(): Queued[] {
    return this.queue.filter((one) => one.state === 'waiting')
  }
  get ids(): string[] {
    return this.queue.map((one) => one.id)
  }
  get rejected(): Queued[] {
    return this.queue.filter((one) => one.state !== 'waiting')
  }

  /** Looks again at what the device holds: another tab may have added, sent or taken off. */
  async reload(): Promise<void> {
    const { personId, jobId } = this.whose
    const held = await this.device.inGoodTime(() => this.device.queueOf(personId, jobId))
    if (!held) return
    const known = new Map(this.queue.map((one) => [one.id, one]))
    // What did not change stays the same object: it is not evaluated again.
    this.queue = held.map((one) => {
      const own = known.get(one.id)
      return own && own.state === one.state && own.entry.clockOffset_ms === one.entry.clockOffset_ms ? own : one
    })
  }

  /** Keeps entries on the device, all or none. Gives false where it could not keep them. */
  async put(queued: readonly Queued[]): Promise<boolean> {
    const kept = await this.device.inGoodTime(() => this.device.queue.putAll(queued).then(() => true))
    if (kept !== true) return false
    const known = new Set(this.queue.map((one) => one.id))
    this.queue.push(...queued.filter((one) => !known.has(one.id)))
    return true
  }

  async drop(id: string): Promise<void> {
    await this.device.queue.delete(id)
    this.queue = this.queue.filter((one) => one.id !== id)
  }

  /**
   * Sends what waits, pictures first: nobody at the office should look for one in vain.
   *
   * @param onKept told of entries that the office has now, before they leave the queue: at every moment one of the two
   * holds them, and shows them without reception.
   * @throws NoReception; Answered where all of it is held up.
   */
  async send(onKept: OnKept, isOver: () => boolean): Promise<void> {
    await this.sendPictures(isOver)
    for (;;) {
      const batch = this.nextBatch()
      if (batch.length === 0 || isOver()) return
      await this.sendBatch(batch, onKept)
    }
  }

  private async sendPictures(isOver: () => boolean): Promise<void> {
    const { personId, jobId } = this.whose
    const waiting = (await this.device.inGoodTime(() => this.device.unsentPhotos(personId, jobId))) ?? []
    for (const one of waiting) {
      if (isOver()) return
      const sent = await this.pictureSent(one)
      await this.device.photos.change(one.id, (known) => ({ ...known, ...sent }))
    }
  }

  /** A picture that the office does not take holds up nothing else: the entry that names it will say why. */
  private async pictureSent(one: KeptPhoto): Promise<Pick<KeptPhoto, 'sent' | 'reason'>> {
    try {
      await this.line.sendPicture(`/api/jobs/${this.whose.jobId}/attachments/${one.id}`, one.blob)
      return { sent: 1 }
    } catch (error) {
      if (!(error instanceof Answered) || isAboutAll(error)) throw error
      return { sent: 2, reason: error.message }
    }
  }

  private nextBatch(): Queued[] {
    const batch: Queued[] = []
    let characters = 0
    for (const one of this.waiting) {
      characters += JSON.stringify(one.entry).length
      if (batch.length > 0 && (batch.length >= MOST_ENTRIES || characters > MOST_CHARACTERS)) break
      batch.push(one)
    }
    return batch
  }

  private async sendBatch(batch: readonly Queued[], onKept: OnKept): Promise<void> {
    const { jobId, personId } = this.whose
    const dated = new Map(batch.map((one) => [one.id, this.datedEntry(one)]))
    const entries = [...dated.values()].map(({ personId: _, receivedAt: __, ...sent }) => sent)
    let fates: Fate[]
    try {
      const answer = await this.line.ask<{ fates: Fate[] }>(`/api/jobs/${jobId}/entries`, { personId, entries })
      fates = answer.fates
    } catch (error) {
      if (!(error instanceof Answered) || isAboutAll(error)) throw error
      // The door took offence at the batch as a whole: each is asked for by itself, until the one is found.
      if (batch.length > 1) {
        for (const one of batch) await this.sendBatch([one], onKept)
        return
      }
      fates = batch.map(({ id }) => ({ id, fate: 'refused', reason: error.message }))
    }
    const kept = fates.flatMap((fate) => {
      const sent = dated.get(fate.id)
      return sent && isKept(fate) ? [this.keptAs(sent, fate)] : []
    })
    if (kept.length > 0) await onKept(kept)
    for (const fate of fates) await this.settle(fate)
    // An answer that leaves one out is none for it: it is sent again.
    if (batch.some((one) => !fates.some((fate) => fate.id === one.id))) throw new NoReception()
  }

  /** The entry with its time as far as it is known now. */
  private datedEntry(one: Queued): Entry {
    const before = one.clock ?? { epoch: '', offset_ms: one.entry.clockOffset_ms, measured: false }
    const { offset_ms, moved_ms } = this.clock.settled(before)
    return { ...one.entry, clockOffset_ms: offset_ms, ...(moved_ms === null ? {} : { clockMoved_ms: moved_ms }) }
  }

  /** The entry as the office has it. Its body stays the same object where nothing of it changed: what was evaluated stands. */
  private keptAs(sent: Entry, fate: Fate): Entry {
    const receivedAt = fate.receivedAt ?? new Date(this.clock.officeTime()).toISOString()
    if (!fate.entry) return { ...sent, receivedAt }
    return isSame(fate.entry.body, sent.body) ? ({ ...fate.entry, body: sent.body } as Entry) : fate.entry
  }

  private async settle(fate: Fate): Promise<void> {
    const { id } = fate
    if (isKept(fate)) {
      await this.device.queue.delete(id)
      this.queue = this.queue.filter((other) => other.id !== id)
      return
    }
    const own = this.queue.find((one) => one.id === id)
    const reason = (own && (await this.reasonOfPicture(own.entry))) ?? fate.reason ?? say('refused.no-reason')
    const state = fate.fate as 'conflict' | 'refused'
    this.queue = this.queue.map((other) => (other.id === id ? { ...other, state, reason } : other))
    await this.device.queue.change(id, (known) => ({ ...known, state, reason }))
  }

  private async reasonOfPicture({ body }: Entry): Promise<string | null> {
    if (body.kind !== 'photo') return null
    const photo = await this.device.inGoodTime(() => this.device.photos.get(body.attachment))
    return photo?.reason ?? null
  }
}
