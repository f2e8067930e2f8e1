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
})
