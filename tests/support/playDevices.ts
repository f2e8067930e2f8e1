import fc from 'fast-check'
import { expect } from 'vitest'
import { correctedTime } from '@/core/record/order'
import { type Cut, cuts, HeldDevice, type Kept, type Person, people, Tab, textOf } from './hands'
import { demo } from './server'
import { TestJob } from './testJob'

const HOUR_ms = 3_600_000
/** Half a character: no office can keep it. */
const HALF = '\ud83d'
/** An offset is known to half the way of an answer; a busy machine answers late. */
const MOST_OFF_ms = 1500

type Doing =
  | { do: 'keep'; tab: number; isBad: boolean; isReading: boolean }
  | { do: 'sync'; tab: number }
  | { do: 'reload'; tab: number }
  | { do: 'leave'; tab: number }
  | { do: 'cut'; device: number; how: Cut[] }
  | { do: 'line'; device: number; on: boolean }
  | { do: 'clock'; device: number; hours: number }
  | { do: 'sign-in'; device: number; who: Person | null }
  | { do: 'race' }

const tab = fc.nat(3)
const device = fc.nat(1)
const doing: fc.Arbitrary<Doing> = fc.oneof(
  {
    weight: 8,
    arbitrary: fc.record({
      do: fc.constant('keep' as const),
      tab,
      isBad: fc.nat(9).map((n) => n === 0),
      isReading: fc.boolean(),
    }),
  },
  { weight: 4, arbitrary: fc.record({ do: fc.constant('sync' as const), tab }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('reload' as const), tab }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('leave' as const), tab }) },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('cut' as const),
      device,
      how: fc.array(fc.constantFrom(...cuts), { minLength: 1, maxLength: 3 }),
    }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('line' as const), device, on: fc.boolean() }) },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constant('clock' as const), device, hours: fc.constantFrom(-24, -1, 1, 24) }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constant('sign-in' as const), device, who: fc.constantFrom(...people, null) }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('race' as const) }) },
)

/** Two devices with two tabs each: the tester's and the supervisor's, and one tab of the other's on each. */
class Yard {
  readonly job = new TestJob()
  readonly devices = [new HeldDevice('tester'), new HeldDevice('supervisor')] as const
  readonly tabs: Tab[] = []
  readonly kept: Kept[] = []
  private said = 0

  async open(number: string): Promise<void> {
    await this.job.open(number)
    const [hers, his] = this.devices
    for (const [device, who] of [
      [hers, 'tester'],
      [hers, 'tester'],
      [his, 'supervisor'],
      [his, 'tester'],
    ] as const)
      this.tabs.push(new Tab(device, who, this.job.id))
    for (const one of this.tabs) await this.openAs(one)
  }

  /** Opens a tab as its own person, who signs in for it. */
  private async openAs(one: Tab): Promise<void> {
    one.device.signedIn = one.person
    await one.open()
  }

  async play(one: Doing): Promise<void> {
    switch (one.do) {
      case 'keep': {
        const text = `said ${this.said++}${one.isBad ? HALF : ''}`
        const { id, revision } = this.job.string
        const [body, about] = one.isReading
          ? ([
              this.job.voltageBody(385.4, { note: text, plantRevision: revision }),
              { partId: id, step: 'pv-voc' },
            ] as const)
          : ([{ kind: 'remark', v: 1, text }, undefined] as const)
        const kept = await this.tabs[one.tab]!.keep(body, about)
        if (kept) this.kept.push(kept)
        return
      }
      case 'sync':
        return this.tabs[one.tab]!.store?.sync()
      case 'reload':
        return this.tabs[one.tab]!.open()
      case 'leave':
        return this.tabs[one.tab]!.close()
      case 'cut':
        this.devices[one.device]!.coming.push(...one.how)
        return
      case 'line':
        this.devices[one.device]!.online = one.on
        return
      case 'clock':
        this.devices[one.device]!.ahead_ms += one.hours * HOUR_ms
        return
      case 'sign-in':
        this.devices[one.device]!.signedIn = one.who
        return
      case 'race':
        await Promise.all(this.tabs.map((each) => each.store?.sync()))
    }
  }

  /** Lines come back, and everybody signs in once more where they worked. */
  async settle(): Promise<void> {
    for (const one of this.devices) {
      one.online = true
      one.coming.length = 0
    }
    for (const one of this.tabs) {
      await this.openAs(one)
      await one.store!.sync()
    }
  }

  async check(): Promise<void> {
    const entries = (await this.job.entries()).filter((entry) => textOf(entry.body) !== '')
    const there = new Map<string, number>()
    for (const entry of entries) {
      const text = textOf(entry.body)
      there.set(text, (there.get(text) ?? 0) + 1)
      const said = this.kept.find((one) => one.text === text)!
      expect(entry.personId).toBe(demo.person[said.person])
      const off_ms = Math.abs(correctedTime(entry) - said.at)
      expect(off_ms < MOST_OFF_ms || entry.clockMoved_ms !== undefined).toBe(true)
    }
    for (const one of this.tabs) expect(one.store!.read()).toMatchObject({ waiting: 0, held: null })
    const rejected = this.tabs.flatMap((one) => one.store!.read().rejected)
    for (const said of this.kept) {
      const told = rejected.filter((one) => textOf(one.entry.body) === said.text)
      const fate = { ...said, times: there.get(said.text) ?? 0, told: told.map((one) => one.reason) }
      expect(fate).toMatchObject({ times: said.isBad ? 0 : 1 })
      expect(told.length > 0).toBe(said.isBad)
      for (const one of told) expect(one.reason).toContain('half a character')
    }
  }

  close(): void {
    for (const one of this.tabs) one.close()
  }
}

let runs = 0

export function playDevices() {
  const play = async (list: readonly Doing[]): Promise<number> => {
    const yard = new Yard()
    try {
      await yard.open(`D${runs++}-${Date.now() % 1e7}`)
      for (const one of list) await yard.play(one)
      await yard.settle()
      await yard.check()
      return yard.kept.length
    } finally {
      yard.close()
    }
  }
  return { doings: fc.array(doing, { minLength: 5, maxLength: 40 }), play }
}
