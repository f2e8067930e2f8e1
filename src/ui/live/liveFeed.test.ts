// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { testId } from '@/core/testing/factsBuilder'
import { LiveFeed } from './liveFeed'

const pages: { cursor: number; samples: object[]; paired: string[] }[] = []
vi.mock('../device/api', () => ({ ask: async () => pages.shift() ?? { cursor: 9, samples: [], paired: [] } }))

const sample = (text: string, second: number) => ({
  instrumentId: testId(7),
  quantity: 'dc-voltage',
  read: { text, value: Number(text), bound: 'exact', unit: 'V' },
  at: new Date(Date.UTC(2026, 4, 14, 10, 0, second)).toISOString(),
})

describe('the feed of a job, as a page hears it', () => {
  beforeEach(() => vi.useFakeTimers())
  afterEach(() => vi.useRealTimers())

  it('marks what was shown before it listened: that may belong to another string', async () => {
    pages.push({ cursor: 1, samples: [sample('386.6', 1)], paired: [testId(7)] })
    pages.push({ cursor: 2, samples: [sample('390.1', 5)], paired: [testId(7)] })
    const feed = new LiveFeed('job', () => [])
    feed.open()
    await vi.advanceTimersByTimeAsync(10)
    expect(feed.read().latest['dc-voltage']).toMatchObject({ read: { text: '386.6' }, old: true })
    await vi.advanceTimersByTimeAsync(2500)
    expect(feed.read().latest['dc-voltage']).toMatchObject({ read: { text: '390.1' } })
    expect(feed.read().latest['dc-voltage']!.old).toBeUndefined()
    feed.close()
  })

  it('goes on with what was paired here, also where the page is loaded anew without reception', async () => {
    localStorage.clear()
    pages.push({ cursor: 1, samples: [], paired: [testId(7)] })
    const first = new LiveFeed('job', () => [])
    expect(first.read().paired).toEqual([])
    first.open()
    await vi.advanceTimersByTimeAsync(10)
    first.close()
    expect(new LiveFeed('job', () => []).read().paired).toEqual([testId(7)])
    expect(new LiveFeed('another', () => []).read().paired).toEqual([])
    // Parted from it at the office, it is parted here too.
    pages.push({ cursor: 2, samples: [], paired: [] })
    const next = new LiveFeed('job', () => [])
    next.open()
    await vi.advanceTimersByTimeAsync(10)
    next.close()
    expect(new LiveFeed('job', () => []).read().paired).toEqual([])
  })

  it('goes by each instrument’s own clock: one that is behind is not silenced by another', () => {
    const feed = new LiveFeed('job', () => [])
    const other = { ...sample('388.0', 2), instrumentId: testId(8) }
    feed.take([sample('386.6', 40), other] as never)
    expect(feed.read().latest['dc-voltage']).toMatchObject({ read: { text: '388.0' } })
    // The same one again, come late: what it said before is not what it says now.
    feed.take([{ ...other, read: { ...other.read, text: '387.1' }, at: sample('', 1).at }] as never)
    expect(feed.read().latest['dc-voltage']).toMatchObject({ read: { text: '388.0' } })
  })

  it('keeps the light of the last minutes by the office’s clock, not by a device that is an hour ahead', () => {
    const office = Date.UTC(2026, 4, 14, 10, 0, 30)
    vi.setSystemTime(office + 3_600_000)
    const feed = new LiveFeed(
      'job',
      () => [],
      () => office,
    )
    feed.take([{ ...sample('812', 20), quantity: 'irradiance' }] as never)
    expect(feed.read().light).toHaveLength(1)
  })

  it('puts the parts of a sweep together as they come, once each; another sweep begins anew', () => {
    const part = (id: string, from: number, done = false) => ({
      ...sample(String(from + 2), from),
      quantity: 'iv-curve',
      sweep: {
        id,
        points: [
          [from, 9],
          [from + 1, 8],
        ],
        done,
      },
    })
    const feed = new LiveFeed('job', () => [])
    const points = () => feed.read().latest['iv-curve']!.sweep!.points.map(([voltage]) => voltage)
    feed.take([part('a', 0), part('a', 2)] as never)
    expect(points()).toEqual([0, 1, 2, 3])
    // The office tells the same again, and goes on.
    feed.take([part('a', 2), part('a', 4, true), part('a', 4, true)] as never)
    expect(points()).toEqual([0, 1, 2, 3, 4, 5])
    feed.take([part('b', 20)] as never)
    expect(points()).toEqual([20, 21])
  })
})
