import { describe, expect, it } from 'vitest'
import { type Contact, DeviceClock, type Moment } from './deviceClock'

const SECOND = 1000
const HOUR = 3600 * SECOND
const DAY = 24 * HOUR

/** A device in the hand of somebody who moves its clock; real time is the office's. */
class Hand {
  real = Date.UTC(2026, 4, 14, 9)
  ahead = 0
  slept = 0
  readonly ticks = { wall: () => this.real + this.ahead, count: () => this.real - this.slept }

  moment(): Moment {
    return { wall: this.ticks.wall(), count: this.ticks.count() }
  }
  wait(ms: number): void {
    this.real += ms
  }
  sleep(ms: number): void {
    this.real += ms
    this.slept += ms
  }
  /** Asks the office: so long there, so long back. */
  contact(there = 20, back = 20): Contact {
    const sent = this.moment()
    this.wait(there)
    const serverTime = this.real
    this.wait(back)
    return { sent, received: this.moment(), serverTime }
  }
}
const corrected = ({ deviceTime, clock }: ReturnType<DeviceClock['stamp']>, clockNow: DeviceClock): number =>
  Date.parse(deviceTime) + clockNow.settled(clock).offset_ms

function heldWith(ahead: number): { hand: Hand; clock: DeviceClock } {
  const hand = new Hand()
  hand.ahead = ahead
  return { hand, clock: new DeviceClock(hand.ticks) }
}

describe('the clock of a device', () => {
  it('takes the offset from a quick answer', () => {
    const { hand, clock } = heldWith(-HOUR)
    clock.heard(hand.contact())
    expect(clock.dated()).toMatchObject({ offset_ms: HOUR, measured: true })
    expect(clock.officeTime()).toBe(hand.real)
  })

  it('keeps its offset where the way of a slow answer explains it, and moves it where no way does', () => {
    const { hand, clock } = heldWith(0)
    clock.heard(hand.contact(10, 2990))
    expect(clock.dated().offset_ms).toBe(0)
    hand.ahead = 900
    clock.heard(hand.contact(10, 10))
    expect(clock.dated().offset_ms).toBe(-900)
  })

  it('dates an entry right though the clock was set back a day before it and nobody was heard since', () => {
    const { hand, clock } = heldWith(0)
    clock.heard(hand.contact())
    hand.wait(HOUR)
    hand.ahead = -DAY
    const stamp = clock.stamp()
    expect(Date.parse(stamp.deviceTime) + stamp.clock.offset_ms).toBe(hand.real)
    expect(stamp.clock.measured).toBe(false)
  })

  it('dates entries before and after a move each by its own offset, once the office was heard', () => {
    const { hand, clock } = heldWith(0)
    clock.heard(hand.contact())
    const before = clock.stamp()
    const [first, at] = [hand.real, hand.real + HOUR]
    hand.wait(HOUR)
    hand.ahead = DAY
    const after = clock.stamp()
    hand.wait(HOUR)
    clock.heard(hand.contact())
    expect(corrected(before, clock)).toBe(first)
    expect(corrected(after, clock)).toBe(at)
    expect([before, after].map(({ clock: dated }) => clock.settled(dated).moved_ms)).toEqual([null, null])
  })

  it('takes a device that slept for one whose clock is right', () => {
    const { hand, clock } = heldWith(HOUR)
    clock.heard(hand.contact())
    hand.sleep(8 * HOUR)
    const stamp = clock.stamp()
    expect(Date.parse(stamp.deviceTime) + stamp.clock.offset_ms).toBe(hand.real)
  })

  it('learns nothing from an answer during which the device slept or its clock was moved', () => {
    const { hand, clock } = heldWith(0)
    const sent = hand.moment()
    const serverTime = hand.real
    hand.sleep(HOUR)
    clock.heard({ sent, received: hand.moment(), serverTime })
    expect(clock.isMeasured).toBe(false)
    const contact = hand.contact()
    hand.ahead = DAY
    clock.heard(contact)
    expect(clock.isMeasured).toBe(false)
  })

  it('says by how much a time is unsure where a page was left and the clock moved before the office was heard', () => {
    const { hand, clock } = heldWith(0)
    clock.resume(0)
    const stamp = clock.stamp()
    hand.ahead = DAY
    const next = new DeviceClock(hand.ticks)
    next.resume(0)
    next.heard(hand.contact())
    expect(next.settled(stamp.clock)).toEqual({ offset_ms: 0, moved_ms: -DAY })
  })

  it('is sure of what an earlier page dated where nobody moved the clock between', () => {
    const { hand, clock } = heldWith(HOUR)
    clock.resume(-HOUR)
    const stamp = clock.stamp()
    const next = new DeviceClock(hand.ticks)
    next.resume(-HOUR)
    next.heard(hand.contact())
    expect(next.settled(stamp.clock)).toEqual({ offset_ms: -HOUR, moved_ms: null })
  })
})
