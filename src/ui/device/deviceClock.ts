/**
 * The office's time on a device whose clock may be wrong, and may be put right or wrong while somebody works.
 *
 * While a page stands, the processor's own count of time (`performance.now`) tells whether the clock was moved: a move
 * begins a new *epoch*. Within one epoch the offset to the office's clock is the same throughout, so one contact with the
 * office measures it for everything that was entered in it, before and after.
 */
import { v7 as uuid } from 'uuid'

/** What a device can read, ms: its clock since 1970, and a count that nobody can move (and that may sleep with it). */
export type Ticks = { wall(): number; count(): number }
const ownTicks: Ticks = { wall: () => Date.now(), count: () => performance.now() }

export type Moment = { wall: number; count: number }

/** When a question was sent and its answer came, and the office's time in it, ms since 1970. */
export type Contact = { sent: Moment; received: Moment; serverTime: number }

/** How far the clock went ahead of the count between two moments, ms. */
const driftOf = (from: Moment, to: Moment): number => to.wall - from.wall - (to.count - from.count)

/** By which epoch something was dated, and how far the office's clock was ahead of it, ms. */
export type Dated = { epoch: string; offset_ms: number; measured: boolean }

/** Clock and count are apart by more than this: one of them was moved, or slept. */
const MOVED_ms = 2000
/** What an epoch guessed and what was measured later agree within this: nobody moved the clock. */
const SAME_ms = 5000

export class DeviceClock {
  private epoch = uuid()
  private offset_ms = 0
  private measured = false
  private last: Moment

  constructor(private readonly ticks: Ticks = ownTicks) {
    this.last = this.moment()
  }

  moment(): Moment {
    return { wall: this.ticks.wall(), count: this.ticks.count() }
  }

  /** Takes the offset that was last known, by an earlier page: a guess until the office is heard. */
  resume(offset_ms: number): void {
    if (!this.measured) this.offset_ms = offset_ms
  }

  /** The time now by the device's clock, and how it was dated. */
  stamp(): { deviceTime: string; clock: Dated } {
    this.look()
    return { deviceTime: new Date(this.last.wall).toISOString(), clock: this.dated() }
  }

  dated(): Dated {
    return { epoch: this.epoch, offset_ms: this.offset_ms, measured: this.measured }
  }

  /** The time by the office's clock, as far as this device knows it, ms since 1970. */
  officeTime(): number {
    this.look()
    return this.last.wall + this.offset_ms
  }

  get isMeasured(): boolean {
    this.look()
    return this.measured
  }

  /**
   * Takes the office's time in. An answer is as old as anything between nothing and the whole way, so a slow one says
   * little: only what it cannot explain moves the offset. Else the order of one device's entries would change with its
   * reception.
   */
  heard({ sent, received, serverTime }: Contact): Dated {
    this.look()
    // A clock that was moved, or a device that slept, while the question was on its way: the answer says nothing.
    const isTorn = [driftOf(sent, received), driftOf(received, this.last)].some((drift) => Math.abs(drift) > MOVED_ms)
    if (isTorn) return this.dated()
    const unsure = (received.count - sent.count) / 2
    const found = serverTime - (received.wall - unsure)
    if (Math.abs(found - this.offset_ms) > unsure) this.offset_ms = Math.round(found)
    this.measured = true
    return this.dated()
  }

  /**
   * How something that was dated earlier stands now that this epoch is measured: where its own never was, and the two
   * offsets are unlike, the clock was moved between, nobody knows when.
   */
  settled({ epoch, offset_ms, measured }: Dated): { offset_ms: number; moved_ms: number | null } {
    if (epoch === this.epoch) return { offset_ms: this.offset_ms, moved_ms: null }
    const moved = this.offset_ms - offset_ms
    return { offset_ms, moved_ms: measured || Math.abs(moved) < SAME_ms ? null : moved }
  }

  private look(): void {
    const now = this.moment()
    const drift = driftOf(this.last, now)
    this.last = now
    if (Math.abs(drift) <= MOVED_ms) return
    this.epoch = uuid()
    this.measured = false
    // A clock that went back was moved, for sure. One that went ahead has mostly slept with the device, and is right.
    if (drift < 0) this.offset_ms -= Math.round(drift)
  }
}
