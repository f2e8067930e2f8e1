import { describe, expect, it } from 'vitest'
import { offsetAfter } from './clockOffset'

const HOUR_ms = 3_600_000

describe('the offset of the office’s clock', () => {
  it('is what a quick answer shows', () => {
    expect(offsetAfter({ sent: 1000, received: 1040, serverTime: 1020 + HOUR_ms }, 0)).toBe(HOUR_ms)
  })

  it('stays where a slow answer can be explained by its way', () => {
    // Three seconds of silence, and the office's time was taken at once: no clock is off.
    expect(offsetAfter({ sent: 1000, received: 4000, serverTime: 1010 }, 0)).toBe(0)
    expect(offsetAfter({ sent: 1000, received: 4000, serverTime: 3990 + HOUR_ms }, HOUR_ms)).toBe(HOUR_ms)
  })

  it('moves where no way explains it', () => {
    expect(offsetAfter({ sent: 1000, received: 4000, serverTime: 900 }, 0)).toBe(-1600)
    expect(offsetAfter({ sent: 1000, received: 1010, serverTime: 1005 }, HOUR_ms)).toBe(0)
  })
})
